import { lightFormat } from 'date-fns';
import { useState } from 'react';
import { differences } from '@gangway/station';
import { Button } from '../ui/button.js';
import { DifferenceTable } from '../ui/difference-table.js';
import { Dialog } from '../ui/dialog.js';
import type { StoredDocument } from './shapes.js';

interface Props {
  /** “station” */
  what: string;
  mine: unknown;
  current: Pick<StoredDocument, 'document' | 'updatedAt'>;
  /** Each: null when it was done, else the sentence that says why not. */
  onMine: () => Promise<string | null>;
  onTheirs: () => void;
  onBoth: () => Promise<string | null>;
  /** The other cannot be read here: there is nothing to go on with. */
  broken?: boolean;
  /** Whether taking the other can be undone. */
  undone?: boolean;
}

/** Asks which version to go on with when something was changed elsewhere. Nothing is lost. */
export function ConflictDialog({ what, mine, current, broken, undone, ...choices }: Props) {
  const { onMine, onTheirs, onBoth } = choices;
  const [failed, setFailed] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const done = (work: Promise<string | null>): void => {
    setBusy(true);
    void work.then(setFailed).finally(() => setBusy(false));
  };
  return (
    <Dialog
      open
      mustAnswer
      onClose={() => {}}
      title="Changed elsewhere"
      description={`This ${what} was saved from another place at ${lightFormat(current.updatedAt, 'HH:mm:ss')} while you had changes of your own.`}
    >
      {broken ? (
        <p className="mb-4">
          The other version cannot be read here. Keep both, and load the page again.
        </p>
      ) : (
        <DifferenceTable
          rows={differences(mine, current.document)}
          mine="Yours"
          theirs="The other"
        />
      )}
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="strong" disabled={busy} onClick={() => done(onMine())}>
          Keep mine
        </Button>
        <Button disabled={busy || broken === true} onClick={onTheirs}>
          Take the other
        </Button>
        <Button disabled={busy} onClick={() => done(onBoth())}>
          Keep both
        </Button>
      </div>
      <p className="mt-3 text-[13px] text-quiet">
        Keep both saves yours separately, as {what === 'item' ? 'an' : 'a'} {what} of its own.
        {undone && ' Taking the other can be undone.'}
      </p>
    </Dialog>
  );
}
