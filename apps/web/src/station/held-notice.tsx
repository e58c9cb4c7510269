import { Link, useLocation } from 'react-router';
import { mountedAgain } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';

/** The step whose pages say it themselves. */
const TOLD = /\/focus(\/|$)/;

/** The lens is in the hand, and the other steps show it as if it were mounted. */
export default function HeldNotice() {
  const { pathname } = useLocation();
  const { change } = useEditing();
  if (TOLD.test(pathname)) return null;
  return (
    <p
      role="status"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule border-l-4 border-l-costs bg-paper px-5 py-1.5"
    >
      <span>
        The lens is held off the body. The figures on this page are for the lens once it is mounted
        again;{' '}
        <Link to="focus/held-off" className="font-medium underline underline-offset-4">
          Held off the body
        </Link>{' '}
        tells what is sharp now.
      </span>
      <Button onClick={() => change('Mount the lens', '/held_off', mountedAgain)}>
        Mount it again
      </Button>
    </p>
  );
}
