import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import type { Found } from '../records/drafts.js';
import { Button } from '../ui/button.js';
import { itemDrafts, type ItemDraft } from '../records/item-drafts.js';

interface Props {
  draftKey: string;
  found: Found<ItemDraft> | null;
  onTakeUp: (draft: ItemDraft) => void;
}

/** What another tab was typing and has not saved: offered, never slipped in. */
export function LeftDraft({ draftKey, found, onTakeUp }: Props) {
  const [answered, setAnswered] = useState(false);
  if (!found || answered) return null;
  const { keptAt } = found.draft;
  const answer = (): void => {
    void itemDrafts.drop(draftKey, found.tab);
    setAnswered(true);
  };
  return (
    <div className="flex flex-wrap items-center gap-3 border-l-4 border-costs px-3 py-1">
      <p className="min-w-0 flex-1 basis-60">
        Another tab has unsaved changes here
        {keptAt ? `, from ${formatDistanceToNow(keptAt, { addSuffix: true })}` : ''}.
      </p>
      <Button
        onClick={() => {
          onTakeUp(found.draft);
          answer();
        }}
      >
        Go on with them
      </Button>
      <Button look="quiet" onClick={answer}>
        Discard them
      </Button>
    </div>
  );
}
