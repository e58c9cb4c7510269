import { useState } from 'react';
import { loadedSaid, loadedStates, type Loaded as LoadedFilm } from '@gangway/station';
import { linesOf, type OpenLog } from '../records/log-lines.js';
import { useSoundKit } from '../records/sound-kit.js';
import { logKeeper } from '../store/log.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** What is loaded in holders and on rolls, and how much of it is exposed. */
export function Loading({
  log,
  stock,
  onClose,
}: {
  log: OpenLog;
  stock?: string | undefined;
  onClose: () => void;
}) {
  const states = loadedStates(log.films, linesOf(log));
  const set = (films: readonly LoadedFilm[], label: string): void =>
    logKeeper.change({
      label,
      changes: [{ id: log.jobId, films: { was: log.films, to: films } }],
    });
  return (
    <Dialog open title="Loaded film" onClose={onClose}>
      {states.length === 0 ? (
        <p className="pb-2 text-quiet">Nothing is loaded yet.</p>
      ) : (
        <ul className="border-t border-rule">
          {states.map(({ loaded, exposed, frames, full }, i) => (
            <li key={i} className="flex min-h-11 items-center gap-3 border-b border-rule">
              <span className="min-w-0 flex-1">
                <span className="font-medium">{capital(loadedSaid(loaded))}</span>{' '}
                <span className="text-quiet">{loaded.stock}</span>
              </span>
              <span className={`figure ${full ? 'text-quiet' : 'text-within'}`}>
                {loaded.roll === undefined
                  ? full
                    ? 'exposed'
                    : 'free'
                  : `${exposed}${frames === null ? '' : ` of ${frames}`}`}
              </span>
              <button
                type="button"
                className="min-h-11 px-2 text-quiet underline underline-offset-4"
                aria-label={`Take out ${loadedSaid(loaded)}`}
                onClick={() =>
                  set(
                    log.films.filter((_, at) => at !== i),
                    `Take out ${loadedSaid(loaded)}`,
                  )
                }
              >
                Take out
              </button>
            </li>
          ))}
        </ul>
      )}
      <LoadForm
        log={log}
        stock={stock}
        onLoad={(more) => set([...log.films, ...more], 'Load film')}
      />
    </Dialog>
  );
}

const capital = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}`;

const FIELD = 'block min-h-11 w-full border border-rule-strong bg-transparent px-2 text-[16px]';

function LoadForm({
  log,
  stock,
  onLoad,
}: {
  log: OpenLog;
  stock: string | undefined;
  onLoad: (films: LoadedFilm[]) => void;
}) {
  const kit = useSoundKit();
  const names = [...new Set([stock, ...(kit ?? []).flatMap(({ document }) => (document.kind === 'film' ? [document.name] : []))].filter((each) => each !== undefined))]; // prettier-ignore
  const [film, setFilm] = useState(stock ?? '');
  const [kind, setKind] = useState<'holder' | 'roll'>('holder');
  const [name, setName] = useState('');
  const [frames, setFrames] = useState('12');
  const [fault, setFault] = useState<string | null>(null);
  const load = (): void => {
    const [own, count] = [name.trim(), Number(frames)];
    const there = log.films.some((each) => (kind === 'holder' ? each.holder : each.roll) === own);
    const wrong =
      film.trim() === '' ? 'Say which film it is.'
      : own === '' ? `Give the ${kind} its number or name.`
      : own.length > 40 ? 'Write at most 40 characters.'
      : there ? `There is a ${kind} ${own} already; take it out first.`
      : kind === 'roll' && !(Number.isInteger(count) && count >= 1 && count <= 400) ? 'A roll has 1 to 400 frames.'
      : null; // prettier-ignore
    setFault(wrong);
    if (wrong !== null) return;
    const common = { stock: film.trim() };
    onLoad(
      kind === 'holder'
        ? [
            { ...common, holder: own, side: 'A' },
            { ...common, holder: own, side: 'B' },
          ]
        : [{ ...common, roll: own, frames: count }],
    );
    setName('');
  };
  return (
    <form
      className="mt-4 grid grid-cols-2 gap-x-4 gap-y-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        load();
      }}
    >
      <label className="col-span-2 block">
        <span className="text-[13px] text-quiet">Film</span>
        <input
          list="film-stocks"
          value={film}
          onChange={(event) => setFilm(event.target.value)}
          maxLength={200}
          className={FIELD}
        />
        <datalist id="film-stocks">
          {names.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </datalist>
      </label>
      <label className="block">
        <span className="text-[13px] text-quiet">In a</span>
        <select
          value={kind}
          onChange={(event) => setKind(event.target.value as 'holder' | 'roll')}
          className={`${FIELD} bg-paper`}
        >
          <option value="holder">holder, A and B</option>
          <option value="roll">roll</option>
        </select>
      </label>
      <label className="block">
        <span className="text-[13px] text-quiet">Number or name</span>
        <input
          value={name}
          onChange={(event) => setName(event.target.value)}
          autoComplete="off"
          className={FIELD}
        />
      </label>
      {kind === 'roll' && (
        <label className="block">
          <span className="text-[13px] text-quiet">Frames</span>
          <input
            value={frames}
            inputMode="numeric"
            onChange={(event) => setFrames(event.target.value)}
            className={FIELD}
          />
        </label>
      )}
      {fault && (
        <p role="alert" className="col-span-2 text-outside">
          {fault}
        </p>
      )}
      <div className="col-span-2 flex justify-end">
        <Button look="strong" type="submit">
          Load
        </Button>
      </div>
    </form>
  );
}
