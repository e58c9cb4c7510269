import { fixed, type Point, type Section, type Station, type Units } from '@gangway/station';
import { figureOf } from '../station/barrel/words.js';
import { DimensionLine } from '../drawing/dimension-line.js';
import { ordinates, type SectionSheet } from './section-sheet.js';
import { nearOrFar } from './section-words.js';

/** On a sheet as large as this tenths of a millimetre are told. */
const FINE_PX_PER_M = 3000;

/** Distances of the marks along the foot of the sheet, each counted from the sensor. */
export function Ordinates({
  section,
  sheet,
  units,
  width,
  height,
}: {
  section: Section;
  sheet: SectionSheet;
  units: Units;
  width: number;
  height: number;
}) {
  const [a, b] = section.sensor;
  const origin = (a.x + b.x) / 2;
  const told = ordinates(section, sheet, width);
  const last = told.at(-1);
  if (!last) return null;
  const y = height - 24;
  const x0 = sheet.x(origin);
  const fine = units === 'metric' && sheet.scaleX > FINE_PX_PER_M;
  return (
    <g aria-hidden className="pointer-events-none text-quiet">
      <path
        d={told.map(({ x, top }) => `M${x},${Math.min(top + 12, y)}V${y}`).join('')}
        className="stroke-rule-strong"
        strokeDasharray="1 3"
      />
      <path d={`M${x0},${y}H${last.x}`} stroke="currentColor" />
      <path
        d={[x0, ...told.map(({ x }) => x)].map((x) => `M${x - 4},${y + 4}l8,-8`).join('')}
        stroke="currentColor"
        strokeWidth={1.5}
      />
      {told.map(({ x, m }) => (
        <text
          key={x}
          x={Math.min(x, width - 30)}
          y={y + 17}
          textAnchor="middle"
          className="halo figure"
          fill="currentColor"
        >
          {fine ? `${fixed(m * 1000, 1)} mm` : nearOrFar(m, units)}
        </text>
      ))}
      <text x={Math.max(16, x0 - 4)} y={y - 8} className="halo" fill="currentColor">
        from the sensor
      </text>
    </g>
  );
}

/** Image distance, and rise or shift, where the camera is looked at. */
export function CameraDimensions({
  section: { sensor, kind },
  sheet,
  station,
}: {
  section: Section;
  sheet: SectionSheet;
  station: Station;
}) {
  const [a, b] = sensor;
  const size = Math.hypot(b.x - a.x, b.y - a.y);
  const up = { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
  // Where the sensor normal through the lens centre meets the sensor plane.
  const along = -(a.x * up.x + a.y * up.y);
  const foot = { x: a.x + up.x * along, y: a.y + up.y * along };
  const px = ({ x, y }: Point): Point => ({ x: sheet.x(x), y: sheet.y(y) });
  // Beside the nearer end of the sensor, clear of the light that falls on it.
  const below = Math.max(0, along) * sheet.scaleX;
  const [rise, unit] = figureOf(
    kind === 'side' ? 'rise' : 'shift',
    kind === 'side' ? station.movements.rise_mm : station.movements.shift_mm,
    'metric',
  );
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const [from, to] =
    (middle.x - foot.x) * up.x + (middle.y - foot.y) * up.y > 0 ? [foot, middle] : [middle, foot];
  return (
    <>
      <DimensionLine
        from={px({ x: 0, y: 0 })}
        to={px(foot)}
        offset={Math.max(below, 40) + 26}
        words={`${fixed(Math.hypot(foot.x, foot.y) * 1000, 1)} mm image distance`}
      />
      <DimensionLine from={px(from)} to={px(to)} offset={22} words={`${rise} ${unit}`} />
    </>
  );
}
