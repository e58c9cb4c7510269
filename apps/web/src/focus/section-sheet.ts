import type { Line, Point, Section } from '@gangway/station';
import { fitted, type Sheet } from '../drawing/sheet.js';
import { leastOf, mostOf } from '@gangway/station';

/** The whole from the camera on, what is marked alone, or the camera alone. */
export type Zoom = 'scene' | 'marks' | 'camera';

export interface SectionSheet extends Sheet {
  /** How many times larger heights are drawn than lengths; 1 is true to scale. */
  readonly stretch: number;
  /** What lies at the edges of the box, m. */
  readonly right: number;
  readonly left: number;
}

/** What every handle on a sheet is given. */
export interface Shared {
  scale: number;
  scaleUp: number;
  onHold: (held: boolean) => void;
}

interface Extent {
  left: number;
  right: number;
  low: number;
  high: number;
}

const PAD = 34;
/** Flatter scenes than this are drawn with their heights enlarged. */
const FLAT = 3;

function sceneExtent(section: Section): Extent {
  const marks = section.marks.filter(({ infinite }) => !infinite).map(({ at }) => at);
  // What is marked is what is looked at; without marks, everything that stands there.
  const things = marks.length > 0 ? marks : section.outlines.flat();
  const seen = [...section.sensor, ...things, { x: 0, y: 0 }];
  const reach = Math.max(0, ...seen.map(({ x }) => x));
  // With nothing in front, as far as the plane of sharp focus.
  const right = reach > 0.02 ? reach : Math.min(section.aheadM ?? 30, 30) * 1.2;
  const far = section.marks.some(({ infinite }) => infinite) ? right * 1.25 : right;
  const extent: Extent = {
    left: leastOf(seen.map(({ x }) => x)),
    right: far,
    low: leastOf(seen.map(({ y }) => y)),
    high: mostOf(seen.map(({ y }) => y)),
  };
  const across = extent.right - extent.left;
  const { hinge, groundM } = section;
  if (hinge && Math.abs(hinge.y) < 0.6 * across) {
    extent.low = Math.min(extent.low, hinge.y);
    extent.high = Math.max(extent.high, hinge.y);
  }
  if (groundM !== null && groundM > extent.low - 0.15 * across) {
    extent.low = Math.min(extent.low, groundM);
  }
  const room = 0.07 * across;
  return {
    left: extent.left - room,
    right: extent.right + 1.6 * room,
    low: extent.low - room,
    high: extent.high + room,
  };
}

function cameraExtent({ sensor, lensHalfM, hinge }: Section): Extent {
  const back = -leastOf(sensor.map(({ x }) => x));
  const half = Math.max(lensHalfM, ...sensor.map(({ y }) => Math.abs(y))) * 1.6;
  const near = hinge !== null && Math.abs(hinge.y) < 7 * half;
  return {
    left: -1.5 * back,
    right: 2.2 * back,
    low: near ? Math.min(-half, hinge.y * 1.08) : -half,
    high: near ? Math.max(half, hinge.y * 1.08) : half,
  };
}

/** Room around marks that are looked at by themselves, for each length across them. */
const ABOUT_MARKS = 0.3;

function marksExtent(section: Section): Extent {
  const at = section.marks.filter(({ infinite }) => !infinite).map((mark) => mark.at);
  if (at.length === 0) return sceneExtent(section);
  const [xs, ys] = [at.map(({ x }) => x), at.map(({ y }) => y)];
  const whole: Extent = {
    left: leastOf(xs),
    right: mostOf(xs),
    low: leastOf(ys),
    high: mostOf(ys),
  };
  const across = Math.max(whole.right - whole.left, whole.high - whole.low, 0.05 * whole.right);
  const room = ABOUT_MARKS * across;
  return {
    left: whole.left - room,
    right: whole.right + room,
    low: whole.low - room,
    high: whole.high + room,
  };
}

const EXTENTS: Record<Zoom, (section: Section) => Extent> = {
  scene: sceneExtent,
  marks: marksExtent,
  camera: cameraExtent,
};

/** Marks that take no more of the whole than this are looked at by themselves first. */
const HUDDLED = 0.2;

/** What to look at first: the whole, or the marks, where they would lie over one another in it. */
export function firstZoom(section: Section): Zoom {
  const [whole, marks] = [sceneExtent(section), marksExtent(section)];
  const many = section.marks.filter(({ infinite }) => !infinite).length > 1;
  const across = Math.max(marks.right - marks.left, marks.high - marks.low);
  return many && across < HUDDLED * (whole.right - whole.left) ? 'marks' : 'scene';
}

export function sectionSheet(
  section: Section,
  zoom: Zoom,
  width: number,
  height: number,
): SectionSheet {
  const { left, right, low: bottom, high: top } = EXTENTS[zoom](section);
  const sheet = fitted(
    { left, right, bottom, top },
    { width, height },
    { pad: PAD, ...(zoom === 'camera' ? {} : { flat: FLAT }) },
  );
  return {
    ...sheet,
    stretch: sheet.scaleY / sheet.scaleX,
    right: sheet.back(width, 0).x,
    left: sheet.back(0, 0).x,
  };
}

/** A mark whose distance is written at the foot of the sheet. */
export interface Ordinate {
  readonly x: number;
  /** Where its line begins, px from the top. */
  readonly top: number;
  /** From the sensor, as it lies along the sheet, m. */
  readonly m: number;
}

/** Room that one figure wants, px. */
const FIGURE_PX = 62;

/** A figure stands at least so far from where the distances begin, px. */
const ORIGIN_PX = 34;

/**
 * The marks whose distances are told along the foot, from left to right: the farthest and the
 * nearest that are asked for, then what finds room between. Without any, the plane straight ahead.
 */
export function ordinates(
  { sensor: [a, b], marks, aheadM }: Section,
  sheet: SectionSheet,
  width: number,
): Ordinate[] {
  const origin = (a.x + b.x) / 2;
  const asked = marks.filter(({ must, infinite }) => must !== 'free' && !infinite);
  const points = asked.length > 0 ? asked.map(({ at }) => at) : [{ x: aheadM ?? NaN, y: 0 }];
  const all = points
    .map(({ x, y }) => ({ x: sheet.x(x), top: sheet.y(y), m: x - origin }))
    .filter(({ x, m }) => m > 0 && x > Math.max(16, sheet.x(origin)) + ORIGIN_PX && x < width)
    .sort((p, q) => p.x - q.x);
  const kept: Ordinate[] = [];
  for (const each of [...all.slice(-1), ...all]) {
    if (kept.every(({ x }) => Math.abs(x - each.x) >= FIGURE_PX)) kept.push(each);
  }
  return kept.sort((p, q) => p.x - q.x);
}

/** Far past any sheet, in sheet widths. */
const FAR = 30;

/** A direction along a line, ahead where it has one, else up; of two, the one nearer to another's. */
export function along({ nx, ny }: Line, like?: Point): Point {
  const size = Math.hypot(nx, ny) || 1;
  const d = { x: ny / size, y: -nx / size };
  const turn = like ? d.x * like.x + d.y * like.y : Math.abs(d.x) > 1e-12 ? d.x : d.y;
  return turn < 0 ? { x: -d.x, y: -d.y } : d;
}

/** The foot of the line nearest to the lens centre. */
const foot = ({ nx, ny, k }: Line): Point => {
  const size = nx * nx + ny * ny;
  return { x: (nx * k) / size, y: (ny * k) / size };
};

/** Ends of a line on a sheet: from the hinge ahead, or across the whole sheet without one. */
export function ends(
  line: Line,
  hinge: Point | null,
  reach: number,
  like?: Point,
): readonly [Point, Point] {
  const d = along(line, like);
  const from = hinge ?? foot(line);
  const far = FAR * reach;
  const back = hinge ? 0 : far;
  return [
    { x: from.x - d.x * back, y: from.y - d.y * back },
    { x: from.x + d.x * far, y: from.y + d.y * far },
  ];
}

/**
 * The part of a way that lies on a sheet, px; null where none does.
 * Source: Liang and Barsky (1984), from memory.
 */
export function onSheet(
  [from, to]: readonly [Point, Point],
  width: number,
  height: number,
): readonly [Point, Point] | null {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  let [enter, leave] = [0, 1];
  for (const [by, room] of [
    [-dx, from.x],
    [dx, width - from.x],
    [-dy, from.y],
    [dy, height - from.y],
  ] as const) {
    if (by === 0 && room < 0) return null;
    if (by < 0) enter = Math.max(enter, room / by);
    if (by > 0) leave = Math.min(leave, room / by);
  }
  const at = (t: number): Point => ({ x: from.x + t * dx, y: from.y + t * dy });
  return enter > leave ? null : [at(enter), at(leave)];
}

/** Where a line crosses a distance ahead. */
export const heightAt = ({ nx, ny, k }: Line, x: number): number | null =>
  Math.abs(ny) < 1e-12 * Math.abs(nx) ? null : (k - nx * x) / ny;

export interface Named {
  readonly x: number;
  readonly y: number;
  readonly chars: number;
}

const LINE_PX = 34;
const TOP_PX = 46;
const CHAR_PX = 6.6;

export interface NamePlace {
  /** How far it is raised above its usual place, px. */
  readonly up: number;
  /** On the right of its mark, where another mark stands close above it. */
  readonly beside: boolean;
}

export interface Rect {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** The room that a mark and its name take. */
export function nameRect({ x, y, chars }: Named, { up, beside }: NamePlace): Rect {
  const half = (chars * CHAR_PX) / 2;
  return beside
    ? { left: x - 18, right: x + 14 + 4 * half, top: y - 18, bottom: y + 18 }
    : { left: x - half, right: x + half, top: y - up - 42, bottom: y + 18 };
}

export const overlap = (a: Rect, b: Rect): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

/** Where the names of marks go, so that none lies over another, or over another's mark. */
export function namePlaces(names: readonly Named[]): NamePlace[] {
  const written: { left: number; right: number; y: number }[] = [];
  const order = names.map((_, i) => i).sort((a, b) => names[b]!.y - names[a]!.y);
  const places = names.map((): NamePlace => ({ up: 0, beside: false }));
  for (const i of order) {
    const { x, y, chars } = names[i]!;
    const crowded = names.some(
      (other, j) => j !== i && Math.abs(other.x - x) < 45 && other.y < y && y - other.y < 60,
    );
    if (crowded) {
      places[i] = { up: 0, beside: true };
      continue;
    }
    const half = (chars * CHAR_PX) / 2;
    const free = (up: number): boolean =>
      written.every(
        (other) =>
          x + half < other.left || x - half > other.right || Math.abs(y - up - other.y) >= LINE_PX,
      );
    let up = 0;
    while (!free(up) && up < 6 * LINE_PX) up += LINE_PX / 2;
    // Raised off the sheet it could not be read.
    if (up > 0 && y - up < TOP_PX) {
      places[i] = { up: 0, beside: true };
      continue;
    }
    places[i] = { up, beside: false };
    written.push({ left: x - half, right: x + half, y: y - up });
  }
  return places;
}
