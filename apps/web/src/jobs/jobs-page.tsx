import { formatDistanceToNow } from 'date-fns';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import {
  SEEN_ANEW,
  sentence,
  useChangeJobMutation,
  useCreateJobMutation,
  useDeleteJobMutation,
  useDuplicateJobMutation,
  useJobsQuery,
} from '../records/api.js';
import type { ListedJob } from '../records/shapes.js';
import { Button } from '../ui/button.js';
import { NameDialog } from '../ui/name-dialog.js';
import { ListRow } from '../pages/list-row.js';
import { newId } from '../browser/new-id.js';
import { Beginning } from '../begin/beginning.js';
import { useArchiving, useListing, useTold, ListPage } from '../pages/list-page.js';

const stationsOf = ({ stations }: ListedJob): string =>
  stations === 0 ? 'all in it' : stations === 1 ? 'its station' : `its ${stations} stations`;

/** With more jobs than this, the demo’s two among them, nobody is new here. */
const FEW = 3;

export function JobsPage() {
  const { archived, setArchived, pollingInterval, heed } = useListing();
  const [naming, setNaming] = useState<ListedJob | 'new' | null>(null);
  const { data, error } = useJobsQuery({ archived }, { pollingInterval, ...SEEN_ANEW });
  heed(error);
  const [create] = useCreateJobMutation();
  const [change] = useChangeJobMutation();
  const [duplicate] = useDuplicateJobMutation();
  const navigate = useNavigate();

  const told = useTold();
  const [remove] = useDeleteJobMutation();
  const archiving = useArchiving(change);

  const submitName = async (name: string): Promise<string | null> => {
    if (naming === 'new') {
      const made = await create({ id: newId(), name });
      if (made.error) return sentence(made.error);
      await navigate(`/jobs/${made.data.id}`);
      return null;
    }
    const renamed = await change({ id: naming!.id, name });
    return renamed.error ? sentence(renamed.error) : null;
  };

  return (
    <>
      <ListPage
        title={archived ? 'Archived jobs' : 'Jobs'}
        things="jobs"
        archived={archived}
        onArchive={setArchived}
        actions={
          !archived && (
            <>
              <Link
                to="/jobs/take-in"
                className="inline-flex min-h-9 items-center rounded-sm border border-rule-strong bg-paper px-3 font-medium hover:border-ink pointer-coarse:min-h-11"
              >
                From a file
              </Link>
              <Button look="strong" onClick={() => setNaming('new')}>
                New job
              </Button>
            </>
          )
        }
        error={error}
        loading={!data}
        empty={
          data?.length !== 0
            ? null
            : archived
              ? 'Nothing is archived.'
              : 'No jobs yet. Begin one, or drop a station file on this page.'
        }
      >
        <ul className="border-t border-rule">
          {data?.map((job) => (
            <ListRow
              key={job.id}
              name={job.name}
              of={job}
              itemsOf={() => [
                { label: 'Rename', onSelect: () => setNaming(job) },
                {
                  label: 'Save as a file',
                  onSelect: () => location.assign(`/api/job-files/${job.id}`),
                },
                {
                  label: 'Duplicate',
                  onSelect: () => void told(duplicate({ id: job.id, newId: newId() })),
                },
                {
                  label: archived ? 'Restore' : 'Archive',
                  onSelect: () => void archiving(job.id, job.name, !archived),
                },
                ...(archived
                  ? [
                      {
                        label: 'Delete for good',
                        confirm: {
                          label: `Really delete it, with ${stationsOf(job)}`,
                          onSelect: () => void told(remove(job.id)),
                        },
                      },
                    ]
                  : []),
              ]}
            >
              <Link
                to={`/jobs/${job.id}`}
                className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 px-2 py-3"
              >
                <span className="min-w-0 flex-1 truncate text-[17px] font-medium">{job.name}</span>
                <span className="figure w-28 text-right">
                  {job.stations}{' '}
                  <span className="text-[12px] font-normal text-quiet">
                    {job.stations === 1 ? 'station' : 'stations'}
                  </span>
                </span>
                <span className="w-44 text-right text-quiet">
                  {formatDistanceToNow(job.updatedAt, { addSuffix: true })}
                </span>
              </Link>
            </ListRow>
          ))}
        </ul>
        {data && data.length <= FEW && !archived && <Beginning />}
      </ListPage>
      <NameDialog
        open={naming !== null}
        title={naming === 'new' ? 'New job' : 'Rename job'}
        label="Name of the job"
        action={naming === 'new' ? 'Create' : 'Rename'}
        initial={naming === null || naming === 'new' ? '' : naming.name}
        onClose={() => setNaming(null)}
        onSubmit={submitName}
      />
    </>
  );
}
