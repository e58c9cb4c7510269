import { lazy, Suspense, useRef, useState, type ChangeEvent } from 'react';
import { Link, useParams } from 'react-router';
import { useImport } from '../files/use-import.js';
import { isMissing, SEEN_ANEW, useJobQuery, useStationsQuery } from '../records/api.js';
import { Button } from '../ui/button.js';
import { NotFound } from '../records/states.js';
import { JobNotes } from './job-notes.js';
import { StationList } from './station-list.js';
import { useListing, ListPage } from '../pages/list-page.js';

// A list is read more often than a station is begun.
const NewStation = lazy(() => import('../begin/new-station.js'));

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
  const [asking, setAsking] = useState(false);

  if (isMissing(job.error)) return <NotFound />;

  return (
    <ListPage
      long
      trail={<span className="truncate font-semibold">{job.data?.name}</span>}
      title={job.data?.name ?? '\u00a0'}
      things="stations"
      archived={archived}
      onArchive={setArchived}
      actions={
        !archived && (
          <>
            <ToPage to={`/jobs/${jobId}/log`}>Log and files</ToPage>
            <ToPage to={`/jobs/${jobId}/sheets`}>Cards and packing</ToPage>
            <a href={`/api/job-files/${jobId}`} download className={LINK}>
              Save as a file
            </a>
            <ImportButton jobId={jobId} />
            <Button look="strong" onClick={() => setAsking(true)}>
              New station
            </Button>
          </>
        )
      }
      note={job.data && !archived && <JobNotes key={jobId} job={job.data} />}
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
      <Suspense>{asking && <NewStation jobId={jobId} onClose={() => setAsking(false)} />}</Suspense>
    </ListPage>
  );
}

const LINK =
  'print:hidden inline-flex min-h-9 items-center rounded-sm border border-rule-strong bg-paper px-3 font-medium hover:border-ink pointer-coarse:min-h-11';

const ToPage = ({ to, children }: { to: string; children: string }) => (
  <Link to={to} className={LINK}>
    {children}
  </Link>
);

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
