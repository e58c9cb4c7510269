import { fStop, mm, trimmed } from '../words/format.js';
import { boardWords } from '../words/rig-problems.js';
import { rigProblems, type RigProblem } from '../rig/problems/index.js';
import type { ChainPart } from '../document/station.js';
import { chainPartFrom, filterFrom, goesInChain, type Stored } from './assemble.js';
import { rigStation, type WholeRig } from './rig-document.js';
import { tried, type Way } from '../ways/way.js';
import type { KitItemOf } from './schema.js';
import { rounded } from '../words/rounded.js';

/** One change of a rig that takes a problem away; tried before it is offered. */
export type Cure = Way<WholeRig>;

const MOST = 4;
/** Adapters this close in thickness serve alike: an infinity stop has as much play. */
const THICKNESS_PLAY_MM = 0.05;

/** What could be done; the price is known once it was tried. */
type Change = Pick<Cure, 'title' | 'after'>;

const problemsOf = (rig: WholeRig): RigProblem[] => rigProblems(rigStation(rig));

const withPart = (rig: WholeRig, at: number, part: ChainPart, replace: boolean): WholeRig => ({
  ...rig,
  chain: [...rig.chain.slice(0, at), part, ...rig.chain.slice(at + (replace ? 1 : 0))],
});

type ChainItem = Stored<KitItemOf<'adapter' | 'multiplier' | 'board' | 'camera'>>;

const chainItems = (kit: readonly Stored[]): ChainItem[] =>
  kit.filter((stored) => goesInChain(stored.document)) as ChainItem[];

/** Puts a board where boards go: in place of the one there is, else before the bellows. */
function withBoard(rig: WholeRig, board: ChainPart): WholeRig {
  const there = rig.chain.findIndex((part) => part.kind === 'board');
  if (there >= 0) return withPart(rig, there, board, true);
  const camera = rig.chain.findIndex((part) => part.kind === 'view_camera');
  return withPart(rig, Math.max(0, camera), board, false);
}

function boards(rig: WholeRig, [least, most]: readonly [number, number], kit: readonly Stored[]) {
  const fits = (offset: number): boolean => offset >= least - 1e-9 && offset <= most + 1e-9;
  const owned = chainItems(kit)
    .flatMap((stored) =>
      stored.document.kind === 'board' && fits(stored.document.offset_mm)
        ? [{ stored, offset: stored.document.offset_mm }]
        : [],
    )
    .sort((a, b) => Math.abs(a.offset) - Math.abs(b.offset))
    .map(({ stored }): Change => ({
      title: `Put in “${stored.document.name}” from the kit`,
      after: withBoard(rig, chainPartFrom(stored)),
    }));
  const plain = [-10, -15, -20, -25, -30, 10, 20, 35, 50, 75, 100, 150, 200]
    .filter(fits)
    .slice(0, 1)
    .map((offset): Change => ({
      title: `Put in ${boardWords(offset)}`,
      after: withBoard(rig, { kind: 'board', offset_mm: offset }),
    }));
  return [...owned, ...plain];
}

const alike = (a: string | undefined, b: string | undefined): boolean =>
  !a?.trim() || !b?.trim() || a.trim().toLowerCase() === b.trim().toLowerCase();

/** Parts of the kit whose two mounts fit a joint. */
function joiners(rig: WholeRig, joint: number, kit: readonly Stored[]): Change[] {
  const front = joint === 0 ? rig.lens.mount : rig.chain[joint - 1]?.rear_mount;
  const rear = joint === rig.chain.length ? rig.back.mount : rig.chain[joint]?.front_mount;
  if (!front || !rear) return [];
  return chainItems(kit).flatMap((stored): Change[] => {
    const { document } = stored;
    if (!document.front_mount || !document.rear_mount) return [];
    if (!alike(document.front_mount, front) || !alike(document.rear_mount, rear)) return [];
    return [
      {
        title: `Put in “${document.name}” from the kit`,
        after: withPart(rig, joint, chainPartFrom(stored), false),
      },
    ];
  });
}

function adapters(
  rig: WholeRig,
  { joint, code }: RigProblem,
  thicknessMm: number,
  kit: readonly Stored[],
): Change[] {
  const at = joint ?? rig.chain.length;
  const there = rig.chain[at];
  const replace = there?.kind === 'adapter' && code !== 'mount_mismatch';
  const owned = chainItems(kit).flatMap((stored): Change[] => {
    const { document } = stored;
    if (document.kind !== 'adapter') return [];
    if (Math.abs(document.thickness_mm - thicknessMm) > THICKNESS_PLAY_MM) return [];
    return [
      {
        title: `Put in “${document.name}” from the kit`,
        after: withPart(rig, at, chainPartFrom(stored), replace),
      },
    ];
  });
  const faces = {
    ...(rig.lens.mount ? { front_mount: rig.lens.mount } : {}),
    ...(rig.back.mount ? { rear_mount: rig.back.mount } : {}),
  };
  const plain: Change = {
    title: `Put in an adapter of ${mm(thicknessMm, 2)}`,
    after: withPart(
      rig,
      at,
      replace
        ? { ...there, thickness_mm: rounded(thicknessMm, 4) }
        : {
            kind: 'adapter',
            thickness_mm: rounded(thicknessMm, 4),
            ...(rig.chain.length === 0 ? faces : {}),
          },
      replace,
    ),
  };
  return [...owned, plain];
}

function filters(rig: WholeRig, kit: readonly Stored[]): Change[] {
  const { filter: _, ...lens } = rig.lens;
  const owned = kit.flatMap((stored): Change[] => {
    if (stored.document.kind !== 'filter') return [];
    const made = filterFrom(stored as Stored<KitItemOf<'filter'>>, rig.lens);
    if (!made.ok) return [];
    return [
      {
        title: `Use “${made.value.name ?? stored.document.name}”`,
        after: { ...rig, lens: { ...rig.lens, filter: made.value } },
      },
    ];
  });
  return [...owned, { title: 'Take the filter off', after: { ...rig, lens } }];
}

function changesFor(rig: WholeRig, problem: RigProblem, kit: readonly Stored[]): Change[] {
  const { want, code, joint } = problem;
  if (want?.kind === 'board') return boards(rig, want.offsetMm, kit);
  const joined = code === 'mount_mismatch' && joint !== null ? joiners(rig, joint, kit) : [];
  if (want?.kind === 'adapter')
    return [...joined, ...adapters(rig, problem, want.thicknessMm, kit)];
  if (joined.length > 0) return joined;
  if (code === 'ring_cuts') return filters(rig, kit);
  if (code === 'iris_stuck' && rig.aperture !== undefined && rig.aperture !== rig.lens.f_min) {
    return [
      {
        title: `Plan at ${fStop(rig.lens.f_min)}`,
        after: { ...rig, aperture: rig.lens.f_min },
      },
    ];
  }
  if (code === 'circle_small' || code === 'no_movement') {
    return rig.lens.circle
      .filter((entry) => entry.f_number > (rig.aperture ?? rig.lens.f_min))
      .map((entry) => ({
        title: `Stop down to f/${trimmed(entry.f_number, 1)}`,
        after: { ...rig, aperture: entry.f_number },
      }));
  }
  return [];
}

const stopsIn = (problems: readonly RigProblem[]): number =>
  problems.filter(({ severity }) => severity === 'stop').length;

/** A problem that keeps the rig from working weighs more than any number of remarks. */
const STOP_COST = 100;

/** What one press could do about a problem, best first; parts of the kit are searched for it. */
export function curesFor(rig: WholeRig, problem: RigProblem, kit: readonly Stored[]): Cure[] {
  const before = stopsIn(problemsOf(rig));
  const leftBy = new Map<WholeRig, RigProblem[]>();
  const left = (after: WholeRig): RigProblem[] => {
    const known = leftBy.get(after) ?? problemsOf(after);
    leftBy.set(after, known);
    return known;
  };
  const cures = (after: WholeRig): boolean =>
    stopsIn(left(after)) <= before &&
    !left(after).some(({ code, joint }) => code === problem.code && joint === problem.joint);
  const changes = changesFor(rig, problem, kit);
  const drafts = changes
    .filter(({ title }, i) => changes.findIndex((each) => each.title === title) === i)
    .map(({ title, after }) => ({ id: title, title, says: [], price: '', cost: 0, after }));
  return tried(drafts, {
    cures,
    priced: (draft) => ({ ...draft, ...priceOf(left(draft.after)) }),
    most: MOST,
    anyPrice: true,
  }).map(({ id, title, price, after }) => ({ id, title, detail: price, after }));
}

const priceOf = (left: readonly RigProblem[]): { cost: number; price: string } => ({
  cost: stopsIn(left) * STOP_COST + left.length,
  price:
    left.length === 0
      ? 'nothing else is wrong then'
      : `leaves ${left.length === 1 ? 'one remark' : `${left.length} remarks`}`,
});
