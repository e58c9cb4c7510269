import type { ReactNode } from 'react';
import type { Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { textsDropped } from '../store/station.js';
import { useAppDispatch } from '../store/store.js';
import { useNotice } from '../ui/notices.js';

/** Changes that add or take away a thing; what typed text belonged to it goes along. */
export function useSiteEdit() {
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  return (label: string, pointer: string, write: (now: Station) => Station): void => {
    const refused = change(label, pointer, write);
    if (refused === null) dispatch(textsDropped(pointer));
    else notice([refused]);
  };
}

/** A heading with what may be done to the whole thing. */
export function Titled({
  title,
  action,
  children,
}: {
  title: string;
  action: ReactNode;
  children?: ReactNode;
}) {
  return (
    <section>
      <div className="mb-2 flex items-center justify-between gap-3">
        <h2 className="text-[15px] font-semibold">{title}</h2>
        {action}
      </div>
      <div className="space-y-1.5">{children}</div>
    </section>
  );
}
