import { newId } from '../browser/new-id.js';
import { sentence, useCreateStationMutation } from '../records/api.js';
import { ConflictDialog } from '../records/conflict-dialog.js';
import { documentOf } from '../records/open.js';
import { keptBeside } from '../records/saving.js';
import { selectOpen } from '../store/selectors.js';
import { keptMine, tookTheirs } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';

/** The question which version of the open station to go on with. */
export default function StationConflict() {
  const { save, present, jobId } = useAppSelector(selectOpen);
  const dispatch = useAppDispatch();
  const [create] = useCreateStationMutation();
  if (save.kind !== 'conflict') return null;
  const theirs = (): void => void dispatch(tookTheirs({ at: Date.now() }));
  return (
    <ConflictDialog
      what="station"
      mine={present}
      current={{ ...save.current, document: documentOf(save.current) }}
      broken={save.current.kept.kind === 'broken'}
      undone
      onMine={async () => {
        dispatch(keptMine());
        return null;
      }}
      onTheirs={theirs}
      onBoth={async () => {
        const made = await create({ jobId, id: newId(), document: keptBeside(present) });
        if (made.error) return sentence(made.error);
        theirs();
        return null;
      }}
    />
  );
}
