import { lazy, Suspense, useEffect } from 'react';
import { shallowEqual } from 'react-redux';
import { Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { FIRST_PLACE } from '../places.js';
import { closed } from '../store/station.js';
import { LeftUnreadable } from '../records/left-unreadable.js';
import { saver, stationDrafts, useAppDispatch, useAppSelector } from '../store/store.js';
import { Part } from '../ui/boundary.js';
import { Loading, Said, toJobs } from '../records/states.js';
import { Barrel } from './barrel/barrel.js';
import { FaultNotice } from './fault-notice.js';
import { KeyboardProvider } from './keyboard.js';
import { IdealNotice } from './ideal-notice.js';
import { LeanNotice } from './lean-notice.js';
import { StationPart } from './station-part.js';
import { StationTop } from './station-top.js';
import { StepStrip } from './step-strip.js';
import { SubNav } from './sub-nav.js';

const ConflictDialog = lazy(() => import('./conflict-dialog.js'));
const UnreadableStation = lazy(() => import('./unreadable-station.js'));
const HeldNotice = lazy(() => import('./held-notice.js'));

export function StationLayout() {
  const { station: id = '', job = '' } = useParams();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  // The card is shot from: nothing is set on it, and a phone has room for it alone.
  const onCard = /\/card$/.test(pathname);
  // Only what is looked at here: the station itself changes at every picture of a drag.
  const state = useAppSelector(
    ({ station }) => ({
      kind: station.kind,
      id: station.kind === 'open' ? station.open.id : null,
      jobId: station.kind === 'open' ? station.open.jobId : null,
      conflict: station.kind === 'open' && station.open.save.kind === 'conflict',
      held: station.kind === 'open' && station.open.present.held_off !== undefined,
      message: 'message' in station ? station.message : null,
    }),
    shallowEqual,
  );
  const open = state.kind === 'open' && state.id === id;

  useEffect(() => {
    void saver.open(id);
    return () => {
      saver.leave();
      dispatch(closed());
    };
  }, [id, dispatch]);

  const trueJob = open ? state.jobId! : job;
  useEffect(() => {
    if (trueJob !== job)
      void navigate(`/jobs/${trueJob}/stations/${id}/${FIRST_PLACE}`, { replace: true });
  }, [trueJob, job, id, navigate]);

  if (state.kind === 'missing') {
    return (
      <Said title="This station cannot be opened.">
        <p className="mb-4">{state.message}</p>
        {toJobs}
      </Said>
    );
  }
  if (state.kind === 'unreadable') {
    return (
      <Suspense>
        <UnreadableStation />
      </Suspense>
    );
  }
  if (!open) return <Loading message={state.message} />;
  return (
    <KeyboardProvider>
      <div className="relative flex min-h-full flex-col lg:h-full">
        <div className={onCard ? 'max-sm:hidden' : 'contents'}>
          <StationTop />
        </div>
        <LeftUnreadable drafts={stationDrafts} id={id} what="station" />
        <FaultNotice />
        <LeanNotice />
        <IdealNotice />
        <Suspense>{state.held && <HeldNotice />}</Suspense>
        <div className={onCard ? 'max-sm:hidden' : 'contents'}>
          <StationPart name="The strip of steps">
            <StepStrip />
          </StationPart>
          <SubNav />
        </div>
        <main className="flex min-h-0 shrink-0 flex-col lg:flex-1 lg:shrink lg:flex-row">
          <Part name="This step" of={pathname}>
            <Outlet />
          </Part>
        </main>
        {!onCard && (
          <StationPart name="The barrel">
            <Barrel />
          </StationPart>
        )}
      </div>
      {state.conflict && (
        <Suspense>
          <ConflictDialog />
        </Suspense>
      )}
    </KeyboardProvider>
  );
}
