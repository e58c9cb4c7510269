import { circleDiameterMm } from '@gangway/optics';
import type { ChainPart } from '../document/station.js';
import { partTitle } from '../words/names.js';
import type { Rig } from '../kit/rig-document.js';
import { circleTable } from '../optical/measured.js';
import { turnedBack } from '../optical/facts.js';
import { lengthsOf, thicknessOf } from '../document/lengths.js';

/** A part on the bench, in mm ahead of the sensor, seen from the side. */
export interface BenchBlock {
  /** −1 the lens, then the chain in order, then the back. */
  readonly index: number;
  readonly kind: ChainPart['kind'] | 'lens' | 'back';
  readonly name: string;
  readonly frontMm: number;
  readonly rearMm: number;
  /** Half its height as drawn; parts give no outer size, so this follows throat and format. */
  readonly halfMm: number;
  /** What is engraved on it: thickness, factor, draw. */
  readonly words: string;
}

/** The rig laid out along its axis, true to scale; the sensor lies at zero, light comes from above zero. */
export interface Bench {
  readonly blocks: readonly BenchBlock[];
  /** Places between neighbouring parts, joint by joint. */
  readonly jointsMm: readonly number[];
  readonly sensorHalfMm: number | null;
  readonly flangeMm: number | null;
  /** Where the picture of infinity lies with the lens as it stands; null when no register is known. */
  readonly infinityMm: number | null;
  readonly protrusion: {
    readonly fromMm: number;
    readonly toMm: number;
    readonly halfMm: number;
  } | null;
  readonly bellows: {
    readonly rearMm: number;
    readonly leastMm: number;
    readonly greatestMm: number;
    readonly drawMm: number;
  } | null;
  readonly frontMm: number;
  readonly behindMm: number;
  readonly halfMm: number;
}

const BODY_BEHIND_MM = 24;
const BOARD_MM = 5;

const lengthOf = (part: ChainPart): number =>
  part.kind === 'multiplier' ? (part.length_mm ?? part.replaces_mm ?? 18) : thicknessOf(part);

const number = (value: number): string => String(Number(value.toFixed(2)));

function wordsOf(part: ChainPart): string {
  switch (part.kind) {
    case 'adapter':
      return `${number(part.thickness_mm)} mm`;
    case 'multiplier':
      return `× ${number(part.factor)}`;
    case 'board':
      return part.offset_mm === 0
        ? 'flat'
        : `${number(Math.abs(part.offset_mm))} mm ${part.offset_mm < 0 ? 'recessed' : 'out'}`;
    case 'view_camera':
      return `${number(part.bellows_min_mm)} to ${number(part.bellows_max_mm)} mm`;
  }
}

/** Draw of the bellows as drawn: where the lens is at infinity, or as near to it as they go. */
function drawOf(rig: Rig): number {
  const camera = rig.chain.find((part) => part.kind === 'view_camera');
  if (!camera) return 0;
  if (!rig.lens) return camera.bellows_min_mm;
  const back = rig.back ?? { width_mm: 36, height_mm: 24, orientation: 'landscape' as const };
  const { flangeFocalMm, boardOffsetMm, fixedMm } = lengthsOf({
    lens: rig.lens,
    chain: rig.chain,
    back,
  });
  const wanted = (flangeFocalMm ?? 0) - boardOffsetMm - fixedMm;
  return Math.min(camera.bellows_max_mm, Math.max(camera.bellows_min_mm, wanted));
}

/** Outer size follows what has to fit through it. */
const halfOf = (part: ChainPart, bodyHalf: number): number => {
  if (part.kind === 'view_camera') return bodyHalf + 12;
  return part.throat_mm === undefined ? 32 : part.throat_mm / 2 + 8;
};

const stepOf = (part: ChainPart, drawMm: number): number =>
  part.kind === 'view_camera' ? drawMm : part.kind === 'board' ? part.offset_mm : lengthOf(part);

interface Stacked {
  readonly blocks: BenchBlock[];
  readonly jointsMm: number[];
  readonly flangeMm: number;
  readonly bellows: Bench['bellows'];
  /** Length that multipliers take without moving the picture of infinity. */
  readonly freeMm: number;
}

/** The chain from the back's flange forward. */
function stacked(rig: Rig, fromMm: number, bodyHalf: number): Stacked {
  const drawMm = drawOf(rig);
  const blocks: BenchBlock[] = [];
  const jointsMm = [fromMm];
  let x = fromMm;
  let bellows: Bench['bellows'] = null;
  let freeMm = 0;
  for (const [index, part] of [...rig.chain.entries()].reverse()) {
    const rearMm = x;
    x += stepOf(part, drawMm);
    if (part.kind === 'view_camera') {
      bellows = { rearMm, leastMm: part.bellows_min_mm, greatestMm: part.bellows_max_mm, drawMm };
    }
    if (part.kind === 'multiplier') freeMm += lengthOf(part) - thicknessOf(part);
    const board = part.kind === 'board';
    blocks.push({
      index,
      kind: part.kind,
      name: partTitle(part),
      // A board is a plate at its lens’s flange, with a well to there or from there.
      frontMm: board ? Math.max(x, rearMm) : x,
      rearMm: board ? Math.min(x - BOARD_MM, rearMm) : rearMm,
      halfMm: halfOf(part, bodyHalf),
      words: wordsOf(part),
    });
    jointsMm.push(x);
  }
  return { blocks, jointsMm, flangeMm: x, bellows, freeMm };
}

function lensBlock(lens: NonNullable<Rig['lens']>, flangeMm: number): BenchBlock {
  const long = Math.max(18, Math.min(160, 0.55 * lens.focal_length_mm + 14));
  const circle = circleDiameterMm(circleTable(lens), lens.f_max);
  return {
    index: -1,
    kind: 'lens',
    name: lens.name?.trim() || 'Lens',
    frontMm: flangeMm + long,
    rearMm: flangeMm,
    halfMm: Math.max(
      lens.focal_length_mm / lens.f_min / 2 + 5,
      Math.min(42, circle * 0.28),
      (lens.filter_thread_mm ?? 0) / 2 + 2,
    ),
    words: `${number(lens.focal_length_mm)} mm f/${number(lens.f_min)}`,
  };
}

function protrusionOf(lens: NonNullable<Rig['lens']>, block: BenchBlock): Bench['protrusion'] {
  const into = lens.rear_protrusion_mm ?? 0;
  if (into === 0) return null;
  return {
    fromMm: block.rearMm,
    toMm: block.rearMm - into,
    halfMm: (lens.rear_diameter_mm ?? block.halfMm * 1.2) / 2,
  };
}

/** Flange to sensor the lens asks for at infinity; null when nothing tells. */
function registerNeeded({ lens, chain, back }: Rig): number | null {
  if (!lens) return null;
  if (back) return lengthsOf({ lens, chain, back }).flangeFocalMm;
  return lens.flange_focal_mm ?? lens.register_mm ?? null;
}

export function benchOf(rig: Rig): Bench {
  const { lens, chain, back } = rig;
  const format = back ? turnedBack(back) : null;
  const bodyHalf = Math.max(30, (format?.heightMm ?? 24) / 2 + 14);
  const { blocks, jointsMm, flangeMm, bellows, freeMm } = stacked(
    rig,
    back?.register_mm ?? 0,
    bodyHalf,
  );
  if (back) {
    blocks.unshift({
      index: chain.length,
      kind: 'back',
      name: back.name?.trim() || 'Back',
      frontMm: back.register_mm ?? 0,
      rearMm: -BODY_BEHIND_MM,
      halfMm: bodyHalf,
      words: `${number(back.width_mm)} × ${number(back.height_mm)} mm`,
    });
  }
  const front = lens ? lensBlock(lens, flangeMm) : null;
  if (front) blocks.push(front);
  const needs = registerNeeded(rig);
  return {
    blocks: blocks.reverse(),
    jointsMm: jointsMm.reverse(),
    sensorHalfMm: format ? format.heightMm / 2 : null,
    flangeMm: lens ? flangeMm : null,
    infinityMm: needs === null ? null : flangeMm - needs - freeMm,
    protrusion: lens && front ? protrusionOf(lens, front) : null,
    bellows,
    frontMm: front?.frontMm ?? flangeMm,
    behindMm: back ? BODY_BEHIND_MM : 0,
    halfMm: Math.max(40, ...blocks.map((block) => block.halfMm)),
  };
}
