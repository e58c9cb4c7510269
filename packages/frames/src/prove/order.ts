import type { Xy } from './plan.js';

/** Which file is which planned frame, by where files lie on each other. */

export interface Edge {
  readonly i: number;
  readonly j: number;
  /** Middle of j from that of i, share of the frame's width, y up. */
  readonly dx: number;
  readonly dy: number;
  readonly alike: number;
  /** Shared part of a frame. */
  readonly share: number;
}

export interface Assigned {
  /** For each file the planned frame, counted from 0; null where it is none. */
  readonly frameOf: readonly (number | null)[];
  readonly aside: readonly { readonly file: number; readonly why: string }[];
}

/** Two files that share so much, and are so alike, are one frame twice. */
const TWICE_SHARE = 0.94;
const TWICE_ALIKE = 0.6;
/** A file belongs to a place it is nearer to than this part of the way to the next. */
const NEAR = 0.45;

const distance = (a: Xy, b: Xy): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Places of files that hang together, from the first of each. */
function groupsOf(files: readonly number[], edges: readonly Edge[]): Map<number, Xy>[] {
  const waiting = new Set(files);
  const groups: Map<number, Xy>[] = [];
  const best = [...edges].sort((p, q) => q.alike - p.alike);
  for (const start of files) {
    if (!waiting.delete(start)) continue;
    const group = new Map<number, Xy>([[start, { x: 0, y: 0 }]]);
    for (;;) {
      const next = best.find(({ i, j }) => group.has(i) !== group.has(j) && (waiting.has(i) || waiting.has(j))); // prettier-ignore
      if (!next) break;
      const { i, j, dx, dy } = next;
      const [known, fresh, sign] = group.has(i) ? [i, j, 1] : [j, i, -1];
      const from = group.get(known)!;
      group.set(fresh, { x: from.x + sign * dx, y: from.y + sign * dy });
      waiting.delete(fresh);
    }
    groups.push(group);
  }
  return groups.sort((p, q) => q.size - p.size);
}

interface Fit {
  readonly frames: Map<number, number>;
  readonly worth: number;
}

/** A group of files moved by a step: which places they come to lie on, and how well. */
function laidOn(
  group: ReadonlyMap<number, Xy>,
  step: Xy,
  places: readonly Xy[],
  free: ReadonlySet<number>,
  near: number,
): Fit {
  const frames = new Map<number, number>();
  const left = new Set(free);
  let off = 0;
  for (const [file, { x, y }] of group) {
    const moved = { x: x + step.x, y: y + step.y };
    const far = (place: number): number => distance(moved, places[place]!);
    const nearest = [...left].reduce((best, each) => (best < 0 || far(each) < far(best) ? each : best), -1); // prettier-ignore
    if (nearest < 0 || far(nearest) > near) continue;
    frames.set(file, nearest);
    left.delete(nearest);
    off += far(nearest) / near;
  }
  // Of ways that fit as well, the one that keeps files in the order of shooting.
  const order = [...frames].sort(([p], [q]) => p - q).map(([, each]) => each);
  const turns = order.filter((each, k) => k > 0 && each < order[k - 1]!).length;
  return { frames, worth: frames.size - 0.2 * (off / Math.max(1, frames.size)) - 0.01 * turns };
}

/** The best way to lay a group of files on places that are still free. */
function fitGroup(
  group: ReadonlyMap<number, Xy>,
  places: readonly Xy[],
  free: ReadonlySet<number>,
  near: number,
): Fit {
  let best: Fit = { frames: new Map(), worth: 0 };
  for (const [file, at] of group) {
    for (const frame of free) {
      const step = { x: places[frame]!.x - at.x, y: places[frame]!.y - at.y };
      const fit = laidOn(group, step, places, free, near);
      // The nearer a file's number is to its frame's, the likelier.
      const worth = fit.worth - 0.0001 * Math.abs(file - frame);
      if (worth > best.worth + 1e-12) best = { ...fit, worth };
    }
  }
  return best;
}

/**
 * @param places of planned frames, share of the frame's width, y up
 * @param count of files, in the order of their times and names
 */
export function assigned(count: number, edges: readonly Edge[], places: readonly Xy[]): Assigned {
  const aside: { file: number; why: string }[] = [];
  const twice = new Map<number, number>();
  for (const { i, j, share, alike } of edges) {
    const [first, second] = [Math.min(i, j), Math.max(i, j)];
    if (share > TWICE_SHARE && alike > TWICE_ALIKE && !twice.has(first) && !twice.has(second)) twice.set(second, first); // prettier-ignore
  }
  for (const [file, of] of twice) aside.push({ file, why: `doubled:${of}` });
  const files = Array.from({ length: count }, (_, i) => i).filter((i) => !twice.has(i));
  const own = edges.filter(({ i, j }) => !twice.has(i) && !twice.has(j));
  let spacing = 1;
  places.forEach((a, i) => {
    for (let j = i + 1; j < places.length; j++)
      spacing = Math.min(spacing, distance(a, places[j]!));
  });
  const free = new Set(places.map((_, i) => i));
  const frameOf: (number | null)[] = Array.from({ length: count }, () => null);
  const loose: number[] = [];
  for (const group of groupsOf(files, own)) {
    if (group.size === 1) {
      for (const each of group.keys()) loose.push(each);
      continue;
    }
    const { frames } = fitGroup(group, places, free, NEAR * spacing);
    for (const [file] of group) {
      const frame = frames.get(file);
      if (frame === undefined) {
        aside.push({ file, why: 'elsewhere' });
        continue;
      }
      frameOf[file] = frame;
      free.delete(frame);
    }
  }
  // What overlaps nothing, a sky say, takes the places that are left when there are as many of both;
  // where nothing overlaps at all, the order is all there is.
  const open = [...free].sort((a, b) => a - b);
  const late = loose.sort((a, b) => a - b);
  for (const [k, file] of late.entries()) {
    const inTurn = open.length === late.length || late.length === count;
    if (inTurn && k < open.length) frameOf[file] = open[k]!;
    else aside.push({ file, why: 'apart' });
  }
  return { frameOf, aside };
}
