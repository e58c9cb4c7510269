import { parseAngleDeg, withAt, withoutAt, withRangeEnd, type RangeField } from '@gangway/station';
import { Rows, type Row } from '../fields/rows.js';
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

const rangeRows = (ranges: typeof RANGES) =>
  ranges.flatMap(([field, low, high, unit]) =>
    ([0, 1] as const).map((end) => ({ field, end, unit, label: `${end === 0 ? low : high} to` })),
  );

const ONE_NUMBER: readonly Row[] = (
  [
    ['radial_shift_mm', 'Length of shift, turning lens', 'mm'],
    ['radial_tilt_deg', 'Length of tilt, turning lens', '°'],
    ['pivot_mm', 'Tilt axis behind the lens centre', 'mm'],
    ['rear_pivot_mm', 'Tilt axis of the back, below its middle', 'mm'],
  ] as const
).map(([name, label, as]) => ({ at: `/movement_limits/${name}`, label, as, clear: true }));

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
        write={(station, moves) => withAt(station, '/movement_limits/moves', moves)}
      />
      {rangeRows([...RANGES, ...(limits.moves === 'front' ? SECOND : [])]).map(
        ({ field, end, unit, label }) => (
          <FigureField
            key={`${field}-${end}`}
            label={label}
            pointer={`/movement_limits/${field}/${end}`}
            unit={unit}
            parse={unit === 'mm' ? parseMm : parseAngleDeg}
            value={amountOf(limits[field], end)}
            write={(station, amount) => withRangeEnd(station, field, end, amount)}
            clear={(station) => withoutAt(station, `/movement_limits/${field}`)}
          />
        ),
      )}
      <Rows rows={ONE_NUMBER} />
      <p className="text-[13px] text-quiet">
        Empty means the mechanism sets no limit; for the back’s own movements, that it has none.
      </p>
    </Section>
  );
}
