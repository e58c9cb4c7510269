import { Fragment, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { PageTop, TOP_BUTTON } from '../pages/page-top.js';
import { isMissing, useJobQuery } from '../records/api.js';
import type { OpenLog } from '../records/log-lines.js';
import { NotFound } from '../records/states.js';
import { logKeeper, useLog } from '../store/log.js';
import { useStationNames, type ReadNames } from './use-stations.js';

/** What the pages of a job’s log work with. */
export interface OpenJob {
  readonly log: OpenLog;
  /** The job’s name; empty until it is here. */
  readonly job: string;
  readonly names: ReadNames;
}

/** The frame of a job’s log and of the pages under it: the way back, undo and redo. */
export function LogFrame({
  under = false,
  tall = false,
  children,
}: {
  /** A page under the log: the way back leads there first. */
  under?: boolean;
  /** As high as the window: what is inside scrolls by itself. */
  tall?: boolean;
  children: (open: OpenJob) => ReactNode;
}) {
  const { job: jobId = '' } = useParams();
  const { data: job, error } = useJobQuery(jobId);
  const log = useLog(jobId);
  const names = useStationNames(jobId);
  if (isMissing(error)) return <NotFound />;
  const last = log?.past.at(-1);
  return (
    <div className={`flex flex-col ${tall ? 'h-dvh' : 'min-h-dvh'}`}>
      <PageTop
        trail={
          <>
            <Link
              to={`/jobs/${jobId}`}
              className={`truncate font-semibold hover:underline ${under ? 'max-sm:hidden' : ''}`}
            >
              {job?.name}
            </Link>
            {under && (
              <Link to={`/jobs/${jobId}/log`} className="hover:underline">
                Log
              </Link>
            )}
          </>
        }
      >
        <button
          type="button"
          className={TOP_BUTTON}
          disabled={!last}
          onClick={() => logKeeper.undo()}
          aria-label={last ? `Undo: ${last.label}` : 'Undo'}
        >
          Undo
        </button>
        <button
          type="button"
          className={TOP_BUTTON}
          disabled={!log?.future.length}
          onClick={() => logKeeper.redo()}
        >
          Redo
        </button>
      </PageTop>
      {/* What is chosen and found in one job is nothing in another. */}
      {log && <Fragment key={jobId}>{children({ log, job: job?.name ?? '', names })}</Fragment>}
    </div>
  );
}
