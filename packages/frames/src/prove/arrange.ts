import type { Plane } from '../planes/plane.js';
import { quarterTurned } from '../planes/plane.js';
import type { FrameFile } from '../planes/source.js';
import { breathe, type Work } from '../numbers/work.js';
import { laidOn, partOff, ready, sideFor, type Laid, type Ready } from './coarse.js';
import { assigned, type Edge } from './order.js';
import type { Plan, PlannedFrame, Xy } from './plan.js';
import type { SetAside } from './result.js';

/** A file that was read small. */
export interface Small {
  readonly file: FrameFile;
  /** As the file gives it. */
  readonly plane: Plane;
}

/** A file that is one of the planned frames. */
export interface Placed {
  readonly small: Small;
  readonly planned: PlannedFrame;
  /** Place in the plan's list. */
  readonly index: number;
  /** Clockwise, as the file has to be turned. */
  readonly rotationDeg: number;
  readonly turnedDeg: number;
}

/** How a pair of placed frames lies, roughly: b's middle from a's, full pixels, y down. */
export interface Rough {
  readonly a: number;
  readonly b: number;
  readonly way: Xy;
  readonly sure: boolean;
  /**
   * How far b shows a part of the overlap from where the whole would have it, full pixels, y down.
   * @param at middle of the part on a, from a's middle
   */
  readonly partOff: (at: Xy, sizePx: number) => Xy;
}

export interface Arranged {
  readonly placed: readonly Placed[];
  readonly rough: readonly Rough[];
  readonly aside: readonly SetAside[];
  readonly orderBy: 'name' | 'overlap';
}

const quartersOf = (deg: number): number => ((Math.round(deg / 90) % 4) + 4) % 4;

/** Small frames made ready once for each way they are turned. */
function readied(smalls: readonly Small[]) {
  const side = sideFor(smalls.map(({ plane }) => plane));
  const made = new Map<string, Ready>();
  return (file: number, quarters: number): Ready => {
    const name = `${file} ${quarters}`;
    let one = made.get(name);
    if (!one) made.set(name, (one = ready(quarterTurned(smalls[file]!.plane, quarters), side)));
    return one;
  };
}

type Readied = ReturnType<typeof readied>;

interface Scale {
  /** Full pixels of a small one. */
  readonly k: number;
  readonly pitchMm: number;
}

/** b's middle from a's as planned, full pixels, y down. */
const plannedWay = (a: PlannedFrame, b: PlannedFrame, pitchMm: number): Xy => ({
  x: (b.xMm - a.xMm) / pitchMm,
  y: -(b.yMm - a.yMm) / pitchMm,
});

/** How parts of an overlap are looked for; nowhere else where the whole is not known. */
function looksFor(a: Ready, b: Ready, laid: Laid, k: number): Rough['partOff'] {
  if (!laid.sure) return () => ({ x: 0, y: 0 });
  return (at, sizePx) => {
    const off = partOff(
      a,
      b,
      { x: at.x / k, y: at.y / k },
      { x: laid.dx, y: laid.dy },
      sizePx / 2 / k,
    );
    return { x: off.x * k, y: off.y * k };
  };
}

/** Farther from the plan than this part of a frame, a pair lies otherwise than planned. */
const FAR = 0.12;

/** Files in their order as the plan's frames; null where they do not fit one to one. */
async function inOrder(
  smalls: readonly Small[],
  plan: Plan,
  get: Readied,
  { k, pitchMm }: Scale,
  work: Work,
): Promise<Arranged | null> {
  if (smalls.length !== plan.frames.length) return null;
  const sizes = smalls.map(({ file: { widthPx, heightPx } }, i) =>
    quartersOf(plan.frames[i]!.rotationDeg) % 2 === 0 ? [widthPx, heightPx] : [heightPx, widthPx],
  );
  const wide = plan.widthMm >= plan.heightMm;
  if (sizes.some(([w, h]) => plan.widthMm !== plan.heightMm && w! >= h! !== wide)) return null;
  const rough: Rough[] = [];
  let against = 0;
  for (const { a, b } of plan.pairs) {
    await breathe(work);
    const [p, q] = [plan.frames[a]!, plan.frames[b]!];
    const way = plannedWay(p, q, pitchMm);
    const [one, other] = [get(a, quartersOf(p.rotationDeg)), get(b, quartersOf(q.rotationDeg))];
    const laid = laidOn(one, other, { x: way.x / k, y: way.y / k });
    const size = Math.max(smalls[a]!.file.widthPx, smalls[a]!.file.heightPx);
    const found = { x: laid.dx * k, y: laid.dy * k };
    if (laid.sure && Math.hypot(found.x - way.x, found.y - way.y) > FAR * size) against++;
    rough.push({ a, b, way: laid.sure ? found : way, sure: laid.sure, partOff: looksFor(one, other, laid, k) }); // prettier-ignore
  }
  // A frame that none of its neighbours knows may be another, or turned.
  const known = new Set(rough.flatMap(({ a, b, sure }) => (sure ? [a, b] : [])));
  if (against > 0 || known.size < smalls.length) return null;
  const placed = smalls.map((small, i) => ({
    small,
    planned: plan.frames[i]!,
    index: i,
    rotationDeg: plan.frames[i]!.rotationDeg,
    turnedDeg: 0,
  }));
  return { placed, rough, aside: [], orderBy: 'name' };
}

/** Every file against every other, turned where only that fits. */
async function edgesOf(
  count: number,
  get: Readied,
  k: number,
  width: number,
  quartersAtFirst: readonly number[],
  work: Work,
) {
  const quarters = [...quartersAtFirst];
  const edges: Edge[] = [];
  const lay = (i: number, qi: number, j: number, qj: number): Laid => laidOn(get(i, qi), get(j, qj), null); // prettier-ignore
  const add = (i: number, j: number, { dx, dy, alike, share }: Laid): void => {
    edges.push({ i, j, dx: (dx * k) / width, dy: (-dy * k) / width, alike, share });
  };
  const placed: number[] = [0];
  const waiting = new Set(Array.from({ length: count - 1 }, (_, i) => i + 1));
  // Plain first; what then hangs loose is tried turned.
  for (const turns of [[0], [0, 1, 3, 2]]) {
    for (let grew = true; grew;) {
      grew = false;
      for (const j of [...waiting]) {
        await breathe(work);
        const tried = turns.map((turn) => {
          const qj = (quarters[j]! + turn) % 4;
          return { qj, laid: placed.map((i) => ({ i, laid: lay(i, quarters[i]!, j, qj) })).filter(({ laid }) => laid.sure) }; // prettier-ignore
        });
        const best = tried.reduce((most, each) => (worthOf(each) > worthOf(most) ? each : most));
        if (best.laid.length === 0) continue;
        quarters[j] = best.qj;
        for (const { i, laid } of best.laid) add(i, j, laid);
        placed.push(j);
        waiting.delete(j);
        grew = true;
      }
      // Nothing hangs on the first: another begins a group of its own.
      if (!grew && turns.length > 1 && waiting.size > 0) {
        const [next] = waiting;
        placed.push(next!);
        waiting.delete(next!);
        grew = true;
      }
    }
  }
  return { edges, quarters };
}

const worthOf = ({ laid }: { laid: readonly { laid: Laid }[] }): number =>
  Math.max(0, ...laid.map((each) => each.laid.alike)) + 0.01 * laid.length;

const WHY: Readonly<Record<string, string>> = {
  elsewhere: 'it lies on none of the planned places',
  apart: 'it overlaps none of the others',
};

/** By what overlaps what. */
async function byOverlap(
  smalls: readonly Small[],
  plan: Plan,
  get: Readied,
  scale: Scale,
  work: Work,
): Promise<Arranged> {
  const { k, pitchMm } = scale;
  const count = smalls.length;
  const width = plan.widthMm / pitchMm;
  const wide = plan.widthMm >= plan.heightMm;
  const atFirst = smalls.map(({ file }, i) => {
    const planned = quartersOf(plan.frames[Math.min(i, plan.frames.length - 1)]!.rotationDeg);
    const fileWide = file.widthPx >= file.heightPx;
    const fits = (planned % 2 === 0 ? fileWide : !fileWide) === wide;
    return fits || plan.widthMm === plan.heightMm ? planned : (planned + 1) % 4;
  });
  const { edges, quarters } = await edgesOf(count, get, k, width, atFirst, work);
  const places = plan.frames.map(({ xMm, yMm }) => ({ x: xMm / plan.widthMm, y: yMm / plan.widthMm })); // prettier-ignore
  const { frameOf, aside } = assigned(count, edges, places);
  const placed = frameOf.flatMap((frame, file): Placed[] => {
    if (frame === null) return [];
    const planned = plan.frames[frame]!;
    const beyond = (quarters[file]! - quartersOf(planned.rotationDeg) + 4) % 4;
    return [
      {
        small: smalls[file]!,
        planned,
        index: frame,
        rotationDeg: planned.rotationDeg + 90 * beyond,
        turnedDeg: beyond === 3 ? -90 : 90 * beyond,
      },
    ];
  }); // prettier-ignore
  placed.sort((p, q) => p.index - q.index);
  const at = new Map(placed.map(({ index }, i) => [index, i]));
  const rough = plan.pairs.flatMap(({ a, b }): Rough[] => {
    const [i, j] = [at.get(a), at.get(b)];
    if (i === undefined || j === undefined) return [];
    const [p, q] = [placed[i]!, placed[j]!];
    const way = plannedWay(p.planned, q.planned, pitchMm);
    const of = (each: Placed): Ready => get(smalls.indexOf(each.small), quartersOf(each.rotationDeg)); // prettier-ignore
    const [one, other] = [of(p), of(q)];
    const laid = laidOn(one, other, { x: way.x / k, y: way.y / k });
    const found = laid.sure ? { x: laid.dx * k, y: laid.dy * k } : way;
    return [{ a: i, b: j, way: found, sure: laid.sure, partOff: looksFor(one, other, laid, k) }]; // prettier-ignore
  });
  return {
    placed,
    rough,
    aside: aside.map(({ file, why }) => ({
      file: smalls[file]!.file.name,
      why: WHY[why] ?? `it shows the same as ${smalls[Number(why.split(':')[1])]!.file.name}`,
    })),
    orderBy: 'overlap',
  };
}

/** @param k full pixels of a small one */
export async function arrange(
  smalls: readonly Small[],
  plan: Plan,
  scale: Scale,
  work: Work,
): Promise<Arranged> {
  const get = readied(smalls);
  return (
    (await inOrder(smalls, plan, get, scale, work)) ?? byOverlap(smalls, plan, get, scale, work)
  );
}
