import { useRef, type ChangeEvent } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { newStation, withJobCriterion } from '@gangway/station';
import { useImport } from '../files/use-import.js';
import {
  isMissing,
  SEEN_ANEW,
  sentence,
  useCreateStationMutation,
  useFreeNameQuery,
  useJobQuery,
  useStationsQuery,
} from '../records/api.js';
import { Button } from '../ui/button.js';
import { newId } from '../browser/new-id.js';
import { useNotice } from '../ui/notices.js';
import { NotFound } from '../records/states.js';
import { StationList } from './station-list.js';
import { useListing, ListPage } from '../pages/list-page.js';

interface Asked<T> {
  readonly isFetching: boolean;
  readonly currentData?: T | undefined;
  readonly refetch: () => PromiseLike<{ data?: T | undefined; error?: unknown }>;
}

/** What was asked for as it is now, not as it was before it was last asked for. */
const arrived = async <T,>({ isFetching, currentData, refetch }: Asked<T>) =>
  isFetching || currentData === undefined ? refetch() : { data: currentData, error: undefined };

export function JobPage() {
  const { job: jobId = '' } = useParams();
  const { archived, setArchived, pollingInterval, heed } = useListing();
  const job = useJobQuery(jobId, { pollingInterval, ...SEEN_ANEW });
  const { currentData: first, ...stations } = useStationsQuery(
    { jobId, archived, page: 0 },
    { pollingInterval, ...SEEN_ANEW },
  );
  const error = job.error ?? stations.error;
  heed(error);
  const [create] = useCreateStationMutation();
  const named = useFreeNameQuery({ jobId, stem: 'Station' }, SEEN_ANEW);
  const notice = useNotice();
  const navigate = useNavigate();

  if (isMissing(job.error)) return <NotFound />;

  const begin = async (): Promise<void> => {
    // Both were asked for ahead; what has not come yet, or did not come, is waited for.
    const [free, kept] = await Promise.all([arrived(named), arrived(job)]);
    if (free.data === undefined || kept.data === undefined) {
      notice([sentence(free.error ?? kept.error)]);
      return;
    }
    const id = newId();
    const made = await create({
      jobId,
      id,
      document: withJobCriterion(newStation(free.data.name), kept.data.criterion),
    });
    if (made.error) notice([sentence(made.error)]);
    else await navigate(`/jobs/${jobId}/stations/${id}/view/rig`);
  };

  return (
    <ListPage
      long
      trail={
        <>
          <Link to="/jobs" className="text-quiet hover:text-ink">
            Jobs
          </Link>
          <span className="truncate font-semibold">{job.data?.name}</span>
        </>
      }
      title={job.data?.name ?? '\u00a0'}
      things="stations"
      archived={archived}
      onArchive={setArchived}
      actions={
        !archived && (
          <>
            <ImportButton jobId={jobId} />
            <Button look="strong" onClick={() => void begin()}>
              New station
            </Button>
          </>
        )
      }
      error={error}
      loading={!first}
      empty={
        first?.total !== 0
          ? null
          : archived
            ? 'Nothing is archived in this job.'
            : 'No stations yet. Begin one, or drop a station file here.'
      }
    >
      {first && first.total > 0 && (
        <StationList key={`${jobId} ${archived}`} {...{ jobId, archived, total: first.total }} />
      )}
    </ListPage>
  );
}

function ImportButton({ jobId }: { jobId: string }) {
  const input = useRef<HTMLInputElement>(null);
  const importFiles = useImport();
  const onChange = (event: ChangeEvent<HTMLInputElement>): void => {
    const files = [...(event.target.files ?? [])];
    event.target.value = '';
    void importFiles(files, jobId);
  };
  return (
    <>
      <Button onClick={() => input.current?.click()}>Import</Button>
      <input
        ref={input}
        type="file"
        multiple
        accept=".json,application/json"
        aria-label="Station files to import"
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
      />
    </>
  );
}
