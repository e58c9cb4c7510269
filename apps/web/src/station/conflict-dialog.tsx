import { useState } from 'react';
import { lightFormat } from 'date-fns';
import { differences } from '@gangway/station';
import { sentence, useCreateStationMutation } from '../records/api.js';
import { keptBeside } from '../store/saving.js';
import { selectOpen } from '../store/selectors.js';
import { keptMine, tookTheirs } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { DifferenceTable } from '../ui/difference-table.js';
import { Dialog } from '../ui/dialog.js';
import { newId } from '../browser/new-id.js';

/** Asks which version to go on with when the station was changed elsewhere. Nothing is lost. */
export default function ConflictDialog() {
  const { save, present, jobId } = useAppSelector(selectOpen);
  const dispatch = useAppDispatch();
  const [create, { isLoading }] = useCreateStationMutation();
  const [failed, setFailed] = useState<string | null>(null);
  if (save.kind !== 'conflict') return null;
  const { current } = save;
  const apart = differences(present, current.document);

  const keepBoth = async (): Promise<void> => {
    const made = await create({ jobId, id: newId(), document: keptBeside(present) });
    if (made.error) setFailed(sentence(made.error));
    else dispatch(tookTheirs({ at: Date.now() }));
  };

  return (
    <Dialog
      open
      mustAnswer
      onClose={() => {}}
      title="Changed elsewhere"
      description={`This station was saved from another place at ${lightFormat(current.updatedAt, 'HH:mm:ss')} while you had changes of your own.`}
    >
      <DifferenceTable rows={apart} mine="Yours" theirs="The other" />
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={() => dispatch(keptMine())}>
          Keep mine
        </Button>
        <Button onClick={() => dispatch(tookTheirs({ at: Date.now() }))}>Take the other</Button>
        <Button disabled={isLoading} onClick={() => void keepBoth()}>
          Keep both
        </Button>
      </div>
      <p className="mt-3 text-[13px] text-quiet">
        Keep both saves yours separately, as a station of its own. Taking the other can be undone.
      </p>
    </Dialog>
  );
}
