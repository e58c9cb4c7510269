import {
  fixed,
  focusedThrough,
  fStop,
  sectionOf,
  type Line,
  type Point,
  type Section,
  type Station,
} from '@gangway/station';
import { Dashes } from '../drawing/dashes.js';
import { Handle } from '../drawing/handle.js';
import {
  ends,
  heightAt,
  onSheet,
  overlap,
  type Rect,
  type SectionSheet,
  type Shared,
} from './section-sheet.js';

/** The wedge between its limits, and the plane of sharp focus in it. */
export function Wedge({
  section: { plane, limits, hinge },
  sheet,
  reach,
  like,
  room,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
  like: Point | undefined;
  room: { width: number; height: number };
}) {
  const [near, far] = limits;
  const lines = [near, far].map((line) => line && ends(line, hinge, reach, like));
  const [a, b] = lines;
  const area =
    a && b
      ? [a[0], a[1], b[1], b[0]]
      : a
        ? // No far limit: sharp from the near one on.
          [a[0], a[1], { x: 40 * reach, y: a[1].y }, { x: 40 * reach, y: a[0].y }]
        : null;
  const drawn = plane && ends(plane, hinge, reach, like);
  return (
    <g aria-hidden>
      {area && <polygon points={area.map(sheet.at).join(' ')} className="fill-within/14" />}
      {lines.map(
        (line, i) =>
          line && (
            <Dashes
              key={i}
              {...{ sheet, room }}
              from={line[0]}
              to={line[1]}
              className="stroke-within"
              strokeWidth={1.25}
              strokeDasharray="6 4"
            />
          ),
      )}
      {drawn && (
        <path
          d={`M${sheet.at(drawn[0])}L${sheet.at(drawn[1])}`}
          className="stroke-within"
          strokeWidth={2.75}
        />
      )}
    </g>
  );
}

/** Names at the right end of the limits, kept apart where the wedge is thin. */
export function LimitNames({
  section: { limits, plane },
  sheet,
  station,
  width,
  height,
  taken,
}: {
  section: Section;
  sheet: SectionSheet;
  station: Station;
  width: number;
  height: number;
  /** Where marks and their names stand. */
  taken: readonly Rect[];
}) {
  const at = (line: (typeof limits)[number]): number | null => {
    const y = line && heightAt(line, sheet.right - 10 / sheet.scaleX);
    return y === null ? null : sheet.y(y);
  };
  const [near, far, middle] = [at(limits[0]), at(limits[1]), at(plane)];
  const stop = fStop(station.aperture);
  const inside = (y: number | null): y is number => y !== null && y > 30 && y < height - 12;
  if (!inside(near) || !inside(far)) return null;
  const nearAbove = near < far;
  const [up, down] = nearAbove ? [near, far] : [far, near];
  const [above, below] = nearAbove ? ['near', 'far'] : ['far', 'near'];
  const names: { words: string; y: number; strong?: boolean }[] =
    Math.abs(up - down) < THIN_PX
      ? [{ words: `near and far limit at ${stop}`, y: down + 18 }]
      : [
          { words: `${above} limit at ${stop}`, y: up - 8 },
          { words: `${below} limit at ${stop}`, y: down + 17 },
        ];
  if (inside(middle) && Math.abs(up - down) > 46) {
    names.push({ words: 'plane of sharp focus', y: middle - 5, strong: true });
  }
  return (
    <g aria-hidden className="text-within">
      {names
        .filter(({ words, y }) => {
          const rect = {
            left: width - 12 - words.length * 6.6,
            right: width,
            top: y - 12,
            bottom: y + 4,
          };
          // The names of marks come first.
          return !taken.some((each) => overlap(each, rect));
        })
        .map(({ words, y, strong }) => (
          <text
            key={words}
            x={width - 12}
            y={y}
            textAnchor="end"
            className={strong ? 'halo font-semibold' : 'halo'}
            fill="currentColor"
          >
            {words}
          </text>
        ))}
    </g>
  );
}

/** Limits nearer to each other than this share one name. */
const THIN_PX = 28;

/** The three planes that share one line, drawn when the camera is looked at. */
export function Meeting({
  section: { sensor, meeting, axis, plane },
  sheet,
  reach,
  room,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
  room: { width: number; height: number };
}) {
  const [a, b] = sensor;
  const size = Math.hypot(b.x - a.x, b.y - a.y);
  const up = { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
  const across = { x: -axis.y, y: axis.x };
  const line = (p: Point, d: Point): { from: Point; to: Point } => ({
    from: { x: p.x - d.x * 9 * reach, y: p.y - d.y * 9 * reach },
    to: { x: p.x + d.x * 9 * reach, y: p.y + d.y * 9 * reach },
  });
  const whole = plane && ends(plane, null, reach);
  return (
    <g aria-hidden fill="none" className="stroke-quiet" strokeDasharray="2 4">
      <Dashes {...{ sheet, room }} {...line(a, up)} />
      <Dashes {...{ sheet, room }} {...line({ x: 0, y: 0 }, across)} />
      {meeting && whole && <Dashes {...{ sheet, room }} from={whole[0]} to={whole[1]} />}
      {meeting && (
        <g strokeDasharray="none">
          <circle cx={sheet.x(meeting.x)} cy={sheet.y(meeting.y)} r={4} className="fill-paper" />
          <text
            x={sheet.x(meeting.x) + 10}
            y={sheet.y(meeting.y) + 4}
            className="halo fill-quiet stroke-none"
          >
            all three planes meet
          </text>
        </g>
      )}
    </g>
  );
}

/** A place of the plane that is in sight, on the way from the lens to the right edge. */
function gripOn(plane: Line, sheet: SectionSheet, width: number, height: number): Point | null {
  for (const share of [0.62, 0.5, 0.75, 0.4, 0.3, 0.85, 0.2]) {
    const x = sheet.left + share * (sheet.right - sheet.left);
    const y = heightAt(plane, x);
    if (y === null) break;
    const py = sheet.y(y);
    if (x > 0 && py > 24 && py < height - 24) return { x, y };
  }
  const x = plane.k / plane.nx;
  const inSight = Math.abs(plane.nx) > 1e-12 && sheet.x(x) > 0 && sheet.x(x) < width;
  return inSight ? { x, y: 0 } : null;
}

/** Grip on the plane: moving it focuses, and it swings about the hinge. */
export function PlaneHandle({
  section,
  sheet,
  reach,
  shared,
  width,
  height,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
  shared: Shared;
  width: number;
  height: number;
}) {
  const plane = section.plane!;
  const [from, to] = ends(plane, section.hinge, reach).map(({ x, y }) => ({
    x: sheet.x(x),
    y: sheet.y(y),
  })) as [Point, Point];
  // What can be taken hold of ends with the sheet, or it would lie over all the page.
  const held = onSheet([from, to], width, height);
  const grip = gripOn(plane, sheet, width, height);
  if (!grip) return null;
  return (
    <Handle
      {...shared}
      step={Math.max(0.001, 0.01 * Math.abs(section.aheadM ?? 10))}
      label="Plane of sharp focus"
      value={section.aheadM ?? 0}
      valueText={
        section.aheadM === null
          ? 'at or past infinity straight ahead'
          : `${fixed(section.aheadM, 3)} m straight ahead`
      }
      write={(from, dx, dy) => {
        // From where the hand took hold; what is drawn now has moved already.
        const plane = sectionOf(from, section.kind).plane;
        const at = plane && gripOn(plane, sheet, width, height);
        return (at && focusedThrough(from, section.kind, { x: at.x + dx, y: at.y + dy })) ?? from;
      }}
    >
      {held && (
        <path
          d={`M${held[0].x},${held[0].y}L${held[1].x},${held[1].y}`}
          stroke="transparent"
          strokeWidth={18}
        />
      )}
      <g transform={`translate(${sheet.x(grip.x)} ${sheet.y(grip.y)})`}>
        <rect
          x={-7}
          y={-7}
          width={14}
          height={14}
          transform="rotate(45)"
          className="fill-paper stroke-within"
          strokeWidth={2.25}
        />
      </g>
    </Handle>
  );
}
