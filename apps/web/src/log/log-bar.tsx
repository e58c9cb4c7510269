import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import * as z from 'zod';
import {
  bracketsOf,
  exposuresOf,
  loadedSaid,
  nextFilm,
  plannedFor,
  setSaid,
  type Logged,
  type Station,
  type Which,
} from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import type { OpenLog } from '../records/log-lines.js';
import { linesOf } from '../records/log-lines.js';
import { logKeeper, useLog } from '../store/log.js';
import { selectRevision } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { ChangeSheet } from './change-sheet.js';
import { Loading } from './film-sheet.js';
import { nextOf, ownLines, shotChanges, shownWhich, whichSaid } from './shot.js';
import { LongExposure } from './timer.js';

const BUTTON = 'rounded-sm border border-ink px-4 font-semibold disabled:opacity-40';
/** While the card is worked through its own button is the large one. */
const SIZES = { strong: 'min-h-16 text-[20px]', plain: 'min-h-12 text-[17px]' } as const;

/** From this on a shutter is held open by the clock, s. */
const LONG_S = 1;
const startShape = z.number().nullable();
/** A hand on the release and an eye on a clock are this exact, s. */
const BY_HAND_S = 0.4;

interface BarProps {
  readonly stationId: string;
  readonly station: Station;
  /** The card is done, and the shutter comes next; until then the bar stays small. */
  readonly strong: boolean;
  /** The frame that the step on the screen is of, from 0: that is what is logged. Null: the only picture. */
  readonly frame: number | null;
  readonly onShot?: () => void;
}

/** At the camera: one tap for what was done as planned, two where something was changed. */
export function LogBar({ jobId, ...rest }: BarProps & { readonly jobId: string }) {
  const log = useLog(jobId);
  return log && <Bar log={log} {...rest} />;
}

/** Whether anything is asked of the bar beyond its buttons. */
function needsOf(station: Station, present: Which) {
  const { time_s: timeS } = plannedFor(station, present);
  return {
    film: station.back.medium === 'film' || station.exposure?.film !== undefined,
    longS: timeS !== undefined && timeS >= LONG_S ? timeS : null,
  };
}

function Bar({
  log,
  stationId,
  station,
  strong,
  frame,
  onShot,
}: BarProps & { readonly log: OpenLog }) {
  const [changing, setChanging] = useState(false);
  const [loading, setLoading] = useState(false);
  const [whole, setWhole] = useKept('log.whole-bracket', z.boolean(), false);
  const { taken, of, next } = nextOf(log, stationId, station);
  const which = shownWhich(log, stationId, station, frame);
  // Another that was chosen goes with the step it was chosen at.
  const [chosen, setChosen] = useState<{ at: number | null; which: Which } | null>(null);
  const present = chosen?.at === frame ? chosen.which : which;
  const revision = useAppSelector(selectRevision);
  const [startMs, setStart] = useKept<number | null>(`log.timer.${stationId}`, startShape, null);
  const own = ownLines(log, stationId);
  const needs = needsOf(station, present);
  const shoot = (set: Partial<Logged> = {}, note = '', atMs = Date.now()): void => {
    const shot = { stationId, station, log, which: present, set, note, atMs, revision };
    const said = whichSaid(station, present);
    const label = said === '' ? 'Shot' : `Shot: ${said}`;
    logKeeper.change({ label, changes: shotChanges(shot, whole) });
    setChosen(null);
    setChanging(false);
    // A spoilt one is taken again, and of a bracket there may be more to come.
    const brackets = bracketsOf(station);
    const last = brackets === 0 || whole || present.bracket === brackets;
    if (last && set.kept !== false) onShot?.();
  };
  const running = strong && needs.longS !== null && startMs !== null;
  return (
    <section aria-label="Log" className="border-t border-rule bg-paper px-3 pt-1 pb-3">
      <Standing
        log={log}
        progress={{ taken: of > 1 ? taken : own.length, of, done: next === null }}
        which={whichSaid(station, present)}
      />
      {strong && of > 1 && (
        <Chooser
          {...{ station, which: present, whole }}
          onChoose={(each) => setChosen({ at: frame, which: each })}
          onWhole={setWhole}
        />
      )}
      {needs.film && <FilmLine log={log} station={station} onOpen={() => setLoading(true)} />}
      {strong && needs.longS !== null && (
        <LongExposure
          key={`${present.frame} ${present.bracket}`}
          startMs={startMs}
          onStart={setStart}
          plannedS={needs.longS}
          onDone={(timeS, atMs) =>
            shoot(Math.abs(timeS - needs.longS!) > BY_HAND_S ? { time_s: timeS } : {}, '', atMs)
          }
        />
      )}
      {!running && (
        <Buttons
          strong={strong}
          onShot={() => shoot()}
          onChange={() => setChanging(true)}
          step={log.past.at(-1)?.label}
        />
      )}
      <LogState log={log} />
      {strong && <LastLine line={own.at(-1)} />}
      {changing && (
        <ChangeSheet
          station={station}
          planned={plannedFor(station, present)}
          onClose={() => setChanging(false)}
          onShot={shoot}
        />
      )}
      {loading && (
        <Loading log={log} stock={station.exposure?.film?.name} onClose={() => setLoading(false)} />
      )}
    </section>
  );
}

/** What is taken, and what comes next. */
function Standing({
  log,
  progress: { taken, of, done },
  which,
}: {
  log: OpenLog;
  progress: { taken: number; of: number; done: boolean };
  which: string;
}) {
  const count = of > 1 ? `${taken} of ${of} taken` : taken > 0 ? `${taken} taken` : '';
  const said = [which, count].filter(Boolean).join(' · ');
  const lead = of > 1 ? (done ? 'All taken.' : 'Now') : taken === 0 ? 'Nothing taken yet' : '';
  return (
    <div className="flex min-h-9 flex-wrap items-baseline gap-x-3">
      <h2 className="sr-only">Log</h2>
      <p className="min-w-0 flex-1" role="status">
        <span className="font-semibold">{lead}</span> {said}
      </p>
      <Link to={`/jobs/${log.jobId}/log`} className="text-quiet underline underline-offset-4">
        {linesOf(log).length} in the log
      </Link>
    </div>
  );
}

function Buttons({
  strong,
  onShot,
  onChange,
  step,
}: {
  strong: boolean;
  onShot: () => void;
  onChange: () => void;
  step: string | undefined;
}) {
  const size = SIZES[strong ? 'strong' : 'plain'];
  return (
    <div className="mt-1 flex gap-2">
      <button
        type="button"
        className={`${BUTTON} ${size} flex-1 ${strong ? 'bg-ink text-on-strong' : ''}`}
        onClick={onShot}
      >
        Shot
      </button>
      <button
        type="button"
        className={`${BUTTON} ${size} flex-1 whitespace-nowrap`}
        onClick={onChange}
      >
        With a change
      </button>
      <button
        type="button"
        aria-label={step === undefined ? 'Nothing to undo' : `Undo: ${step}`}
        disabled={step === undefined}
        className={`${BUTTON} ${size} px-3`}
        onClick={() => logKeeper.undo()}
      >
        <Undo2 size={22} aria-hidden />
      </button>
    </div>
  );
}

/** The film that is exposed next, or that there is none. */
function FilmLine({
  log,
  station,
  onOpen,
}: {
  log: OpenLog;
  station: Station;
  onOpen: () => void;
}) {
  const film = nextFilm(station, log.films, linesOf(log));
  return (
    <p className="flex min-h-9 items-center gap-2">
      <span className={film ? '' : 'text-costs'}>
        {film
          ? `On ${loadedSaid(film)}${film.frame ? `, frame ${film.frame}` : ''}`
          : 'Nothing loaded is left for this film.'}
      </span>
      <button type="button" className="min-h-9 underline underline-offset-4" onClick={onOpen}>
        {film ? 'Loaded film' : 'Load film'}
      </button>
    </p>
  );
}

function LastLine({ line }: { line: Logged | undefined }) {
  const units = useAppSelector((state) => state.preferences.units);
  if (!line) return null;
  return (
    <p className="truncate pt-1 text-[13px] text-quiet">
      Last, {line.at.slice(11, 16)}: {setSaid(line, units)}
    </p>
  );
}

/** Which frame and which of the bracket; what comes next is chosen already. */
function Chooser({
  station,
  which,
  onChoose,
  whole,
  onWhole,
}: {
  station: Station;
  which: Which;
  onChoose: (which: Which) => void;
  whole: boolean;
  onWhole: (whole: boolean) => void;
}) {
  const all = exposuresOf(station);
  return (
    <div className="flex flex-wrap items-center gap-x-4">
      <label className="flex min-h-9 items-center gap-2">
        <span className="text-quiet">Another</span>
        <select
          value={`${which.frame} ${which.bracket}`}
          onChange={(event) => {
            const found = all.find(
              (each) => `${each.frame} ${each.bracket}` === event.target.value,
            );
            if (found) onChoose(found);
          }}
          className="min-h-9 border border-rule-strong bg-paper px-2 pointer-coarse:min-h-11"
        >
          {all.map((each) => (
            <option key={`${each.frame} ${each.bracket}`} value={`${each.frame} ${each.bracket}`}>
              {whichSaid(station, each)}
            </option>
          ))}
        </select>
      </label>
      {which.bracket !== null && (
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={whole}
            onChange={(event) => onWhole(event.target.checked)}
            className="size-5 accent-current"
          />
          Log a whole bracket at once
        </label>
      )}
    </div>
  );
}

/** Whether the server has all of it. */
export function LogState({ log: { save, waiting, clashes, refused } }: { log: OpenLog }) {
  if (save.kind === 'away' || save.kind === 'stopped') {
    return (
      <p role="alert" className="pt-1 text-[14px] text-costs">
        {waiting.length > 0 ? `${waiting.length} to send. ` : ''}
        {save.message}
      </p>
    );
  }
  if (clashes.length > 0 || refused.length > 0) {
    return (
      <p role="alert" className="pt-1 text-[14px] text-outside">
        Some changes were not taken; look at the log.
      </p>
    );
  }
  return (
    <p role="status" className="sr-only">
      {waiting.length > 0 ? 'Sending' : 'All saved'}
    </p>
  );
}
