import { useArchiveStationMutation, useDeleteStationMutation } from '../records/api.js';
import { Unreadable } from '../records/unreadable.js';
import { saver, useAppSelector } from '../store/store.js';

/** A stored station that cannot be read: it may be exported, archived and deleted. */
export default function UnreadableStation() {
  const state = useAppSelector(({ station }) => station);
  const [archive] = useArchiveStationMutation();
  const [remove] = useDeleteStationMutation();
  if (state.kind !== 'unreadable') return null;
  const { stored, faults } = state;
  return (
    <Unreadable
      what="This station"
      stored={stored}
      faults={faults}
      back={`/jobs/${stored.jobId ?? ''}`}
      onArchive={(archived) => archive({ id: stored.id, archived })}
      look={() => saver.open(stored.id)}
      onDelete={() => remove(stored.id)}
    >
      Back to the job
    </Unreadable>
  );
}
