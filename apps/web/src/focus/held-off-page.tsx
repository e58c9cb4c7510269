import { lazy, Suspense } from 'react';
import {
  assumedFor,
  assumptionsOf,
  degrees,
  fixed,
  HELD_OFF_CARE,
  heldOff,
  heldOffAnswer,
  heldOrders,
  orderLines,
  heldScene,
  mountedAgain,
  parseAngleDeg,
  startHeldOff,
  type Assumption,
  type HeldOff,
  type HeldOffAnswer,
  type HeldOffInput,
  type Rests,
  type Station,
  type Units,
} from '@gangway/station';
import { FigureField, parseMm } from '../fields/fields.js';
import { useSiteEdit } from '../fields/site-part.js';
import { DrawnPage } from '../station/drawn-page.js';
import { MarkList } from '../station/mark-list.js';
import { Group, Line } from '../station/results.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedMark } from '../ui/assumed-mark.js';
import { Button } from '../ui/button.js';
import { HeldOffDrawing, withHeld } from './held-off-drawing.js';
import { HeldOffScene } from './held-off-scene.js';
import { nearOrFar } from './section-words.js';

// The kit is not needed to hold the lens that is there.
const HeldOffKit = lazy(() => import('./held-off-kit.js'));

const FIELDS: readonly (readonly [keyof HeldOffInput, string, 'mm' | '°'])[] = [
  ['gap_mm', 'Gap between the flanges, at the middle', 'mm'],
  ['lean_deg', 'Lean', '°'],
  ['turn_deg', 'Which way, clockwise from behind; 0 leans forward', '°'],
  ['lens_register_mm', 'Register of the lens', 'mm'],
  ['body_register_mm', 'Register of the body', 'mm'],
  ['flange_diameter_mm', 'Width of the lens’s back', 'mm'],
  ['throat_mm', 'Throat of the body', 'mm'],
];

const NEEDED = new Set<keyof HeldOffInput>(['gap_mm', 'lean_deg']);

function without(now: Station, field: keyof HeldOffInput): Station {
  const { [field]: _, ...rest } = now.held_off ?? startHeldOff(now);
  return { ...now, held_off: rest as HeldOffInput };
}

/** A lens held by hand before the body: from two things the gap, the lean and its side. */
export function HeldOffPage() {
  const station = useAppSelector(selectStation);
  const units = useAppSelector((state) => state.preferences.units);
  const held = station.held_off ?? startHeldOff(station);
  const read = heldOff(station, held);
  const scene = heldScene(station, held);
  const assumed = assumptionsOf({ ...station, held_off: held });
  return (
    <DrawnPage
      title="Held off the body"
      about="Lens at infinity and wide open, held by hand before the open body. How wide the gap is sets how close it focuses; the lean turns the plane."
      care={HELD_OFF_CARE}
      drawing={
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <HeldOffDrawing {...{ held, read, scene }} focalLengthMm={station.lens.focal_length_mm} />
          <div className="border-rule max-lg:border-t lg:border-l" />
          <HeldOffScene {...{ scene, units }} />
        </div>
      }
    >
      <DoThis {...{ station, held, assumed }} answer={heldOffAnswer(station, held)} />
      <Told {...{ read, held, units, assumed }} />
      <Suspense>
        <HeldOffKit
          bodyRegisterMm={held.body_register_mm}
          own={station.lens.origin?.kit_id}
          units={units}
        />
      </Suspense>
      <Group title="How it is held">
        <div className="space-y-1.5">
          {FIELDS.map(([field, label, unit]) => (
            <FigureField
              key={field}
              label={label}
              pointer={`/held_off/${field}`}
              unit={unit}
              parse={unit === 'mm' ? parseMm : parseAngleDeg}
              value={held[field]}
              write={(now, value) => withHeld(now, { [field]: value })}
              {...(NEEDED.has(field) ? {} : { clear: (now: Station) => without(now, field) })}
            />
          ))}
        </div>
      </Group>
      <MarkList />
    </DrawnPage>
  );
}

/** What to do with both hands, and one press that holds it so. */
function DoThis({
  station,
  held,
  assumed,
  answer,
}: {
  station: Station;
  held: HeldOffInput;
  assumed: readonly Assumption[];
  answer: HeldOffAnswer | null;
}) {
  const edit = useSiteEdit();
  if (!answer) {
    return (
      <Group title="Do this">
        <p>
          Mark one thing that must be sharp, or two at two distances: the gap, the lean and its side
          follow.
        </p>
      </Group>
    );
  }
  const { pose, hindrance, of } = answer;
  const names = of.map((i) => station.marks![i]!.label || `Mark ${i + 1}`).join(' and ');
  const set =
    pose !== null &&
    held.gap_mm === pose.gapMm &&
    held.lean_deg === pose.leanDeg &&
    (pose.leanDeg === 0 || (held.turn_deg ?? 0) === pose.turnDeg);
  return (
    <Group
      title={
        <>
          Do this, for {names}
          <AssumedMark found={assumedFor(assumed, ['held', 'clearance'])} of="what to hold" />
        </>
      }
    >
      {pose === null ? (
        <p className="text-[16px] font-semibold text-outside">{hindrance}</p>
      ) : (
        <>
          <ul className="text-[17px] leading-6 font-semibold">
            {orderLines(
              heldOrders(station, {
                gap_mm: pose.gapMm,
                lean_deg: pose.leanDeg,
                turn_deg: pose.turnDeg,
              }),
            ).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <div className="flex flex-wrap items-center gap-3 pt-2">
            {set && station.held_off ? (
              <span className="text-quiet">Already set.</span>
            ) : (
              <Button
                look="strong"
                onClick={() =>
                  edit('Hold it so', '/held_off', (now) =>
                    withHeld(now, {
                      gap_mm: pose.gapMm,
                      lean_deg: pose.leanDeg,
                      turn_deg: pose.turnDeg,
                    }),
                  )
                }
              >
                Set it so
              </Button>
            )}
          </div>
        </>
      )}
      {station.held_off && (
        <p className="pt-2 text-[13px] text-quiet">
          This station is held off: nothing is judged as if the lens were mounted.{' '}
          <button
            type="button"
            className="font-medium text-ink underline underline-offset-4"
            onClick={() => edit('Mount the lens', '/held_off', mountedAgain)}
          >
            Mount it again
          </button>
        </p>
      )}
    </Group>
  );
}

function Told({
  read,
  held,
  units,
  assumed,
}: {
  read: HeldOff;
  held: HeldOffInput;
  units: Units;
  assumed: readonly Assumption[];
}) {
  const ring = (rests: readonly Rests[], of: string) => (
    <AssumedMark found={assumedFor(assumed, rests)} of={of} />
  );
  const known = held.flange_diameter_mm !== undefined || held.throat_mm !== undefined;
  const ahead =
    read.planeM !== null ? nearOrFar(read.planeM, units) : read.pastInfinity ? 'nothing' : '∞';
  return (
    <Group title="As it is held">
      <Line
        name="Sharp straight ahead"
        figure={ahead}
        ring={ring(['held'], 'sharp straight ahead')}
      />
      <Line name="Magnification" figure={`${fixed(Math.max(0, read.magnification), 2)} ×`} />
      <Line name="A hand must hold the gap to" figure={fixed(read.mmPerBlur, 2)} unit="mm" />
      <Line name="and the lean to" figure={degrees(read.degPerBlur, 2)} />
      {read.infinityPossible === null ? (
        <Line name="Infinity" figure="give both registers" />
      ) : read.infinityPossible ? (
        <Line name="Infinity at a gap of" figure={fixed(read.infinityGapMm!, 1)} unit="mm" />
      ) : (
        <Line
          name="Infinity"
          figure={
            read.infinityGapMm! < 0
              ? `out of reach by ${fixed(-read.infinityGapMm!, 1)} mm`
              : 'the flanges touch first'
          }
          tone="text-costs"
        />
      )}
      <Line
        name="The lean needs a gap of"
        figure={known ? fixed(read.clearanceMm, 1) : 'give the throat'}
        {...(known ? { unit: 'mm', tone: read.fits ? 'text-within' : 'text-outside' } : {})}
      />
      {read.hingeMm !== null && (
        <Line
          name="Hinge line from the lens"
          term="hinge-line"
          figure={nearOrFar(read.hingeMm / 1000, units)}
        />
      )}
      <ul className="list-disc space-y-0.5 pt-2 pl-5 text-[13px] text-quiet">
        {read.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
    </Group>
  );
}
