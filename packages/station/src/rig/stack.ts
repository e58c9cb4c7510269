import {
  closeFocalLengthMm,
  distanceAtMagnificationMm,
  focusingLens,
  focusReach,
  leastDistanceMm,
  throughMultipliers,
  type FocusingLens,
  type Multiplier,
  type Reach,
} from '@gangway/optics';
import type { Back, ChainPart, Lens } from '../schema.js';

/** What a rig is made of; a station is one, and so is an assembly in the kit. */
export interface RigParts {
  readonly lens: Lens;
  readonly chain: readonly ChainPart[];
  readonly back: Back;
}

/** Lengths along the axis between the lens's flange and the sensor, mm. */
export interface Stack {
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

export function stackOf({ lens, chain, back }: RigParts): Stack {
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

/** Whether the electrical contacts reach from the body to the lens; unknown counts as yes. */
export const contactsReach = ({ chain, back }: RigParts): boolean =>
  back.contacts !== false &&
  chain.every((part) => part.kind === 'board' || part.contacts !== false) &&
  !chain.some((part) => part.kind === 'view_camera' && part.contacts !== true);

const breaksWire = (rig: RigParts): boolean => rig.lens.focus_by === 'wire' && !contactsReach(rig);

/** What the lens's own focusing adds to the rig's. */
function ownFocusing(rig: RigParts, stack: Stack): Parameters<typeof focusReach>[2] {
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
  return stack.bellows ? 'none' : 'unknown';
}

/** How near and far the rig focuses, before any converter's factor. */
export function reachOf(rig: RigParts, stack: Stack = stackOf(rig)): Reach {
  return focusReach(rig.lens.focal_length_mm, stack.excessMm, ownFocusing(rig, stack));
}

/** Index of the part that carries the movements; −1: the lens does, or nothing says. */
export const movementCarrier = (chain: readonly ChainPart[]): number =>
  chain.findLastIndex(
    (part) => (part.kind === 'adapter' || part.kind === 'view_camera') && part.movement,
  );

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

/** The bare lens as it focuses on this rig. */
export function focusingLensOf(rig: RigParts): FocusingLens {
  const { lens } = rig;
  // Most lenses give no closest setting; what follows is asked hundreds of times a frame.
  if (!lens.close_focus) return focusingLens(lens.focal_length_mm, null);
  const stack = stackOf(rig);
  // Drawn out on a bellows the lens itself stays as it is.
  const breathes = !stack.bellows && ownFocusing(rig, stack) !== 'none';
  return focusingLens(
    lens.focal_length_mm,
    breathes
      ? {
          distanceMm: lens.close_focus.distance_mm,
          magnification: lens.close_focus.magnification,
        }
      : null,
    stack.bellows ? 0 : stack.excessMm[0],
  );
}

export interface FocusEnds {
  /** Least distance from the sensor that can be given, mm. */
  readonly nearMm: number;
  /** Greatest, Infinity where infinity is reached. */
  readonly farMm: number;
}

/** Ends of the distance scale, with the lens leaned so that `axisZ` of its axis lies ahead. */
export function focusEnds(rig: RigParts, axisZ: number): FocusEnds {
  const reach = reachOf(rig);
  const lens = focusingLensOf(rig);
  const least = leastDistanceMm(lens, axisZ);
  const m = reach.greatestM;
  // Past life size a distance no longer tells one setting; the magnification does.
  const closest = m !== null && m > 0 && m <= 1 && reach.closestMm !== null ? reach.closestMm : 0;
  const farthest = reach.leastM > 0 && reach.farthestMm !== null ? reach.farthestMm : Infinity;
  const nearMm = Math.max(least, closest / axisZ);
  return { nearMm, farMm: Math.max(nearMm, farthest / axisZ) };
}
