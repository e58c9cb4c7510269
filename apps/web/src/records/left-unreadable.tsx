import { lazy, Suspense, useEffect, useState } from 'react';
import type { UnreadableDraft } from './drafts.js';

// There is hardly ever one: what shows it is not loaded before.
const UnreadableList = lazy(() => import('./unreadable-drafts.js'));

interface Props {
  drafts: {
    all: (id: string) => Promise<{ unreadable: readonly UnreadableDraft[] }>;
    drop: (id: string, tab: string) => Promise<void>;
  };
  id: string;
  /** “station” */
  what: string;
}

/** Looks for drafts that cannot be read: they are said, and kept until they are let go. */
export function LeftUnreadable({ drafts, id, what }: Props) {
  const [found, setFound] = useState<readonly UnreadableDraft[]>([]);
  useEffect(() => {
    let gone = false;
    void drafts.all(id).then(({ unreadable }) => {
      if (!gone) setFound(unreadable);
    });
    return () => {
      gone = true;
    };
  }, [drafts, id]);
  if (found.length === 0) return null;
  const discard = (tab: string): void => {
    void drafts.drop(id, tab);
    setFound(found.filter((each) => each.tab !== tab));
  };
  return (
    <Suspense>
      <UnreadableList {...{ what, found }} onDiscard={discard} />
    </Suspense>
  );
}
