import type { ComponentType } from 'react';
import { Link } from 'react-router';
import { mountedAgain } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';

/** A page about a mounted lens. With the lens in the hand it says so, and judges nothing. */
export function whileMounted(Page: ComponentType): ComponentType {
  return function WhileMounted() {
    const held = useAppSelector((state) => selectStation(state).held_off !== undefined);
    return held ? <InHand /> : <Page />;
  };
}

function InHand() {
  const { change } = useEditing();
  return (
    <div className="flex min-h-0 flex-1 items-center justify-center overflow-y-auto bg-paper px-5 py-10">
      <div className="max-w-[46ch] space-y-4">
        <h1 className="text-[22px] leading-7 font-semibold">The lens is in the hand</h1>
        <p className="text-quiet">
          It is held off the body, so its gap and its lean decide what is sharp, not the scales.
          This page is for a mounted lens.
        </p>
        <p className="flex flex-wrap items-center gap-x-5 gap-y-3">
          <Link
            to="../focus/held-off"
            className="inline-flex min-h-9 items-center rounded-sm border border-ink bg-ink px-3 font-medium text-on-strong pointer-coarse:min-h-11"
          >
            Gap and lean
          </Link>
          <Button onClick={() => change('Mount the lens', '/held_off', mountedAgain)}>
            Mount it again
          </Button>
        </p>
      </div>
    </div>
  );
}
