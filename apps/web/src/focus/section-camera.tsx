import {
  fixed,
  hingedAt,
  leanedTo,
  sectionOf,
  type Point,
  type Section,
  type SectionKind,
  type Station,
  type Units,
} from '@gangway/station';
import { Handle } from '../drawing/handle.js';
import { DimensionLine } from '../drawing/dimension-line.js';
import type { SectionSheet, Shared, Zoom } from './section-sheet.js';
import { nearOrFar, WORDS } from './section-words.js';

/** The hinge line: where it lies, or which way it lies off the sheet. */
export function HingeMark({
  section,
  sheet,
  units,
  width,
  height,
  shared,
}: {
  section: Section;
  sheet: SectionSheet;
  units: Units;
  width: number;
  height: number;
  shared: Shared;
}) {
  const { hinge, hingeMm, kind } = section;
  if (!hinge || hingeMm === null) return null;
  const { above, below } = WORDS[kind];
  const words = `hinge line, ${nearOrFar(Math.abs(hingeMm) / 1000, units)} ${hingeMm > 0 ? above : below} the lens`;
  const [x, y] = [sheet.x(hinge.x), sheet.y(hinge.y)];
  const off = x < 0 || x > width || y < 4 || y > height - 4;
  const lens = { x: sheet.x(0), y: sheet.y(0) };
  if (off) {
    const down = y > lens.y;
    const edge = down ? height - 14 : 34;
    const ax = Math.min(width - 20, Math.max(20, lens.x));
    return (
      <g className="text-within" fill="currentColor">
        <path
          d={down ? `M${ax},${edge + 8}l-6,-10h12z` : `M${ax},${edge - 8}l-6,10h12z`}
          aria-hidden
        />
        <text x={ax + 12} y={edge + 4} className="halo" fill="currentColor">
          {words}, off the sheet
        </text>
      </g>
    );
  }
  return (
    <>
      <line
        x1={lens.x}
        y1={lens.y}
        x2={x}
        y2={y}
        className="stroke-quiet"
        strokeDasharray="2 4"
        aria-hidden
      />
      <Handle
        {...shared}
        step={0.02 * Math.max(0.05, Math.abs(hingeMm) / 1000)}
        label={kind === 'side' ? 'Hinge line, from the side' : 'Hinge line, in the plan'}
        value={hingeMm}
        valueText={words}
        write={(from, _dx, dy) => {
          const held = sectionOf(from, kind).hingeMm ?? hingeMm;
          return hingedAt(from, kind, notNone(held + dy * 1000, held));
        }}
      >
        <circle cx={x} cy={y} r={16} fill="transparent" />
        <circle cx={x} cy={y} r={6} className="fill-within stroke-paper" strokeWidth={1.5} />
      </Handle>
      <DimensionLine
        from={lens}
        to={{ x, y }}
        offset={y > lens.y === x < width / 2 ? -DIMENSION_PX : DIMENSION_PX}
        words={nearOrFar(Math.abs(hingeMm) / 1000, units)}
        tone="text-within"
      />
      <text
        x={x + 12}
        y={y > height - 24 ? y - 10 : y + 20}
        className="halo text-within"
        fill="currentColor"
        aria-hidden
      >
        hinge line
      </text>
    </>
  );
}

/** How far the length to the hinge is told beside the line, px. */
const DIMENSION_PX = 16;

/** The hinge never passes through the lens: it stays on its side. */
const notNone = (mm: number, like: number): number =>
  Math.sign(like) * Math.max(1, Math.sign(like) * mm);

const leanOf = ({ movements }: Station, kind: SectionKind): number =>
  kind === 'side' ? movements.tilt_deg : movements.swing_deg;

/** On the sheet of a scene lens and sensor are at least so large, px from their middle. */
const LEAST_HALF_PX = 20;

/** Sensor and lens; the lens is leaned by its end. */
export function Camera({
  section,
  sheet,
  shared,
  zoom,
}: {
  section: Section;
  sheet: SectionSheet;
  shared: Shared;
  zoom: Zoom;
}) {
  const { sensor, axis, lensHalfM, kind, leanDeg } = section;
  const [x0, y0] = [sheet.x(0), sheet.y(0)];
  // In pixels, so that a symbol too small to see grows without turning.
  const lean = Math.atan2(axis.y * sheet.scaleY, axis.x * sheet.scaleX);
  const half = Math.max(LEAST_HALF_PX, lensHalfM * sheet.scaleX);
  const [ux, uy] = [-Math.sin(lean) * half, -Math.cos(lean) * half];
  const [a, b] = sensor.map((p) => ({ x: sheet.x(p.x), y: sheet.y(p.y) })) as [Point, Point];
  const grow = Math.max(1, (0.7 * LEAST_HALF_PX) / (Math.hypot(b.x - a.x, b.y - a.y) / 2 || 1));
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const back = Math.min(middle.x, x0 - (zoom !== 'camera' ? 9 : 0));
  const end = (p: Point): string =>
    `${back + (p.x - middle.x) * grow},${middle.y + (p.y - middle.y) * grow}`;
  const forward = kind === 'side' ? 1 : -1;
  const words =
    Math.abs(leanDeg) < 0.005
      ? 'straight'
      : kind === 'side'
        ? `${fixed(Math.abs(leanDeg), 1)}° ${leanDeg > 0 ? 'forward' : 'back'}`
        : `${fixed(Math.abs(leanDeg), 1)}° ${leanDeg > 0 ? 'right' : 'left'}`;
  return (
    <>
      <path
        d={`M${end(a)}L${end(b)}`}
        className="stroke-ink"
        strokeWidth={4}
        strokeLinecap="square"
        aria-hidden
      />
      <Handle
        {...shared}
        scale={1}
        scaleUp={1}
        step={0.5}
        label={kind === 'side' ? 'Lens, tilt' : 'Lens, swing'}
        value={leanDeg}
        valueText={words}
        write={(from, dx) => {
          // Pixels at the lens's upper end, under the hand.
          const turn = (Math.atan2(dx, half) * 180) / Math.PI;
          return leanedTo(from, kind, Number((leanOf(from, kind) + forward * turn).toFixed(2)));
        }}
        writeStep={(from, dx, dy) =>
          leanedTo(from, kind, Number((leanOf(from, kind) + dx + dy).toFixed(2)))
        }
      >
        <path
          d={`M${x0 - ux},${y0 - uy}L${x0 + ux},${y0 + uy}`}
          stroke="transparent"
          strokeWidth={22}
        />
        <path
          d={`M${x0 - ux},${y0 - uy}L${x0 + ux},${y0 + uy}`}
          className="stroke-ink"
          strokeWidth={5}
          strokeLinecap="round"
        />
        <circle cx={x0 + ux} cy={y0 + uy} r={5} className="fill-paper stroke-ink" strokeWidth={2} />
      </Handle>
      <text x={x0 + ux + 10} y={y0 + uy - 6} className="halo font-semibold" aria-hidden>
        {Math.abs(leanDeg) < 0.005 ? '' : `${WORDS[kind].lean.toLowerCase()} ${words}`}
      </text>
    </>
  );
}
