import {
  airyWords,
  atLeast,
  markWays,
  DIFFRACTION_WORDS,
  degrees,
  fixed,
  fStop,
  instructionsFor,
  isBellows,
  longerWords,
  readingOf,
  solvedFor,
  receivedAnswer,
  type FocusAnswer,
  type Station,
} from '@gangway/station';
import { useMemo, useState } from 'react';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { usePaced, useRested } from '../ui/use-paced.js';
import { useWorker } from '../workers/use-worker.js';
import { WayList } from '../station/way-list.js';
import { Group, Line } from '../station/results.js';
import { SharpnessNote } from '../station/sharpness-note.js';
import { Why } from '../station/why.js';
import { Beyond } from './beyond.js';
import { MayMove } from './may-move.js';
import type { Solution, SolveAsk } from '../workers/solve-worker.js';

/** The drawing keeps up with the hand; what is read beside it follows at this pace. */
const READ_MS = 90;

/** Other ways are looked for once the hand rests for this long. */
const RESTED_MS = 250;

const NOTHING_YET = { ways: [], wiggle: null };

const solveWorker = (): Worker =>
  new Worker(new URL('../workers/solve-worker.ts', import.meta.url), { type: 'module' });

/** What to set for the marks, what that gives, and what else would do. */
export function Advice() {
  const present = useAppSelector(selectStation);
  const station = usePaced(present, READ_MS);
  const rested = useRested(present, RESTED_MS);
  const ask = useMemo((): SolveAsk => ({ station, rested: rested === station }), [station, rested]);
  const [others, setOthers] = useState<NonNullable<Solution['others']>>(NOTHING_YET);
  const found = useWorker<SolveAsk, Solution>(solveWorker, ask);
  const sharp = (station.marks ?? []).filter(({ must }) => must === 'sharp').length;
  if (sharp === 0) return <NothingToHold station={present} />;
  const fresh = found?.answer.others ?? null;
  if (fresh && fresh !== others) setOthers(fresh);
  if (!found) return <p className="mb-4 text-quiet">Working it out</p>;
  const { ways, wiggle } = others;
  return (
    <>
      <Told {...{ station, present, rested }} solution={found.answer} />
      {ways.length > 0 && (
        <Group title="Or">
          <div {...untilRest(fresh !== null)}>
            <WayList ways={ways} />
          </div>
        </Group>
      )}
      {wiggle && <ByWiggle wiggle={wiggle} widestStop={station.lens.f_min} />}
      <MayMove station={present} />
    </>
  );
}

/** What to set, why it is not all that was wanted, and what it gives. */
function Told({
  station,
  present,
  rested,
  solution: { answer: sent, reason, stop },
}: {
  station: Station;
  present: Station;
  rested: Station;
  solution: Solution;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const answer = useMemo(() => sent && receivedAnswer(sent), [sent]);
  const told = answer && instructionsFor(answer, units);
  return (
    <>
      <section className="mb-4">
        {reason !== null && (
          <p role="status" className={`mb-2 font-medium ${STANDING_TEXT.outside}`}>
            {reason}
          </p>
        )}
        {told && (
          <>
            <h2 className="mb-1 flex items-center justify-between text-[13px] font-semibold text-quiet">
              {reason === null ? 'Set' : 'The best that can be done'}
              <Why reason="solution" of="lean, focus and stop" />
            </h2>
            <ol className="text-[18px] leading-[1.35] font-semibold" aria-live="polite">
              {told.set.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ol>
            <SetButton station={present} answer={answer} />
            <MarksOutside station={rested} resting={rested === present} />
            {told.notes.map((note) => (
              <p key={note} className="mt-2 text-[13px] text-quiet">
                {note}
              </p>
            ))}
          </>
        )}
      </section>
      {told && (
        <>
          {stop && <Figures {...{ station, answer, stop }} />}
          <LookInOrder lines={told.check} />
        </>
      )}
    </>
  );
}

/** While the hand moves, the last ways stay in their place, faint and out of reach. */
const untilRest = (resting: boolean): { inert?: true; className?: string } =>
  resting ? {} : { inert: true, className: 'opacity-50' };

/** Marks that the frame does not hold, with what brings them in. */
function MarksOutside({ station, resting }: { station: Station; resting: boolean }) {
  const units = useAppSelector((state) => state.preferences.units);
  const ways = useMemo(() => markWays(station, units), [station, units]);
  return ways.length === 0 ? null : (
    <div className="mt-3">
      <Group title="To have every mark in the frame">
        <div {...untilRest(resting)}>
          <WayList ways={ways} />
        </div>
      </Group>
    </div>
  );
}

function NothingToHold({ station }: { station: Station }) {
  return (
    <section className="mb-4">
      <h2 className="mb-1 text-[15px] font-semibold">Nothing to hold yet</h2>
      <p>
        Put a mark on each thing that must be sharp, by tape or from the site. Then it is told how
        to lean the lens, where to focus, and which stop holds them.
      </p>
      <MayMove station={station} />
    </section>
  );
}

/** Which marks to look at under the magnifier, first to last. */
function LookInOrder({ lines }: { lines: readonly string[] }) {
  return (
    <details className="mb-4">
      <summary className="min-h-8 cursor-pointer py-1 text-[13px] font-semibold text-quiet pointer-coarse:min-h-11">
        Look at the marks in this order
      </summary>
      <ol className="list-decimal pl-5">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
    </details>
  );
}

/** The leans that a hand without scales comes to, round by round. */
function ByWiggle({
  wiggle,
  widestStop,
}: {
  wiggle: NonNullable<NonNullable<Solution['others']>['wiggle']>;
  widestStop: number;
}) {
  return (
    <details className="mb-4">
      <summary className="min-h-8 cursor-pointer py-1 text-[13px] font-semibold text-quiet pointer-coarse:min-h-11">
        Without scales: focus far, lean near
      </summary>
      <ol className="list-decimal pl-5">
        {wiggle.words.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
      {wiggle.rounds.length > 0 && (
        <table className="mt-2 w-full text-right">
          <thead>
            <tr className="text-[13px] text-quiet">
              <th className="text-left font-normal">Round</th>
              <th className="font-normal">{wiggle.movement} lands at</th>
              <th className="font-normal">both hold from</th>
            </tr>
          </thead>
          <tbody>
            {wiggle.rounds.map(({ leanDeg, fNumber }, i) => (
              <tr key={i} className="border-t border-rule">
                <th className="figure text-left">{i + 1}</th>
                <td className="figure">{degrees(leanDeg)}</td>
                <td className="figure">
                  {fNumber < widestStop ? 'wide open' : `f/${fixed(fNumber, 0)}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </details>
  );
}

/** Leans nearer than this to what is advised are as advised. */
const SAME_DEG = 0.02;

/** Whether lean, focus and stop stand as they are advised. */
function asAdvised(station: Station, answer: FocusAnswer): boolean {
  const [a, b] = [station.movements, answer.station.movements];
  const near = (x = 0, y = 0): boolean => Math.abs(x - y) <= SAME_DEG;
  const v = readingOf(station).focus.image_distance_mm;
  return (
    near(a.tilt_deg, b.tilt_deg) &&
    near(a.swing_deg, b.swing_deg) &&
    near(a.rear_tilt_deg, b.rear_tilt_deg) &&
    near(a.rear_swing_deg, b.rear_swing_deg) &&
    Math.abs(v / answer.setup.imageDistanceMm - 1) < 2e-4 &&
    Math.abs(station.aperture / answer.station.aperture - 1) < 0.03
  );
}

function SetButton({ station, answer }: { station: Station; answer: FocusAnswer }) {
  const dispatch = useAppDispatch();
  const set = asAdvised(station, answer);
  return set ? (
    <p className={`mt-2 ${STANDING_TEXT.within}`}>Already set.</p>
  ) : (
    <Button
      look="strong"
      className="mt-2"
      onClick={() => dispatch(changed({ station: solvedFor(station), label: 'Set for the marks' }))}
    >
      Set the scales so
    </Button>
  );
}

function Figures({
  station,
  answer,
  stop: { line: now, set },
}: {
  station: Station;
  answer: FocusAnswer;
  stop: NonNullable<Solution['stop']>;
}) {
  const needed = answer.engravedNeeded;
  const marks = answer.marks.sharp.length;
  return (
    <Group title={`${marks} ${marks === 1 ? 'mark' : 'marks'}, set so`}>
      <Line
        name="Least stop that holds them"
        figure={
          needed <= station.lens.f_min * (1 + 1e-9)
            ? `${fStop(station.lens.f_min)}, wide open`
            : `f/${fixed(atLeast(needed, needed < 10 ? 1 : 0), needed < 10 ? 1 : 0)}`
        }
        tone={answer.held ? STANDING_TEXT.within : STANDING_TEXT.outside}
        rests={['sharpness', 'circle']}
      />
      <Line
        name={`Softest, at ${fStop(now.fNumber)}`}
        figure={now.worstBlurUm === null ? '∞' : fixed(now.worstBlurUm, 0)}
        unit={`µm${now.worst ? `, ${now.worst}` : ''}`}
      />
      {longerWords(now.worstLonger) && (
        <Line name="Its patch" figure={longerWords(now.worstLonger)} />
      )}
      <Line name={airyWords(now)} figure={fixed(now.airyUm, 0)} unit="µm" />
      <Line name="Diffraction there" figure={DIFFRACTION_WORDS[now.diffraction]} />
      {set && <p className="py-px text-costs">{set}</p>}
      <Line name="Focus spread that is left" figure={fixed(answer.spreadMm, 2)} unit="mm" />
      {isBellows(station) && (
        <Line name="On the bed, lens straight" figure={fixed(answer.solved.bedMm, 2)} unit="mm" />
      )}
      <SharpnessNote />
      <Beyond />
    </Group>
  );
}
