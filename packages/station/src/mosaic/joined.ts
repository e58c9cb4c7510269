import type { Point } from '@gangway/optics';
import type { Layout, Neighbours } from './layout.js';
import { leastOf } from '@gangway/optics';

/** Two groups of frames that nothing joins, by their nearest frames. */
export interface Gap {
  readonly a: number;
  readonly b: number;
  readonly gapMm: number;
  readonly px: number | null;
}

export interface Joined {
  /** Null where every frame is joined to the rest. */
  readonly gap: Gap | null;
  /** The weakest of the overlaps that hold the frames together; null with one frame, or a gap. */
  readonly weakest: Neighbours | null;
}

/** Least distance between two convex polygons that do not meet: from corners to sides. */
function distanceBetween(one: readonly Point[], other: readonly Point[]): number {
  const toSides = (from: readonly Point[], sides: readonly Point[]): number =>
    leastOf(
      from.flatMap((p) =>
        sides.map((a, i) => {
          const b = sides[(i + 1) % sides.length]!;
          const [dx, dy] = [b.x - a.x, b.y - a.y];
          const t = ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1);
          const held = Math.max(0, Math.min(1, t));
          return Math.hypot(p.x - a.x - held * dx, p.y - a.y - held * dy);
        }),
      ),
    );
  return Math.min(toSides(one, other), toSides(other, one));
}

/**
 * How the frames hang together: joined one after the other by the strongest overlaps there are (a
 * greatest spanning tree), and the weakest of those.
 */
export function joinedOf(layout: Layout): Joined {
  const { frames, pixelPitchMm } = layout;
  if (frames.length < 2) return { gap: null, weakest: null };
  const group = frames.map((_, i) => i);
  const rootOf = (i: number): number => (group[i] === i ? i : (group[i] = rootOf(group[i]!)));
  let [weakest, joins]: [Neighbours | null, number] = [null, 0];
  for (const each of [...layout.shares].sort((p, q) => q.share - p.share)) {
    const [a, b] = [rootOf(each.a), rootOf(each.b)];
    if (a === b) continue;
    group[a] = b;
    weakest = each;
    joins += 1;
  }
  if (joins === frames.length - 1) return { gap: null, weakest };
  const first = rootOf(0);
  let gap: Gap | null = null;
  frames.forEach((one, a) => {
    if (rootOf(a) !== first) return;
    frames.forEach((other, b) => {
      if (rootOf(b) === first) return;
      const gapMm = distanceBetween(one.corners, other.corners);
      if (!gap || gapMm < gap.gapMm) {
        gap = { a, b, gapMm, px: pixelPitchMm === null ? null : gapMm / pixelPitchMm };
      }
    });
  });
  return { gap, weakest: null };
}
