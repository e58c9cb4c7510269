import type { UnreadableDraft } from './drafts.js';
import { Button } from '../ui/button.js';
import { saveDocument } from './export.js';

/** What this browser kept of an edit and cannot make anything of, to be saved or let go. */
export default function UnreadableList({
  what,
  found,
  onDiscard,
}: {
  what: string;
  found: readonly UnreadableDraft[];
  onDiscard: (tab: string) => void;
}) {
  return found.map(({ tab, unreadable }) => (
    <div
      key={tab}
      className="flex flex-wrap items-center gap-3 border-b border-l-4 border-rule border-l-costs px-5 py-1.5"
    >
      <p role="status" className="min-w-0 flex-1 basis-60">
        This browser kept an edit of this {what} that cannot be read.
      </p>
      <Button onClick={() => saveDocument(unreadable)}>Save as file</Button>
      <Button look="quiet" onClick={() => onDiscard(tab)}>
        Discard it
      </Button>
    </div>
  ));
}
