import {
  closeFocalLengthMm,
  distanceAt,
  distanceAtMagnificationMm,
  focusingLens,
  focusReach,
  leastDistanceMm,
  magnificationAt,
  throughMultipliers,
  type FocusingLens,
  type Leaned,
  type Multiplier,
  type Reach,
} from '@gangway/optics';
import type { Back, ChainPart, Lens } from './station.js';

/** What a rig is made of; a station is one, and so is an assembly in the kit. */
export interface RigParts {
  readonly lens: Lens;
  readonly chain: readonly ChainPart[];
  readonly back: Back;
}

/** Lengths along the axis between the lens's flange and the sensor, mm. */
export interface Lengths {
  /** Flange to sensor that the lens needs at infinity; null when not given. */
  readonly flangeFocalMm: number | null;
  readonly boardOffsetMm: number;
  /** Everything of fixed length that is neither board nor bellows, the back's register included. */
  readonly fixedMm: number;
  readonly bellows: Extract<ChainPart, { kind: 'view_camera' }> | null;
  /** Least and greatest flange-to-sensor distance; null when a register is missing. */
  readonly flangeToSensorMm: readonly [number, number] | null;
  /** The same beyond what the lens needs at infinity; zero when not known. */
  readonly excessMm: readonly [number, number];
  /**
   * The same as the bare lens would have to be drawn out for it: behind a multiplier of M a length
   * counts for 1/M² (Newton: the magnification there is e/F, F = M f).
   */
  readonly bareExcessMm: readonly [number, number];
}

/** Thickness that counts between flange and sensor. */
export function thicknessOf(part: ChainPart): number {
  switch (part.kind) {
    case 'adapter':
      return part.thickness_mm;
    case 'multiplier':
      return part.replaces_mm ?? 0;
    case 'board':
    case 'view_camera':
      return 0;
  }
}

export function lengthsOf(rig: RigParts): Lengths {
  const lengths = plainLengths(rig);
  return { ...lengths, bareExcessMm: bareExcess(rig, lengths) };
}

/**
 * Where along the chain what is too long or too short stands: bellows make up for all the rest.
 * Without them a multiplier is taken to be made for the lens's register where the lens is mounted on
 * it, else for the body's, and what stands behind it then is extension.
 */
function bareExcess(
  { chain }: RigParts,
  { flangeToSensorMm, excessMm }: Omit<Lengths, 'bareExcessMm'>,
): readonly [number, number] {
  const first = chain.findIndex((part) => part.kind === 'multiplier');
  if (first < 0) return excessMm;
  // Registers not given are taken to meet; an extension still extends.
  const lengthOf = (part: ChainPart): number =>
    part.kind === 'board'
      ? part.offset_mm
      : part.kind === 'adapter' && flangeToSensorMm !== null
        ? part.thickness_mm
        : 0;
  let factor = 1;
  const scales = chain.map((part) => {
    const scale = 1 / factor ** 2;
    if (part.kind === 'multiplier') factor *= part.factor;
    return scale;
  });
  const bellows = chain.findIndex((part) => part.kind === 'view_camera');
  const fitted = chain.slice(0, first).some(({ kind }) => kind !== 'board');
  const last = chain.findLastIndex((part) => part.kind === 'multiplier');
  /** Parts that count differently by where they stand, and what 1 mm of all the others counts. */
  const [from, to, rest] =
    bellows >= 0
      ? [0, chain.length, scales[bellows]!]
      : fitted
        ? [first, chain.length, 1]
        : [0, last, 1 / factor ** 2];
  let [own, scaled] = [0, 0];
  for (let i = from; i < to; i++) {
    own += lengthOf(chain[i]!);
    scaled += lengthOf(chain[i]!) * scales[i]!;
  }
  const least = scaled + (excessMm[0] - own) * rest;
  const drawn = chain.reduce((sum, part, i) => sum + drawOf(part) * scales[i]!, 0);
  return [least, least + drawn];
}

/** How far a part draws out. */
function drawOf(part: ChainPart): number {
  if (part.kind === 'view_camera') return part.bellows_max_mm - part.bellows_min_mm;
  return part.kind === 'adapter' ? (part.extends_mm ?? 0) : 0;
}

function plainLengths({ lens, chain, back }: RigParts): Omit<Lengths, 'bareExcessMm'> {
  const bellows = chain.find((part) => part.kind === 'view_camera') ?? null;
  const boardOffsetMm = chain.reduce(
    (sum, part) => sum + (part.kind === 'board' ? part.offset_mm : 0),
    0,
  );
  const between = chain.reduce((sum, part) => sum + thicknessOf(part), 0);
  const fixedMm = between + (back.register_mm ?? 0);
  const drawsMm = chain.reduce(
    (sum, part) => sum + (part.kind === 'adapter' ? (part.extends_mm ?? 0) : 0),
    0,
  );
  const own = lens.flange_focal_mm ?? lens.register_mm ?? null;
  if (bellows) {
    // A lens of ordinary design has its flange near its rear principal point.
    const needed = own ?? lens.focal_length_mm;
    const ends: [number, number] = [
      bellows.bellows_min_mm + boardOffsetMm + fixedMm,
      bellows.bellows_max_mm + boardOffsetMm + fixedMm + drawsMm,
    ];
    return {
      flangeFocalMm: needed,
      boardOffsetMm,
      fixedMm,
      bellows,
      flangeToSensorMm: ends,
      excessMm: [ends[0] - needed, ends[1] - needed],
    };
  }
  const rigid = (lens.register_mm ?? own) as number | null;
  if (rigid === null || back.register_mm === undefined) {
    // Registers not given are taken to meet; an extension still extends.
    const excess = boardOffsetMm;
    return {
      flangeFocalMm: rigid,
      boardOffsetMm,
      fixedMm,
      bellows: null,
      flangeToSensorMm: null,
      excessMm: [excess, excess + drawsMm],
    };
  }
  const there = fixedMm + boardOffsetMm;
  return {
    flangeFocalMm: rigid,
    boardOffsetMm,
    fixedMm,
    bellows: null,
    flangeToSensorMm: [there, there + drawsMm],
    excessMm: [there - rigid, there - rigid + drawsMm],
  };
}

/**
 * Whether the electrical contacts reach from the body to the lens. Bellows carry none unless they
 * are said to; a lens straight on a body speaks to it unless that is said to have none.
 */
export function contactsKnown({ chain, back }: RigParts): 'yes' | 'no' | 'unknown' {
  const parts = chain.filter(({ kind }) => kind !== 'board') as Exclude<
    ChainPart,
    { kind: 'board' }
  >[];
  const broken = parts.some(
    ({ kind, contacts }) => contacts === false || (kind === 'view_camera' && contacts !== true),
  );
  if (broken || back.contacts === false) return 'no';
  const through = parts.every(({ contacts }) => contacts === true);
  return parts.length === 0 || (through && back.contacts === true) ? 'yes' : 'unknown';
}

/** The same where what is not known is taken to be there. */
export const contactsReach = (rig: RigParts): boolean => contactsKnown(rig) !== 'no';

const breaksWire = (rig: RigParts): boolean => rig.lens.focus_by === 'wire' && !contactsReach(rig);

/** What the lens's own focusing adds to the rig's. */
function ownFocusing(rig: RigParts, lengths: Lengths): Parameters<typeof focusReach>[2] {
  const { lens } = rig;
  if (lens.focus_by === 'bellows' || breaksWire(rig)) return 'none';
  if (lens.close_focus) {
    const { distance_mm: distance, magnification } = lens.close_focus;
    const acting = closeFocalLengthMm(distance, magnification);
    const f = lens.focal_length_mm;
    // More than the engraved focal length is no longer lens: it is the gap between its two
    // principal points, as in a retrofocus design.
    return acting <= f
      ? { focalLengthMm: acting, magnification, gapMm: 0 }
      : {
          focalLengthMm: f,
          magnification,
          gapMm: distance - distanceAtMagnificationMm(f, magnification),
        };
  }
  return lengths.bellows ? 'none' : 'unknown';
}

/** Index of the part that carries the movements; −1: the lens does, or nothing says. */
export const movementCarrier = (chain: readonly ChainPart[]): number =>
  chain.findLastIndex(
    (part) => part.kind === 'view_camera' || (part.kind === 'adapter' && part.movement),
  );

const factorOf = (chain: readonly ChainPart[]): number =>
  chain.reduce((all, part) => (part.kind === 'multiplier' ? all * part.factor : all), 1);

/** Factor of the multipliers before the movements. */
const combinedOf = (chain: readonly ChainPart[]): number =>
  factorOf(chain.slice(0, movementCarrier(chain) + 1));

/**
 * Whether the rig is focused by a draw behind a multiplier that is combined with the lens. Distance
 * and magnification are then those of the two together.
 */
function focusesBehind(rig: RigParts): boolean {
  const { chain } = rig;
  const carrier = movementCarrier(chain);
  const draws = chain.findLastIndex(
    (part) =>
      part.kind === 'view_camera' || (part.kind === 'adapter' && (part.extends_mm ?? 0) > 0),
  );
  if (draws < 0 || factorOf(chain.slice(0, Math.min(draws, carrier) + 1)) === 1) return false;
  const bellows = chain[draws]!.kind === 'view_camera';
  return bellows || rig.lens.focus_by === 'bellows' || breaksWire(rig);
}

/**
 * Factor between the magnification of the lens that is focused and that at the movements.
 * @param combined of the multipliers before the movements
 */
export const aheadOfFocus = (rig: RigParts, combined: number): number =>
  combined === 1 || focusesBehind(rig) ? 1 : combined;

/** How near and far the rig focuses, told of the lens that is focused, before any factor behind it. */
export function reachOf(rig: RigParts, lengths: Lengths = lengthsOf(rig)): Reach {
  const own = ownFocusing(rig, lengths);
  const f = rig.lens.focal_length_mm;
  if (!focusesBehind(rig)) return focusReach(f, lengths.bareExcessMm, own);
  const combined = combinedOf(rig.chain);
  const [least, greatest] = lengths.bareExcessMm;
  return focusReach(
    f * combined,
    [least * combined ** 2, greatest * combined ** 2],
    typeof own === 'string'
      ? own
      : {
          focalLengthMm: own.focalLengthMm * combined,
          magnification: own.magnification * combined,
          gapMm: own.gapMm,
        },
  );
}

const asMultipliers = (chain: readonly ChainPart[]): Multiplier[] =>
  chain.flatMap((part) =>
    part.kind === 'multiplier'
      ? [{ factor: part.factor, circleLimitMm: part.circle_limit_mm ?? null }]
      : [],
  );

export interface Multiplied {
  /** Factor of what stands between lens and movements: it makes another lens of the two. */
  readonly combined: number;
  /** Factor of what stands behind the movements: the back acts 1/factor the size. */
  readonly behind: number;
  /** Circle before the movements, after combining and after all clipping, mm. */
  readonly circleMm: number;
}

/** Multipliers on either side of the movements, in order from the lens. */
export function multiplied(chain: readonly ChainPart[], bareCircleMm: number): Multiplied {
  if (!chain.some((part) => part.kind === 'multiplier')) {
    return { combined: 1, behind: 1, circleMm: bareCircleMm };
  }
  const at = movementCarrier(chain);
  const front = throughMultipliers(asMultipliers(chain.slice(0, at + 1)), bareCircleMm);
  const circle = front.bareCircleMm * front.factor;
  const rear = throughMultipliers(asMultipliers(chain.slice(at + 1)), circle);
  return { combined: front.factor, behind: rear.factor, circleMm: rear.bareCircleMm };
}

/** The lens that is focused, as it focuses on this rig. */
export function focusingLensOf(rig: RigParts): FocusingLens {
  const { lens } = rig;
  const f = lens.focal_length_mm;
  if (focusesBehind(rig)) return focusingLens(f * combinedOf(rig.chain), null);
  // Most lenses give no closest setting; what follows is asked hundreds of times a frame.
  if (!lens.close_focus) return focusingLens(f, null);
  const lengths = lengthsOf(rig);
  // Drawn out on a bellows the lens itself stays as it is.
  const breathes = !lengths.bellows && ownFocusing(rig, lengths) !== 'none';
  return focusingLens(
    f,
    breathes
      ? {
          distanceMm: lens.close_focus.distance_mm,
          magnification: lens.close_focus.magnification,
        }
      : null,
    lengths.bellows ? 0 : lengths.bareExcessMm[0],
  );
}

export interface FocusEnds {
  /** Least distance from the sensor that can be given, mm. */
  readonly nearMm: number;
  /** Greatest, Infinity where infinity is reached. */
  readonly farMm: number;
}

/** Ends of the distance scale, lens and back leaned. */
export function focusEnds(rig: RigParts, leaned: Leaned): FocusEnds {
  const reach = reachOf(rig);
  const lens = focusingLensOf(rig);
  const least = leastDistanceMm(lens, leaned);
  /** Straight ahead, with the lens where a straight one has magnification m; null past infinity. */
  const at = (f: number, m: number): { mm: number; m: number } | null => {
    const v = leaned.perMm * f * (1 + m) + leaned.plusMm;
    const there = magnificationAt(f, leaned.axisZ, v);
    return there > 1e-12 ? { mm: distanceAt(f, leaned.axisZ, v), m: there } : null;
  };
  const { greatestM, leastM } = reach;
  const closest =
    greatestM === null ? null : at(lens.close?.focalLengthMm ?? lens.focalLengthMm, greatestM);
  // Past life size a distance no longer tells one setting; the magnification does.
  const nearMm = Math.max(least, closest !== null && closest.m <= 1 ? closest.mm : 0);
  const farthest = leastM > 0 ? at(lens.focalLengthMm, leastM) : null;
  return { nearMm, farMm: Math.max(nearMm, farthest?.mm ?? Infinity) };
}
