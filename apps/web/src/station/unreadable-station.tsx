import { Link, useNavigate } from 'react-router';
import { sentence, useArchiveStationMutation, useDeleteStationMutation } from '../records/api.js';
import { saver, useAppSelector } from '../store/store.js';
import { Unreadable } from '../records/unreadable.js';

/** A stored station that cannot be read: it may be exported, archived and deleted. */
export default function UnreadableStation() {
  const state = useAppSelector(({ station }) => station);
  const [archive] = useArchiveStationMutation();
  const [remove] = useDeleteStationMutation();
  const navigate = useNavigate();
  if (state.kind !== 'unreadable') return null;
  const { stored, faults } = state;
  const toJob = `/jobs/${stored.jobId}`;
  return (
    <Unreadable
      what="This station"
      document={stored.document}
      faults={faults}
      archived={stored.archived}
      onArchive={async (archived) => {
        const made = await archive({ id: stored.id, archived });
        if (made.error) return sentence(made.error);
        await saver.open(stored.id);
        return null;
      }}
      onDelete={async () => {
        const made = await remove(stored.id);
        if (made.error) return sentence(made.error);
        await navigate(toJob);
        return null;
      }}
    >
      <Link to={toJob} className="font-medium text-ink underline underline-offset-4">
        Back to the job
      </Link>
    </Unreadable>
  );
}
