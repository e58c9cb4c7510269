import {
  parseAngleDeg,
  withRangeEnd,
  type MovementLimits,
  type RangeField,
  type Station,
} from '@gangway/station';
import { ChoiceField, FigureField, parseMm, Section, useStation } from '../fields/fields.js';

const RANGES: readonly (readonly [RangeField, string, string, string])[] = [
  ['rise_mm', 'Fall', 'Rise', 'mm'],
  ['shift_mm', 'Shift left', 'Shift right', 'mm'],
  ['tilt_deg', 'Tilt back', 'Tilt forward', '°'],
  ['swing_deg', 'Swing left', 'Swing right', '°'],
  ['rear_tilt_deg', 'Back tilts forward', 'Back tilts back', '°'],
  ['rear_swing_deg', 'Back swings left', 'Back swings right', '°'],
];

/** Of the back, where the front moves and it does too. */
const SECOND: typeof RANGES = [
  ['rear_rise_mm', 'Back looks lower', 'Back looks higher', 'mm'],
  ['rear_shift_mm', 'Back looks left', 'Back looks right', 'mm'],
];

/** An end of a range as an amount in its own direction; negative when it lies past zero. */
const amountOf = (range: readonly [number, number] | undefined, end: 0 | 1): number | undefined =>
  range && (end === 0 ? -range[0] : range[1]) + 0;

function without(station: Station, key: keyof MovementLimits): Station {
  const { [key]: _, ...limits } = station.movement_limits;
  return { ...station, movement_limits: limits as MovementLimits };
}

const ONE_NUMBER = [
  ['radial_shift_mm', 'Length of shift, turning lens', 'mm'],
  ['radial_tilt_deg', 'Length of tilt, turning lens', '°'],
  ['pivot_mm', 'Tilt axis behind the lens centre', 'mm'],
  ['rear_pivot_mm', 'Tilt axis of the back, below its middle', 'mm'],
] as const;

export function MovementFields() {
  const { movement_limits: limits } = useStation();
  return (
    <Section title="How far the mechanism goes">
      <ChoiceField
        label="What moves"
        pointer="/movement_limits/moves"
        value={limits.moves}
        options={[
          ['front', 'The front'],
          ['rear', 'The rear'],
        ]}
        write={(station, moves) => ({
          ...station,
          movement_limits: { ...station.movement_limits, moves },
        })}
      />
      {[...RANGES, ...(limits.moves === 'front' ? SECOND : [])].map(([field, low, high, unit]) =>
        ([0, 1] as const).map((end) => (
          <FigureField
            key={`${field}-${end}`}
            label={`${end === 0 ? low : high} to`}
            pointer={`/movement_limits/${field}/${end}`}
            unit={unit}
            parse={unit === 'mm' ? parseMm : parseAngleDeg}
            value={amountOf(limits[field], end)}
            write={(station, amount) => withRangeEnd(station, field, end, amount)}
            clear={(station) => without(station, field)}
          />
        )),
      )}
      {ONE_NUMBER.map(([field, label, unit]) => (
        <FigureField
          key={field}
          label={label}
          pointer={`/movement_limits/${field}`}
          unit={unit}
          parse={unit === 'mm' ? parseMm : parseAngleDeg}
          value={limits[field]}
          write={(station, value) => ({
            ...station,
            movement_limits: { ...station.movement_limits, [field]: value },
          })}
          clear={(station) => without(station, field)}
        />
      ))}
      <p className="text-[13px] text-quiet">
        Empty means the mechanism sets no limit; for the back’s own movements, that it has none.
      </p>
    </Section>
  );
}
