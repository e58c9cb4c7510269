import { useEffect, useState } from 'react';
import { Button } from '../ui/button.js';
import type { UnreadableDraft } from './drafts.js';
import { saveDocument } from './export.js';

interface Props {
  drafts: {
    all: (id: string) => Promise<{ unreadable: readonly UnreadableDraft[] }>;
    drop: (id: string, tab: string) => Promise<void>;
  };
  id: string;
  /** “station” */
  what: string;
}

/** What this browser kept of an edit and cannot make anything of: said, and kept until it is let go. */
export function UnreadableDrafts({ drafts, id, what }: Props) {
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
  return found.map(({ tab, unreadable }) => (
    <div
      key={tab}
      className="flex flex-wrap items-center gap-3 border-b border-l-4 border-rule border-l-costs px-5 py-1.5"
    >
      <p role="status" className="min-w-0 flex-1 basis-60">
        This browser kept an edit of this {what} that cannot be read.
      </p>
      <Button onClick={() => saveDocument(unreadable)}>Save as file</Button>
      <Button
        look="quiet"
        onClick={() => {
          void drafts.drop(id, tab);
          setFound(found.filter((each) => each.tab !== tab));
        }}
      >
        Discard it
      </Button>
    </div>
  ));
}
