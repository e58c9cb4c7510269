import type { RigParts } from './rig-parts.js';
import type { ChainPart } from './station.js';

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
