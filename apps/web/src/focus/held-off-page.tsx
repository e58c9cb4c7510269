import {
  degrees,
  fixed,
  HELD_OFF_CARE,
  heldOff,
  startHeldOff,
  type HeldOffInput,
  type Station,
} from '@gangway/station';
import { parseAngleDeg } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { FigureField, parseMm } from '../fields/fields.js';
import { HeldOffDrawing, widthKnown } from './held-off-drawing.js';
import { nearOrFar } from './section-words.js';
import { Big, Page } from './page.js';

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

/** A lens held by hand before the body. */
export function HeldOffPage() {
  const station = useAppSelector(selectStation);
  const units = useAppSelector((state) => state.preferences.units);
  const held = station.held_off ?? startHeldOff(station);
  const read = heldOff(station, held);
  const known = widthKnown(held);
  const set = (now: Station, change: Partial<HeldOffInput>): Station => ({
    ...now,
    held_off: { ...(now.held_off ?? startHeldOff(now)), ...change },
  });
  const without = (now: Station, field: keyof HeldOffInput): Station => {
    const { [field]: _, ...rest } = now.held_off ?? startHeldOff(now);
    return { ...now, held_off: rest as HeldOffInput };
  };
  return (
    <Page
      title="Held off the body"
      about="Lens set to infinity and to its widest stop, held by hand before the open body; the body turns behind it. How wide the gap is sets how close it focuses."
      care={HELD_OFF_CARE}
      drawing={<HeldOffDrawing {...{ held, read }} focalLengthMm={station.lens.focal_length_mm} />}
    >
      <div className="grid gap-8 lg:grid-cols-[360px_minmax(0,1fr)]">
        <div className="space-y-1.5">
          {FIELDS.map(([field, label, unit]) => (
            <FigureField
              key={field}
              label={label}
              pointer={`/held_off/${field}`}
              unit={unit}
              parse={unit === 'mm' ? parseMm : parseAngleDeg}
              value={held[field]}
              write={(now, value) => set(now, { [field]: value })}
              {...(NEEDED.has(field) ? {} : { clear: (now: Station) => without(now, field) })}
            />
          ))}
        </div>
        <div>
          <div className="flex flex-wrap gap-x-8 gap-y-4">
            <Big
              name="Sharp straight ahead, from the sensor"
              figure={
                read.planeM === null
                  ? read.pastInfinity
                    ? 'nothing'
                    : '∞'
                  : nearOrFar(read.planeM, units)
              }
            >
              magnification {fixed(Math.max(0, read.magnification), 2)}×
            </Big>
            <Big
              name="Infinity"
              figure={
                read.infinityPossible === null
                  ? 'not told'
                  : read.infinityPossible
                    ? `${fixed(read.infinityGapMm!, 1)} mm gap`
                    : 'out of reach'
              }
            >
              {read.infinityPossible === null
                ? 'give both registers'
                : read.infinityPossible
                  ? 'where it is sharp at this lean'
                  : 'near things only'}
            </Big>
            <Big
              name="The lean needs"
              {...(known
                ? {
                    figure: fixed(read.clearanceMm, 1),
                    unit: 'mm of gap',
                    tone: read.fits ? 'text-within' : 'text-outside',
                  }
                : { figure: 'not told' })}
            >
              {!known ? 'give the throat' : read.fits ? 'it has room' : 'the flanges touch'}
            </Big>
            {read.hingeMm !== null && (
              <Big name="Hinge line" figure={nearOrFar(read.hingeMm / 1000, units)}>
                from the lens
              </Big>
            )}
          </div>
          <div className="flex flex-wrap gap-x-8 gap-y-4 pt-5">
            <Big name="A hand must hold the gap to" figure={fixed(read.mmPerBlur, 2)} unit="mm">
              for one circle of confusion
            </Big>
            <Big name="And the lean to" figure={degrees(read.degPerBlur, 2)}>
              at the edge of the frame
            </Big>
            <Big
              name="Gapes on the open side"
              {...(known ? { figure: fixed(read.gapeMm, 1), unit: 'mm' } : { figure: 'not told' })}
            />
          </div>
          <ul className="max-w-[60ch] list-disc pt-5 pl-5">
            {read.notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </div>
      </div>
    </Page>
  );
}
