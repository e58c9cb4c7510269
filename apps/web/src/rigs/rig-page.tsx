import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import {
  backFrom,
  chainPartFrom,
  evaluate,
  figuresOf,
  filterFrom,
  goesInChain,
  isWhole,
  lensFrom,
  parseFNumber,
  partTitle,
  rigProblems,
  rigStation,
  rigVerdict,
  stopOf,
  updatedFromKit,
  type Kind,
  type Rig,
  type WholeRig,
} from '@gangway/station';
import {
  useCreateRigMutation,
  useKitQuery,
  useRigQuery,
  type StoredItem,
  type StoredRig,
} from '../kit/api.js';
import { sentence } from '../store/api.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { PageTop, TOP_BUTTON } from '../ui/page-top.js';
import { Sections } from '../ui/sections.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Loading, NotFound } from '../ui/states.js';
import { BeginStation } from './begin-station.js';
import { BenchDrawing } from './bench-drawing.js';
import { KitPicker } from './kit-picker.js';
import { ProblemList } from './problem-list.js';
import { RigConflict } from './rig-conflict.js';
import { RigFiguresList } from './rig-figures.js';
import { UpdateNotice } from './update-notice.js';
import { useRig, type RigSaving } from './use-rig.js';

export function RigPage() {
  const { rig: id = '' } = useParams();
  const { currentData: data, error } = useRigQuery(id);
  if (error) {
    return 'status' in error && [404, 422].includes(Number(error.status)) ? (
      <NotFound />
    ) : (
      <Loading message={sentence(error)} />
    );
  }
  return data ? <OpenRig key={id} stored={data} /> : <Loading message={null} />;
}

/** What the picker is open for: a place of the rig. */
type Asking = { place: 'lens' | 'back' | 'filter' } | { place: 'chain'; at: number; swap: boolean };

const KINDS_FOR: Record<Asking['place'], readonly Kind[]> = {
  lens: ['lens'],
  back: ['back'],
  filter: ['filter'],
  chain: ['adapter', 'multiplier', 'board', 'camera'],
};

const TITLES: Record<Asking['place'], string> = {
  lens: 'Choose the lens',
  back: 'Choose the back',
  filter: 'Choose a filter',
  chain: 'Choose what goes between',
};

/** A rig with an item of the kit put in its place. @returns a sentence where it does not go */
function placed(rig: Rig, asking: Asking, stored: StoredItem): Rig | string {
  const { document } = stored;
  if (asking.place === 'lens' && document.kind === 'lens') {
    return { ...rig, lens: lensFrom({ ...stored, document }) };
  }
  if (asking.place === 'back' && document.kind === 'back') {
    return { ...rig, back: backFrom({ ...stored, document }, rig.back?.orientation) };
  }
  if (asking.place === 'filter' && document.kind === 'filter' && rig.lens) {
    const made = filterFrom({ ...stored, document }, rig.lens);
    return made.ok ? { ...rig, lens: { ...rig.lens, filter: made.value } } : made.message;
  }
  if (asking.place === 'chain' && goesInChain(document)) {
    const chain = [...rig.chain];
    chain.splice(asking.at, asking.swap ? 1 : 0, chainPartFrom({ ...stored, document }));
    return { ...rig, chain };
  }
  return rig;
}

const SAVING_WORDS: Record<RigSaving['kind'], string> = {
  saved: 'Saved',
  saving: 'Saving …',
  away: 'Kept here',
  refused: 'Refused',
  conflict: 'Changed elsewhere',
};

function OpenRig({ stored }: { stored: StoredRig }) {
  const { rig, saving, change, undo, redo, keepMine, takeTheirs } = useRig(stored);
  const [asking, setAsking] = useState<Asking | null>(null);
  const [picked, setPicked] = useState<number | null>(null);
  const [beginning, setBeginning] = useState(false);
  const { data: kit } = useKitQuery({ archived: false });
  const [create] = useCreateRigMutation();
  const notice = useNotice();
  const navigate = useNavigate();
  const whole = isWhole(rig) ? rig : null;
  const problems = useMemo(() => (whole ? rigProblems(rigStation(whole)) : []), [whole]);
  const verdict = useMemo(() => (whole ? rigVerdict(evaluate(rigStation(whole))) : null), [whole]);

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
      <PageTop trail={<Sections />}>
        <button type="button" className={TOP_BUTTON} disabled={!undo} onClick={() => undo?.()}>
          Undo
        </button>
        <button type="button" className={TOP_BUTTON} disabled={!redo} onClick={() => redo?.()}>
          Redo
        </button>
        <span
          role="status"
          className={saving.kind === 'saved' ? 'text-quiet' : 'text-ink'}
          title={'message' in saving ? saving.message : undefined}
        >
          {SAVING_WORDS[saving.kind]}
        </span>
      </PageTop>
      <main className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div className="flex min-w-0 flex-1 flex-col">
          <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-5 py-2.5">
            <NameField
              key={rig.name}
              name={rig.name}
              onChange={(name) => change({ ...rig, name })}
            />
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
          <BenchDrawing
            rig={rig}
            problems={problems}
            picked={picked}
            onPick={setPicked}
            onMove={move}
          />
          <Parts
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
                <StopField
                  key={stopOf(whole)}
                  rig={whole}
                  onChange={(aperture) => change({ ...rig, aperture })}
                />
              </RigFiguresList>
              <section>
                <h2 className="mb-2 text-[15px] font-semibold">What to mind</h2>
                <ProblemList rig={whole} problems={problems} onTry={edit} />
              </section>
              <section className="flex flex-wrap gap-x-5 border-t border-rule pt-3">
                <Link
                  to={`/rigs/compare?rigs=${stored.id}`}
                  className="min-h-9 font-medium underline underline-offset-4"
                >
                  Compare
                </Link>
                <Link
                  to={`/rigs/${stored.id}/match`}
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
          onPick={(item) => edit(placed(rig, asking, item))}
        />
      )}
      {beginning && whole && <BeginStation rig={whole} onClose={() => setBeginning(false)} />}
      {saving.kind === 'conflict' && (
        <RigConflict
          mine={rig}
          theirs={saving.current.document}
          onMine={keepMine}
          onTheirs={takeTheirs}
          onBoth={async () => {
            const id = crypto.randomUUID();
            const made = await create({ id, document: { ...rig, name: `${rig.name} (mine)` } });
            if (made.error) return sentence(made.error);
            takeTheirs();
            await navigate(`/rigs/${id}`);
            return null;
          }}
        />
      )}
    </div>
  );
}

function NameField({
  name,
  onChange,
}: {
  name: string;
  onChange: (name: string) => string | null;
}) {
  const [text, setText] = useState(name);
  const [message, setMessage] = useState<string | null>(null);
  const commit = (): void => {
    if (text.trim() === name) return;
    setMessage(text.trim() === '' ? 'Give the rig a name.' : onChange(text.trim()));
  };
  return (
    <div className="min-w-48 flex-1">
      <input
        aria-label="Name of the rig"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
        aria-invalid={message !== null}
        className="min-h-9 w-full border-b border-transparent bg-transparent text-xl font-semibold hover:border-rule focus:border-rule-strong"
      />
      {message !== null && (
        <p role="alert" className="text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}

function StopField({
  rig,
  onChange,
}: {
  rig: WholeRig;
  onChange: (aperture: number) => string | null;
}) {
  const now = stopOf(rig);
  const [text, setText] = useState(`f/${now}`);
  const [message, setMessage] = useState<string | null>(null);
  const commit = (): void => {
    const read = parseFNumber(text);
    if (!read.ok) setMessage(read.message);
    else if (read.value < rig.lens.f_min || read.value > rig.lens.f_max) {
      setMessage(`This lens opens from f/${rig.lens.f_min} to f/${rig.lens.f_max}.`);
    } else setMessage(read.value === now ? null : onChange(read.value));
  };
  return (
    <div className="flex flex-wrap items-baseline justify-between gap-x-4">
      <label htmlFor="rig-stop" className="text-quiet">
        Looked at, at
      </label>
      <input
        id="rig-stop"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === 'Enter' && commit()}
        aria-invalid={message !== null}
        className="min-h-8 w-20 border-b border-rule bg-transparent text-right figure hover:border-rule-strong pointer-coarse:min-h-11"
      />
      {message !== null && (
        <p role="alert" className="basis-full text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}

/** The chain as a row of parts: what the bench shows, to be dropped in, swapped, moved, taken out. */
function Parts({
  rig,
  picked,
  onPick,
  onAsk,
  onMove,
  onChange,
}: {
  rig: Rig;
  picked: number | null;
  onPick: (index: number | null) => void;
  onAsk: (asking: Asking) => void;
  onMove: (from: number, to: number) => void;
  onChange: (rig: Rig) => void;
}) {
  const { lens, chain, back } = rig;
  const part = picked !== null && picked >= 0 && picked < chain.length ? chain[picked] : null;
  const insert = (at: number) => (
    <button
      type="button"
      aria-label={`Put a part in at place ${at + 1}`}
      onClick={() => onAsk({ place: 'chain', at, swap: false })}
      className="flex min-h-10 min-w-8 items-center justify-center text-[18px] text-quiet hover:text-ink pointer-coarse:min-h-11 pointer-coarse:min-w-11"
    >
      +
    </button>
  );
  const chip = (index: number, label: string) => (
    <button
      type="button"
      aria-pressed={picked === index}
      onClick={() => onPick(picked === index ? null : index)}
      className={`min-h-10 max-w-52 truncate border px-3 pointer-coarse:min-h-11 ${picked === index ? 'border-ink bg-ink text-on-strong' : 'border-rule-strong bg-paper hover:border-ink'}`}
    >
      {label}
    </button>
  );
  return (
    <section
      aria-label="Parts, from the lens to the back"
      className="border-t border-rule px-5 py-3"
    >
      <div className="flex flex-wrap items-center gap-y-2">
        {lens ? (
          chip(-1, lens.name?.trim() || 'Lens')
        ) : (
          <Button look="strong" onClick={() => onAsk({ place: 'lens' })}>
            Choose the lens
          </Button>
        )}
        {insert(0)}
        {chain.map((each, index) => (
          <span key={index} className="contents">
            {chip(index, partTitle(each))}
            {insert(index + 1)}
          </span>
        ))}
        {back ? (
          chip(chain.length, back.name?.trim() || 'Back')
        ) : (
          <Button look="strong" onClick={() => onAsk({ place: 'back' })}>
            Choose the back
          </Button>
        )}
      </div>
      <div className="mt-2 flex min-h-9 flex-wrap items-center gap-2">
        {picked === null && (
          <p className="text-[13px] text-quiet">
            Press a part to swap, move or take it out; + puts one in between.
          </p>
        )}
        {picked === -1 && lens && (
          <>
            <Button onClick={() => onAsk({ place: 'lens' })}>Swap the lens</Button>
            <Button onClick={() => onAsk({ place: 'filter' })}>Put a filter on</Button>
            {lens.filter && (
              <Button
                onClick={() => {
                  const { filter: _, ...rest } = lens;
                  onChange({ ...rig, lens: rest });
                }}
              >
                Take the filter off
              </Button>
            )}
          </>
        )}
        {picked === chain.length && back && (
          <>
            <Button onClick={() => onAsk({ place: 'back' })}>Swap the back</Button>
            <Button
              onClick={() =>
                onChange({
                  ...rig,
                  back: {
                    ...back,
                    orientation: back.orientation === 'landscape' ? 'portrait' : 'landscape',
                  },
                })
              }
            >
              {back.orientation === 'landscape' ? 'Turn upright' : 'Turn level'}
            </Button>
          </>
        )}
        {part && picked !== null && (
          <>
            <Button onClick={() => onAsk({ place: 'chain', at: picked, swap: true })}>Swap</Button>
            <Button disabled={picked === 0} onClick={() => onMove(picked, picked - 1)}>
              Towards the lens
            </Button>
            <Button
              disabled={picked === chain.length - 1}
              onClick={() => onMove(picked, picked + 1)}
            >
              Towards the back
            </Button>
            <Button
              onClick={() => {
                onChange({ ...rig, chain: chain.filter((_, index) => index !== picked) });
                onPick(null);
              }}
            >
              Take out
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
