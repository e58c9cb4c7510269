import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import {
  figuresOf,
  isWhole,
  parseRig,
  readKept,
  rigProblems,
  rigStation,
  rigVerdict,
  updatedFromKit,
  type Problem,
  type Rig,
  type WholeRig,
} from '@gangway/station';
import {
  useArchiveRigMutation,
  useCreateRigMutation,
  useDeleteRigMutation,
} from '../records/kit-api.js';
import { useSoundKit } from '../records/sound-kit.js';
import { sentence } from '../records/api.js';
import { ConflictDialog } from '../records/conflict-dialog.js';
import { documentOf, type SaveState } from '../records/open.js';
import type { StoredDocument } from '../records/shapes.js';
import { keptBeside } from '../records/saving.js';
import { BackTo, Loading, Said } from '../records/states.js';
import { rigActions } from '../store/rig.js';
import { LeftUnreadable } from '../records/left-unreadable.js';
import { rigDrafts, rigSaver, useAppDispatch, useAppSelector } from '../store/store.js';
import { partsOf } from './rig-rows.js';
import { Part } from '../ui/boundary.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { PageTop, TOP_BUTTON } from '../pages/page-top.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Unreadable } from '../records/unreadable.js';
import { useStorageTrouble } from '../browser/use-storage.js';
import { KINDS_FOR, withItem, TITLES, type Asking } from './asking.js';
import { BenchDrawing } from './bench-drawing.js';
import { KitPicker } from './kit-picker.js';
import { ProblemList } from './problem-list.js';
import { NameField, StopField } from './rig-fields.js';
import { RigFiguresList } from './rig-figures.js';
import { RigParts } from './rig-parts.js';
import { UpdateNotice } from './update-notice.js';
import { useRig } from './use-rig.js';

import { newId } from '../browser/new-id.js';

const RevisionsDialog = lazy(() => import('../records/revisions-dialog.js'));
const NewStation = lazy(() => import('../begin/new-station.js'));

export function RigPage() {
  const { rig: id = '' } = useParams();
  const dispatch = useAppDispatch();
  const state = useAppSelector(({ rig }) => rig);
  useEffect(() => {
    void rigSaver.open(id);
    return () => {
      rigSaver.leave();
      dispatch(rigActions.closed());
    };
  }, [id, dispatch]);

  if (state.kind === 'missing') {
    return (
      <Said title="This rig cannot be opened.">
        <p className="mb-4">{state.message}</p>
        <BackTo to="/rigs">Back to the rigs</BackTo>
      </Said>
    );
  }
  if (state.kind === 'unreadable') {
    return <UnreadableRig stored={state.stored} faults={state.faults} />;
  }
  if (state.kind !== 'open' || state.open.id !== id) {
    return <Loading message={state.kind === 'loading' ? state.message : null} />;
  }
  return <OpenRig />;
}

function UnreadableRig({ stored, faults }: { stored: StoredDocument; faults: readonly Problem[] }) {
  const [archive] = useArchiveRigMutation();
  const [remove] = useDeleteRigMutation();
  return (
    <Unreadable
      what="This rig"
      stored={stored}
      faults={faults}
      back="/rigs"
      onArchive={(archived) => archive({ id: stored.id, archived })}
      onDelete={() => remove(stored.id)}
    >
      Back to the rigs
    </Unreadable>
  );
}

const SAVING_WORDS: Record<SaveState<Rig>['kind'] | 'unkept', string> = {
  saved: 'Saved',
  pending: 'Saving …',
  saving: 'Saving …',
  offline: 'Kept here',
  unkept: 'Not saved: leave this page open',
  refused: 'Refused',
  conflict: 'Changed elsewhere',
};

function OpenRig() {
  const { id, rig, baseRevision, save, change, undo, redo, keepMine, takeTheirs } = useRig();
  const [history, setHistory] = useState(false);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  const [beginning, setBeginning] = useState(false);
  const kit = useSoundKit();
  const [create] = useCreateRigMutation();
  const notice = useNotice();
  const navigate = useNavigate();
  const unkept = useStorageTrouble() !== null;
  const saving = SAVING_WORDS[save.kind === 'offline' && unkept ? 'unkept' : save.kind];
  const whole = isWhole(rig) ? rig : null;
  const problems = useMemo(() => (whole ? rigProblems(rigStation(whole)) : []), [whole]);
  const verdict = useMemo(() => (whole ? rigVerdict(rigStation(whole)) : null), [whole]);

  const edit = (next: Rig | string): void => {
    const refused = typeof next === 'string' ? next : change(next);
    if (refused !== null) notice([refused]);
  };
  const move = (from: number, to: number): void => {
    const chain = [...rig.chain];
    const [part] = chain.splice(from, 1);
    chain.splice(to, 0, part!);
    edit({ ...rig, chain });
    setPicked(to);
  };
  const update = useMemo(() => {
    if (!whole || !kit) return null;
    return updatedFromKit<WholeRig>(whole, (id) => kit.find((item) => item.id === id));
  }, [whole, kit]);

  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PageTop>
        <button type="button" className={TOP_BUTTON} disabled={!undo} onClick={() => undo?.()}>
          Undo
        </button>
        <button type="button" className={TOP_BUTTON} disabled={!redo} onClick={() => redo?.()}>
          Redo
        </button>
        <button
          type="button"
          onClick={() => setHistory(true)}
          aria-label={`${saving}; show earlier versions`}
          title={'message' in save ? save.message : undefined}
          className={`${TOP_BUTTON} ${save.kind === 'saved' ? 'text-quiet' : 'text-ink'}`}
        >
          <span role="status">{saving}</span>
        </button>
      </PageTop>
      <LeftUnreadable drafts={rigDrafts} id={id} what="rig" />
      <main className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div className="flex min-w-0 flex-1 flex-col">
          <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-5 py-2.5">
            <NameField name={rig.name} onChange={(name) => change({ ...rig, name })} />
            {verdict && (
              <p className={`figure ${STANDING_TEXT[verdict.standing]}`}>
                {verdict.words.replace(/^./, (first) => first.toUpperCase())}
              </p>
            )}
            <Button look="strong" disabled={!whole} onClick={() => setBeginning(true)}>
              Begin a station
            </Button>
          </div>
          {update && update.updates.length > 0 && (
            <UpdateNotice
              updates={update.updates}
              what="This rig"
              onTake={() => edit({ ...rig, ...update.after })}
            />
          )}
          <Part name="The drawing" of={rig}>
            <BenchDrawing
              rig={rig}
              problems={problems}
              picked={picked}
              onPick={setPicked}
              onMove={move}
            />
          </Part>
          <RigParts
            rig={rig}
            picked={picked}
            onPick={setPicked}
            onAsk={setAsking}
            onMove={move}
            onChange={edit}
          />
        </div>
        <aside className="w-full shrink-0 space-y-6 overflow-y-auto border-rule px-5 py-4 lg:w-96 lg:border-l">
          {whole ? (
            <>
              <RigFiguresList figures={figuresOf(whole)}>
                <StopField rig={whole} onChange={(aperture) => change({ ...rig, aperture })} />
              </RigFiguresList>
              <section>
                <h2 className="mb-2 text-[15px] font-semibold">Warnings</h2>
                <ProblemList rig={whole} problems={problems} onTry={edit} />
              </section>
              <section className="flex flex-wrap gap-x-5 border-t border-rule pt-3">
                <Link
                  to={`/rigs/compare?rigs=${id}`}
                  className="min-h-9 font-medium underline underline-offset-4"
                >
                  Compare
                </Link>
                <Link
                  to={`/rigs/${id}/match`}
                  className="min-h-9 font-medium underline underline-offset-4"
                >
                  Match its picture
                </Link>
              </section>
            </>
          ) : (
            <p className="text-[16px]">
              {rig.lens
                ? 'Choose the back it works on.'
                : rig.back
                  ? 'Choose the lens.'
                  : 'Choose the lens and the back; then put between them what is needed.'}
            </p>
          )}
        </aside>
      </main>
      {asking && (
        <KitPicker
          title={TITLES[asking.place]}
          kinds={KINDS_FOR[asking.place]}
          onClose={() => setAsking(null)}
          onPick={(item) => edit(withItem(rig, asking, item))}
        />
      )}
      <Suspense>
        {beginning && whole && <NewStation rig={whole} onClose={() => setBeginning(false)} />}
      </Suspense>
      {history && (
        <Suspense>
          <RevisionsDialog
            of="rigs"
            id={id}
            present={baseRevision}
            tell={(document) => {
              const { value } = readKept(parseRig, document);
              return value && `${value.name}, ${partsOf(value)}`;
            }}
            onTake={(document, revision) => {
              const { value } = readKept(parseRig, document);
              return value ? change(value, `Take back version ${revision}`, revision) : null;
            }}
            onClose={() => setHistory(false)}
          />
        </Suspense>
      )}
      {save.kind === 'conflict' && (
        <ConflictDialog
          what="rig"
          mine={rig}
          current={{ ...save.current, document: documentOf(save.current) }}
          broken={save.current.kept.kind === 'broken'}
          undone
          onMine={async () => {
            keepMine();
            return null;
          }}
          onTheirs={takeTheirs}
          onBoth={async () => {
            const own = newId();
            const made = await create({ id: own, document: keptBeside(rig) });
            if (made.error) return sentence(made.error);
            takeTheirs();
            await navigate(`/rigs/${own}`);
            return null;
          }}
        />
      )}
    </div>
  );
}
