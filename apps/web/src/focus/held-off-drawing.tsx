import { fixed, type HeldOff, type HeldOffInput } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';

/** Where nothing is told: a common body and back, mm. */
const USUAL_MM = { register: 30, flange: 60, frame: 24 };

/** Without a width nothing can be said of where lens and body come near each other. */
export const widthKnown = (held: HeldOffInput): boolean =>
  held.flange_diameter_mm !== undefined || held.throat_mm !== undefined;

/** Body, gap and lens to scale, seen across the lean. */
export function HeldOffDrawing({
  held,
  read,
  focalLengthMm,
}: {
  held: HeldOffInput;
  read: HeldOff;
  focalLengthMm: number;
}) {
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const register = held.body_register_mm ?? USUAL_MM.register;
  const throat = held.throat_mm ?? held.flange_diameter_mm ?? USUAL_MM.flange;
  const flange = held.flange_diameter_mm ?? held.throat_mm ?? USUAL_MM.flange;
  const known = widthKnown(held);
  const lean = (Math.abs(held.lean_deg) * Math.PI) / 180;
  const barrel = Math.min(48, Math.max(24, 0.8 * focalLengthMm));
  const [half, wall] = [flange / 2, throat / 2 + 8];
  // Leaning forward, the upper end of the lens's back goes ahead and its front comes down.
  const [ux, uy] = [Math.sin(lean), Math.cos(lean)];
  const high = 2 * Math.max(wall, half * uy + (barrel + 14) * ux) + 22;
  const long = register + held.gap_mm + barrel * uy + half * ux + 30;
  const scale = Math.min(height / high, width / long);
  const { x, y } = sheetAt(
    (width - long * scale) / 2 + (register + 12) * scale,
    height / 2 + 8,
    scale,
  );
  const back = (up: number, ahead = 0): { x: number; y: number } => ({
    x: x(held.gap_mm + up * ux + ahead * uy),
    y: y(up * uy - ahead * ux),
  });
  const path = (...points: { x: number; y: number }[]): string =>
    points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  return (
    <Drawn
      {...{ box, size }}
      label={`Body and lens from the side, ${fixed(held.gap_mm, 1)} mm apart at the middle; ${known ? `the open side gapes ${fixed(read.gapeMm, 1)} mm` : 'how far the open side gapes is not told'}${read.fits ? '' : '; on the other side they touch'}`}
      className="h-40 min-w-0 flex-1"
    >
      <path
        d={`M${x(0)},${y(throat / 2)}V${y(wall)}H${x(-register - 8)}V${y(-wall)}H${x(0)}V${y(-throat / 2)}`}
        fill="none"
        className="stroke-ink"
        strokeWidth={2.5}
        strokeLinejoin="round"
      />
      <path
        d={`M${x(-register)},${y(USUAL_MM.frame / 2)}V${y(-USUAL_MM.frame / 2)}`}
        className="stroke-ink"
        strokeWidth={4}
      />
      <path
        d={`${path(back(half), back(half, 6), back(0.8 * half, 10), back(0.8 * half, barrel), back(-0.8 * half, barrel), back(-0.8 * half, 10), back(-half, 6), back(-half))}Z`}
        className="fill-page stroke-ink"
        strokeWidth={1.5}
        strokeLinejoin="round"
      />
      <path
        d={path(back(half), back(-half))}
        className={read.fits ? 'stroke-ink' : 'stroke-outside'}
        strokeWidth={3}
      />
      <path
        d={path(back(0, -6), back(0, barrel + 14))}
        className="stroke-quiet"
        strokeDasharray="10 3 2 3"
      />
      <path
        d={`M${x(0)},${y(wall)}V8M${back(half).x},${back(half).y}V8`}
        className="stroke-quiet"
        strokeWidth={0.75}
      />
      <text x={Math.max(x(0), back(half).x) + 6} y={16} className="figure">
        {known ? `gapes ${fixed(read.gapeMm, 1)} mm` : 'gapes'}
      </text>
      {!read.fits && (
        <circle
          cx={back(-half).x}
          cy={back(-half).y}
          r={6}
          fill="none"
          className="stroke-outside"
          strokeWidth={2}
        />
      )}
    </Drawn>
  );
}
