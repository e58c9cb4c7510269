import {
  FRONT_OR_BACK,
  degrees,
  leansBack,
  mm,
  movesBack,
  parseAngleDeg,
  readingOf,
  sensorPitchDeg,
  solveOf,
  withSolve,
  type Parsed,
  type Solve,
  type Station,
} from '@gangway/station';
import { Group, Line } from '../station/results.js';
import { FigureField, parseMm } from '../fields/fields.js';
import { useSiteEdit } from '../fields/site-part.js';
import { useAppSelector } from '../store/store.js';
import { nearOrFar } from './section-words.js';

const MAY: readonly (readonly ['tilt' | 'swing', string])[] = [
  ['tilt', 'tilt'],
  ['swing', 'swing'],
];

const BACK = [
  ['rear_tilt_deg', 'Back tilts, top away'],
  ['rear_swing_deg', 'Back swings right'],
  ['rear_rise_mm', 'Back looks higher'],
  ['rear_shift_mm', 'Back looks right'],
] as const;

/** A reading that the mechanism allows, or why it does not. */
function within(
  read: Parsed,
  range: readonly [number, number] | undefined,
  shown: (value: number) => string,
): Parsed {
  const [least, most] = range ?? [0, 0];
  if (!read.ok || (read.value >= least && read.value <= most)) return read;
  return { ok: false, message: `The back goes from ${shown(least)} to ${shown(most)} here.` };
}

/** The back leaned by hand; what that does to the plane and to the lines is told apart. */
function BackFields({ station }: { station: Station }) {
  const units = useAppSelector((state) => state.preferences.units);
  const { focus, perspective } = readingOf(station);
  const { movements } = station;
  return (
    <Group title="The back itself">
      {BACK.filter(([field]) => station.movement_limits[field] ?? movements[field]).map(
        ([field, label]) => (
          <FigureField
            key={field}
            label={label}
            pointer={`/movements/${field}`}
            unit={field.endsWith('_mm') ? 'mm' : '°'}
            parse={(text) => {
              const range = station.movement_limits[field];
              return field.endsWith('_mm')
                ? within(parseMm(text), range, (value) => mm(value, 1))
                : within(parseAngleDeg(text), range, degrees);
            }}
            value={movements[field] ?? 0}
            write={(now, value) => ({ ...now, movements: { ...now.movements, [field]: value } })}
          />
        ),
      )}
      <Line
        name="Plane: hinge line from the lens"
        figure={focus.hinge_mm === null ? 'none' : nearOrFar(focus.hinge_mm / 1000, units)}
      />
      <Line name="Lines: the back points up" figure={degrees(sensorPitchDeg(station))} />
      <Line name="Lines: uprights converge" figure={degrees(perspective.convergence_deg)} />
    </Group>
  );
}

/** What may be leaned for it. */
function Freedoms({ station }: { station: Station }) {
  const edit = useSiteEdit();
  const solve = solveOf(station);
  const set = (change: Partial<Solve>, label: string): void =>
    edit(label, '/solve', (now) => withSolve(now, change));
  const box = 'flex min-h-8 items-center gap-2 pointer-coarse:min-h-11';
  return (
    <fieldset className="mb-4 flex flex-wrap gap-x-5">
      <legend className="text-[13px] font-semibold text-quiet">May be moved for it</legend>
      {leansBack(station) && (
        <p className="w-full pb-1 text-[13px] text-quiet">{FRONT_OR_BACK.lean}</p>
      )}
      {MAY.map(([key, words]) => (
        <label key={key} className={box}>
          <input
            type="checkbox"
            checked={solve[key]}
            onChange={() => set({ [key]: !solve[key] }, `Let ${words} be moved`)}
            className="size-4 accent-within"
          />
          {words}
        </label>
      ))}
      {leansBack(station) && (
        <label className={box}>
          <input
            type="checkbox"
            checked={solve.rear === true}
            onChange={() => set({ rear: solve.rear !== true }, 'Choose what leans')}
            className="size-4 accent-within"
          />
          the back, not the lens
        </label>
      )}
    </fieldset>
  );
}

/** What may be moved for the marks; where the back moves, its own figures. */
export function MayMove({ station }: { station: Station }) {
  return (
    <>
      <Freedoms station={station} />
      {movesBack(station) && <BackFields station={station} />}
    </>
  );
}
