import {
  fixed,
  startHeldOff,
  type HeldOff,
  type HeldOffInput,
  type HeldScene,
  type Station,
} from '@gangway/station';
import { DimensionLine } from '../drawing/dimension-line.js';
import { Drawn } from '../drawing/drawn.js';
import { Handle } from '../drawing/handle.js';
import { sheetAt } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';

/** Where nothing is told: a common body and back, mm. */
const USUAL_MM = { register: 30, flange: 60, frame: 24 };

/** Without a width nothing can be said of where lens and body come near each other. */
export const widthKnown = (held: HeldOffInput): boolean =>
  held.flange_diameter_mm !== undefined || held.throat_mm !== undefined;

/** More than this nobody leans a lens in the hand. */
const MOST_LEAN_DEG = 35;

export const withHeld = (now: Station, change: Partial<HeldOffInput>): Station => ({
  ...now,
  held_off: { ...(now.held_off ?? startHeldOff(now)), ...change },
});

const heldOf = (station: Station): HeldOffInput => station.held_off ?? startHeldOff(station);

const tenth = (value: number): number => Math.round(value * 10) / 10;

const SEEN: Record<HeldScene['seen'], string> = {
  above: 'from above',
  side: 'from the side',
  lean: 'across the lean',
};

/** Body, gap and lens to scale, seen across the lean; the lens is drawn off and leaned by hand. */
export function HeldOffDrawing({
  held,
  read,
  scene,
  focalLengthMm,
}: {
  held: HeldOffInput;
  read: HeldOff;
  scene: HeldScene;
  focalLengthMm: number;
}) {
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const register = held.body_register_mm ?? USUAL_MM.register;
  const throat = held.throat_mm ?? held.flange_diameter_mm ?? USUAL_MM.flange;
  const flange = held.flange_diameter_mm ?? held.throat_mm ?? USUAL_MM.flange;
  const known = widthKnown(held);
  const lean = (scene.leanDeg * Math.PI) / 180;
  const barrel = Math.min(48, Math.max(24, 0.8 * focalLengthMm));
  const [half, wall] = [flange / 2, throat / 2 + 8];
  const [sine, cosine] = [Math.sin(lean), Math.cos(lean)];
  const high = 2 * Math.max(wall, half * cosine + (barrel + 14) * Math.abs(sine)) + 34;
  const long = register + Math.max(held.gap_mm, 20) + barrel * cosine + half * Math.abs(sine) + 44;
  const scale = Math.max(0.5, Math.min(height / high, width / long));
  const sheet = sheetAt(
    (width - long * scale) / 2 + (register + 14) * scale,
    height / 2 - 6,
    scale,
  );
  const { x, y } = sheet;
  /** A place of the lens: up along its back, ahead along its axis, mm. */
  const place = (up: number, ahead = 0): { x: number; y: number } => ({
    x: x(held.gap_mm - up * sine + ahead * cosine),
    y: y(up * cosine + ahead * sine),
  });
  const path = (...points: { x: number; y: number }[]): string =>
    points.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  // The side that gapes is the one the lens looks away from.
  const open = sine > 0 ? -1 : 1;
  const wide = place(open * half);
  const close = place(-open * half);
  const front = place(0, barrel + 14);
  return (
    <Drawn
      {...{ box, size }}
      role="group"
      label={`Body and lens ${SEEN[scene.seen]}, ${fixed(held.gap_mm, 1)} mm apart at the middle; ${known ? `the open side gapes ${fixed(read.gapeMm, 1)} mm` : 'how far the open side gapes is not told'}${read.fits ? '' : '; on the other side they touch'}`}
      className="min-h-52 min-w-0 flex-1"
    >
      <text x={16} y={20} className="halo text-quiet">
        At the camera, {SEEN[scene.seen]}
      </text>
      <path
        d={`M${x(0)},${y(throat / 2)}V${y(wall)}H${x(-register - 8)}V${y(-wall)}H${x(0)}V${y(-throat / 2)}`}
        className="fill-paper stroke-ink"
        strokeWidth={2}
        strokeLinejoin="round"
      />
      <path
        d={`M${x(-register)},${y(USUAL_MM.frame / 2)}V${y(-USUAL_MM.frame / 2)}`}
        className="stroke-ink"
        strokeWidth={5}
      />
      <Handle
        label="Lens, its gap"
        value={held.gap_mm}
        valueText={`${fixed(held.gap_mm, 1)} mm`}
        ends={[0, 200]}
        pointer="/held_off"
        step={0.5}
        {...{ scale }}
        write={(from, dx) =>
          withHeld(from, { gap_mm: Math.max(0, tenth(heldOf(from).gap_mm + dx)) })
        }
        writeStep={(from, dx, dy) =>
          withHeld(from, { gap_mm: Math.max(0, tenth(heldOf(from).gap_mm + (dx || dy))) })
        }
      >
        <path
          d={`${path(place(half), place(half, 6), place(0.8 * half, 10), place(0.8 * half, barrel), place(-0.8 * half, barrel), place(-0.8 * half, 10), place(-half, 6), place(-half))}Z`}
          className="fill-glass stroke-ink"
          strokeWidth={1.75}
          strokeLinejoin="round"
        />
        <path
          d={path(place(half), place(-half))}
          className={read.fits ? 'stroke-ink' : 'stroke-outside'}
          strokeWidth={3}
        />
      </Handle>
      <path
        d={path(place(0, -register - held.gap_mm), front)}
        className="pointer-events-none stroke-quiet"
        strokeDasharray="10 3 2 3"
      />
      <path
        d={`M${x(0)},${y(open * wall)}L${wide.x},${wide.y}`}
        className="pointer-events-none stroke-costs"
        strokeWidth={1.5}
      />
      <text
        x={Math.max(x(0), wide.x) + 8}
        y={open > 0 ? Math.max(36, y(wall) - 4) : y(-wall) + 14}
        className="halo text-costs"
        fill="currentColor"
      >
        {known ? `gapes ${fixed(read.gapeMm, 1)} mm here: light comes in` : 'light comes in here'}
      </text>
      <DimensionLine
        from={{ x: x(0), y: y(-open * wall) }}
        to={{ x: x(held.gap_mm), y: y(-open * wall) }}
        offset={open * 22 * -1}
        words={`${fixed(held.gap_mm, 1)} mm gap`}
        tone="text-ink"
      />
      {!read.fits && (
        <circle
          cx={close.x}
          cy={close.y}
          r={7}
          fill="none"
          className="stroke-outside"
          strokeWidth={2}
        />
      )}
      <Handle
        label="Lens, its lean"
        value={Math.abs(held.lean_deg)}
        valueText={`${fixed(Math.abs(held.lean_deg), 1)}°`}
        ends={[0, MOST_LEAN_DEG]}
        pointer="/held_off"
        step={0.5}
        {...{ scale }}
        write={(from, _, dy) => withLean(from, dy, barrel + 14, lean)}
        writeStep={(from, dx, dy) => withLeanBy(from, dx || dy)}
      >
        <circle cx={front.x} cy={front.y} r={16} fill="transparent" />
        <circle cx={front.x} cy={front.y} r={7} className="fill-paper stroke-ink" strokeWidth={2} />
      </Handle>
      <text
        x={Math.min(front.x, width - 40)}
        y={front.y + (sine > 0 ? -16 : 26)}
        textAnchor="middle"
        className="halo figure"
      >
        {fixed(Math.abs(held.lean_deg), 1)}°
      </text>
    </Drawn>
  );
}

const held35 = (deg: number): number => Math.min(MOST_LEAN_DEG, Math.max(0, tenth(deg)));

/** The front of the lens carried up or down the sheet, mm; past straight it leans no more. */
function withLean(from: Station, dy: number, reach: number, was: number): Station {
  const way = was < 0 ? -1 : 1;
  const now = Math.atan2(reach * Math.sin(was) + dy, reach * Math.cos(was));
  return withHeld(from, { lean_deg: held35((way * now * 180) / Math.PI) });
}

const withLeanBy = (from: Station, deg: number): Station =>
  withHeld(from, { lean_deg: held35(Math.abs(heldOf(from).lean_deg) + deg) });
