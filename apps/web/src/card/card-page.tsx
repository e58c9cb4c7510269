import { Check } from 'lucide-react';
import { lazy, Suspense, useMemo } from 'react';
import { Link, useParams } from 'react-router';
import * as z from 'zod';
import { circlePicture, finderPicture, planPicture } from '@gangway/paper';
import {
  CARE_WORDS,
  cardVerdict,
  restsOnAssumed,
  restsOnMeasured,
  type Card,
  type CardStep,
  type Station,
} from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import { ShapesView } from '../drawing/shapes-view.js';
import { StationPart } from '../station/station-part.js';
import { selectCard } from '../store/card.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedRing } from '../ui/assumed-ring.js';
import { MeasuredRing } from '../ui/measured-ring.js';
import { StandFields } from './stand-fields.js';
import { useAwake } from './use-awake.js';

const LogBar = lazy(async () => ({ default: (await import('../log/log-bar.js')).LogBar }));

const doneShape = z.array(z.string());

/** What is ticked off of a step goes by what it says: a changed plan is to be done again. */
const keyOf = ({ id, says, figure = '' }: CardStep): string => `${id} ${says} ${figure}`;

/** The step that a shot is of: the one on the screen, else the first frame that is left, else the last. */
function shotStep(
  steps: readonly CardStep[],
  ticked: ReadonlySet<string>,
  present: CardStep | null,
): CardStep | null {
  if (present?.frame !== undefined) return present;
  const frames = steps.filter(({ frame }) => frame !== undefined);
  return frames.find((step) => !ticked.has(keyOf(step))) ?? frames.at(-1) ?? null;
}

/** The card on screen: one thing after the other, large, for one hand. */
export function CardPage() {
  const { job: jobId = '', station: id = '' } = useParams();
  const planned = useAppSelector(selectStation);
  const card = useAppSelector(selectCard);
  const [done, setDone] = useKept<string[]>(`card.${id}`, doneShape, []);
  const [awake, keepAwake] = useKept('awake', z.boolean(), true);
  const lock = useAwake(awake);
  const { steps } = card;
  const ticked = useMemo(() => new Set(done), [done]);
  const at = steps.findIndex((step) => !ticked.has(keyOf(step)));
  const tick = (step: CardStep, on: boolean): void =>
    setDone(on ? [...done, keyOf(step)] : done.filter((each) => each !== keyOf(step)));
  const present = at < 0 ? null : steps[at]!;
  const shot = shotStep(steps, ticked, present);
  const before = steps[(at < 0 ? steps.length : at) - 1];
  return (
    <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
      <section
        aria-label="Card"
        className="flex min-h-0 flex-1 flex-col bg-page max-lg:h-dvh max-lg:flex-none lg:overflow-hidden"
      >
        <header className="flex items-center justify-between gap-3 border-b border-rule px-4 py-2">
          <Link
            to="../cover"
            className="flex min-h-11 items-center font-medium underline decoration-1 underline-offset-4 sm:hidden"
          >
            Plan
          </Link>
          <h1 className="min-w-0 truncate font-semibold">{card.name}</h1>
          <span className="figure shrink-0 text-quiet" role="status">
            {at < 0 ? 'all done' : `${at + 1} of ${steps.length}`}
          </span>
        </header>
        <Unsettled card={card} />
        {/* Reached by the keys, too: on a small screen it holds more than fits. */}
        <div
          role="group"
          aria-label="Steps of the card"
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
          tabIndex={0}
          className="min-h-0 flex-1 overflow-y-auto"
        >
          <Done steps={at < 0 ? steps : steps.slice(0, at)} onUndo={(step) => tick(step, false)} />
          {present ? (
            <StationPart name="The card">
              <Present card={card} step={present} />
            </StationPart>
          ) : (
            <p className="px-4 py-8 text-[32px] leading-10 font-semibold">All done.</p>
          )}
          {at >= 0 && (
            <ol aria-label="Next" className="border-t border-rule px-4 py-2">
              {steps.slice(at + 1).map((step, i) => (
                <li
                  key={step.id}
                  className="flex min-h-9 items-baseline justify-between gap-3 py-1"
                >
                  <span className={i === 0 ? '' : 'text-quiet'}>{step.says}</span>
                  <span className="figure shrink-0 text-quiet">{step.figure}</span>
                </li>
              ))}
            </ol>
          )}
        </div>
        <footer className="flex gap-2 border-t border-rule bg-paper p-3">
          <button
            type="button"
            disabled={!before}
            onClick={() => before && tick(before, false)}
            className="min-h-16 rounded-sm border border-rule-strong px-4 font-medium disabled:opacity-40"
          >
            Back
          </button>
          {present ? (
            <button
              type="button"
              onClick={() => tick(present, true)}
              className="min-h-16 flex-1 rounded-sm border border-ink bg-ink text-[20px] font-semibold text-on-strong"
            >
              Done, next
            </button>
          ) : (
            <button
              type="button"
              onClick={() => setDone([])}
              className="min-h-16 flex-1 rounded-sm border border-rule-strong font-medium"
            >
              Begin again
            </button>
          )}
        </footer>
        <label className="flex min-h-11 items-center gap-2 bg-paper px-4 pb-2 text-[13px] text-quiet">
          <input
            type="checkbox"
            checked={awake}
            onChange={(event) => keepAwake(event.target.checked)}
            className="size-6 accent-current"
          />
          {lock === 'cannot'
            ? 'This browser cannot keep the screen on; set it in the phone.'
            : lock === 'on'
              ? 'The screen stays on'
              : 'Keep the screen on'}
        </label>
        <StationPart name="The log">
          <Suspense>
            <LogBar
              jobId={jobId}
              stationId={id}
              station={planned}
              strong={present === null || present.frame !== undefined}
              frame={shot?.frame ?? null}
              // A frame that is shot is done: the next one is shown by itself.
              {...(shot && !ticked.has(keyOf(shot)) ? { onShot: () => tick(shot, true) } : {})}
            />
          </Suspense>
        </StationPart>
      </section>
      <StandFields />
    </div>
  );
}

function Unsettled({ card: { unsettled } }: { card: Card }) {
  const { stops } = unsettled;
  if (stops.length === 0) return null;
  return (
    <div role="alert" className="border-b border-outside px-4 py-2 text-outside">
      <p className="font-semibold">
        {cardVerdict(unsettled).figure} to settle before it can be shot
      </p>
      <ul>
        {stops.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    </div>
  );
}

/** What is ticked off, each to be taken back. */
function Done({ steps, onUndo }: { steps: readonly CardStep[]; onUndo: (step: CardStep) => void }) {
  if (steps.length === 0) return null;
  // The last few are enough to see where one is.
  const shown = steps.slice(-3);
  return (
    <ol aria-label="Done" className="border-b border-rule px-4 py-1">
      {steps.length > shown.length && (
        <li className="py-1 text-[13px] text-quiet">{steps.length - shown.length} more above</li>
      )}
      {shown.map((step) => (
        <li key={step.id}>
          <button
            type="button"
            onClick={() => onUndo(step)}
            aria-label={`Take back: ${step.says}`}
            className="flex min-h-11 w-full items-center justify-between gap-3 text-left text-quiet"
          >
            <span className="min-w-0 truncate">
              {step.says} {step.figure}
            </span>
            <Check size={20} aria-hidden className="shrink-0 text-within" />
          </button>
        </li>
      ))}
    </ol>
  );
}

const PICTURE = { x: 0, y: 0, width: 90, height: 48 };

/** The drawing that helps with a step. */
function pictureOf(station: Station, step: CardStep) {
  if (step.part === 'stand') return { shapes: planPicture(station, PICTURE), label: 'From above' };
  if (step.part === 'move' || step.part === 'stop') {
    return { shapes: circlePicture(station, PICTURE), label: 'The circle with the frame in it' };
  }
  return {
    shapes: finderPicture(station, PICTURE, step.frame),
    label: step.frame === undefined ? 'The picture' : `The picture, frame ${step.frame + 1} strong`,
  };
}

function Present({ card, step }: { card: Card; step: CardStep }) {
  const { station, care } = card;
  const picture = useMemo(() => pictureOf(station, step), [station, step]);
  const { says, figure, detail, frame, part } = step;
  const assumed = restsOnAssumed(card, step);
  return (
    <div className="px-4 py-4">
      {part === 'stand' && care.length > 0 && (
        <ul className="mb-4 space-y-1.5">
          {care.map((each) => (
            <li key={each} className="border-l-2 border-costs pl-3 text-[15px]">
              {CARE_WORDS[each]}
            </li>
          ))}
        </ul>
      )}
      {frame !== undefined && <p className="text-quiet">Frame {frame + 1}</p>}
      <p
        className={
          figure === undefined ? 'text-[32px] leading-10 font-semibold' : 'text-[20px] leading-7'
        }
      >
        {says}
      </p>
      {figure !== undefined && (
        <p className="figure text-[44px] leading-[52px]">
          {figure}
          {assumed && (
            <span className="ml-2 inline-block align-middle text-costs">
              <AssumedRing />
              <span className="sr-only">, rests on what nobody gave</span>
            </span>
          )}
          {restsOnMeasured(card, step) && (
            <span className="ml-2 inline-block align-middle text-within">
              <MeasuredRing />
              <span className="sr-only">, rests on what was measured</span>
            </span>
          )}
        </p>
      )}
      {detail && <p className="pt-1 text-[16px] text-quiet">{detail}</p>}
      <ShapesView
        shapes={picture.shapes}
        label={picture.label}
        width={PICTURE.width}
        height={PICTURE.height}
        className="mt-3 max-h-[38vh] w-full bg-stage"
      />
    </div>
  );
}
