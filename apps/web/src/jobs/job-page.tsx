import { useRef, useState, type ChangeEvent } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import {
  coverVerdict,
  readings,
  fixed,
  fStop,
  newStation,
  withJobCriterion,
  type Station,
} from '@gangway/station';
import { useImport } from '../files/use-import.js';
import {
  sentence,
  useArchiveStationMutation,
  useCreateStationMutation,
  useDuplicateStationMutation,
  useJobQuery,
  useStationsQuery,
  type StoredStation,
} from '../store/api.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { ListTop } from '../ui/list-top.js';
import { PageTop } from '../ui/page-top.js';
import { RowMenu } from '../ui/row-menu.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { NotFound } from '../ui/states.js';
import { AGAIN_MS, ListState } from './list-state.js';

export function JobPage() {
  const { job: jobId = '' } = useParams();
  const [archived, setArchived] = useState(false);
  const [poll, setPoll] = useState(0);
  const job = useJobQuery(jobId, { pollingInterval: poll });
  const stations = useStationsQuery({ jobId, archived }, { pollingInterval: poll });
  const error = job.error ?? stations.error;
  const again = error && 'status' in error && error.status !== 404 ? AGAIN_MS : 0;
  if (poll !== again) setPoll(again);
  const [create] = useCreateStationMutation();
  const [duplicate] = useDuplicateStationMutation();
  const [archive] = useArchiveStationMutation();
  const notice = useNotice();
  const navigate = useNavigate();

  if (job.error && 'status' in job.error && [404, 422].includes(Number(job.error.status))) {
    return <NotFound />;
  }

  const told = async (work: Promise<{ error?: unknown }>): Promise<void> => {
    const { error: failed } = await work;
    if (failed) notice([sentence(failed)]);
  };

  const begin = async (): Promise<void> => {
    const taken = new Set(stations.data?.map((each) => each.document.name));
    let n = 1;
    while (taken.has(`Station ${n}`)) n++;
    const id = crypto.randomUUID();
    const made = await create({
      jobId,
      id,
      document: withJobCriterion(newStation(`Station ${n}`), job.data?.criterion),
    });
    if (made.error) notice([sentence(made.error)]);
    else await navigate(`/jobs/${jobId}/stations/${id}/view/rig`);
  };

  return (
    <>
      <PageTop
        trail={
          <>
            <Link to="/jobs" className="text-quiet hover:text-ink">
              Jobs
            </Link>
            <span className="truncate font-semibold">{job.data?.name}</span>
          </>
        }
      />
      <main className="mx-auto max-w-5xl px-5 py-8">
        <ListTop
          title={job.data?.name ?? '\u00a0'}
          things="stations"
          archived={archived}
          onArchive={setArchived}
        >
          {!archived && (
            <>
              <ImportButton jobId={jobId} />
              <Button look="strong" onClick={() => void begin()}>
                New station
              </Button>
            </>
          )}
        </ListTop>
        <ListState
          error={error}
          loading={!stations.data}
          empty={stations.data?.length === 0}
          whenEmpty={
            archived
              ? 'Nothing is archived in this job.'
              : 'No stations yet. Begin one, or drop a station file here.'
          }
        />
        <ul className="border-t border-rule">
          {stations.data?.map((stored) => (
            <li key={stored.id} className="flex items-center border-b border-rule hover:bg-paper">
              <StationLine stored={stored} />
              <RowMenu
                label={`More for ${stored.document.name}`}
                itemsOf={() => [
                  {
                    label: 'Duplicate',
                    onSelect: () =>
                      void told(duplicate({ id: stored.id, newId: crypto.randomUUID() })),
                  },
                  {
                    label: archived ? 'Restore' : 'Archive',
                    onSelect: () => void told(archive({ id: stored.id, archived: !archived })),
                  },
                ]}
              />
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}

const rig = ({ lens, back, aperture }: Station): string =>
  `${lens.name ?? `${fixed(lens.focal_length_mm, 0)} mm`} at ${fStop(aperture)}, ${back.width_mm} × ${back.height_mm} mm${back.orientation === 'portrait' ? ' upright' : ''}`;

function StationLine({ stored }: { stored: StoredStation }) {
  const { document } = stored;
  const verdict = coverVerdict(document, readings(document));
  return (
    <Link
      to={`/jobs/${stored.jobId}/stations/${stored.id}/cover`}
      className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 px-2 py-3"
    >
      <span className="min-w-0 flex-1 basis-64">
        <span className="block truncate text-[17px] font-medium">{document.name}</span>
        <span className="block truncate text-quiet">{rig(document)}</span>
      </span>
      <span className="w-64 sm:text-right">
        <span className={`figure text-[20px] ${STANDING_TEXT[verdict.standing]}`}>
          {verdict.figure}
        </span>{' '}
        <span className="text-[12px] text-quiet">{verdict.words}</span>
      </span>
    </Link>
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
