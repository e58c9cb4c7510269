import { circleDiameterMm } from '@gangway/optics';
import { circleTable, turnedBack } from '../setup.js';
import { stackOf, thicknessOf } from '../rig/stack.js';
import type { ChainPart } from '../schema.js';
import type { Rig } from './rig-document.js';

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

const KIND_NAMES: Record<ChainPart['kind'], string> = {
  adapter: 'Adapter',
  multiplier: 'Multiplier',
  board: 'Board',
  view_camera: 'Bellows camera',
};

export const partTitle = (part: ChainPart): string => part.name?.trim() || KIND_NAMES[part.kind];

/** Draw of the bellows as drawn: where the lens is at infinity, or as near to it as they go. */
function drawOf(rig: Rig): number {
  const camera = rig.chain.find((part) => part.kind === 'view_camera');
  if (!camera) return 0;
  if (!rig.lens) return camera.bellows_min_mm;
  const back = rig.back ?? { width_mm: 36, height_mm: 24, orientation: 'landscape' as const };
  const { flangeFocalMm, boardOffsetMm, fixedMm } = stackOf({
    lens: rig.lens,
    chain: rig.chain,
    back,
  });
  const wanted = (flangeFocalMm ?? 0) - boardOffsetMm - fixedMm;
  return Math.min(camera.bellows_max_mm, Math.max(camera.bellows_min_mm, wanted));
}

export function benchOf(rig: Rig): Bench {
  const { lens, chain, back } = rig;
  const blocks: BenchBlock[] = [];
  const register = back?.register_mm ?? 0;
  const format = back ? turnedBack(back) : null;
  const sensorHalfMm = format ? format.heightMm / 2 : null;
  const bodyHalf = Math.max(30, (format?.heightMm ?? 24) / 2 + 14);
  if (back) {
    blocks.push({
      index: chain.length,
      kind: 'back',
      name: back.name?.trim() || 'Back',
      frontMm: register,
      rearMm: -BODY_BEHIND_MM,
      halfMm: bodyHalf,
      words: `${number(back.width_mm)} × ${number(back.height_mm)} mm`,
    });
  }
  const drawMm = drawOf(rig);
  let x = register;
  let bellows: Bench['bellows'] = null;
  /** Length that multipliers take without moving the picture of infinity. */
  let freeMm = 0;
  const joints = [x];
  for (const [index, part] of [...chain.entries()].reverse()) {
    const rearMm = x;
    if (part.kind === 'view_camera') {
      bellows = { rearMm, leastMm: part.bellows_min_mm, greatestMm: part.bellows_max_mm, drawMm };
      x += drawMm;
    } else if (part.kind === 'board') x += part.offset_mm;
    else x += lengthOf(part);
    if (part.kind === 'multiplier') freeMm += lengthOf(part) - thicknessOf(part);
    const throat = 'throat_mm' in part ? part.throat_mm : undefined;
    blocks.push({
      index,
      kind: part.kind,
      name: partTitle(part),
      frontMm: part.kind === 'board' ? Math.max(x, rearMm + BOARD_MM) : x,
      rearMm: part.kind === 'board' ? Math.min(x, rearMm) : rearMm,
      halfMm: part.kind === 'view_camera' ? bodyHalf + 12 : throat ? throat / 2 + 8 : 32,
      words: wordsOf(part),
    });
    joints.push(x);
  }
  const flangeMm = lens ? x : null;
  let frontMm = x;
  let protrusion: Bench['protrusion'] = null;
  let infinityMm: number | null = null;
  if (lens) {
    const long = Math.max(18, Math.min(160, 0.55 * lens.focal_length_mm + 14));
    const circle = circleDiameterMm(circleTable(lens), lens.f_max);
    const half = Math.max(
      lens.focal_length_mm / lens.f_min / 2 + 5,
      Math.min(42, circle * 0.28),
      (lens.filter_thread_mm ?? 0) / 2 + 2,
    );
    frontMm = x + long;
    blocks.push({
      index: -1,
      kind: 'lens',
      name: lens.name?.trim() || 'Lens',
      frontMm,
      rearMm: x,
      halfMm: half,
      words: `${number(lens.focal_length_mm)} mm f/${number(lens.f_min)}`,
    });
    const into = lens.rear_protrusion_mm ?? 0;
    if (into > 0) {
      protrusion = { fromMm: x, toMm: x - into, halfMm: (lens.rear_diameter_mm ?? half * 1.2) / 2 };
    }
    const rig_ = back ? stackOf({ lens, chain, back }) : null;
    const needs = rig_?.flangeFocalMm ?? lens.flange_focal_mm ?? lens.register_mm ?? null;
    infinityMm = needs === null ? null : x - needs - freeMm;
  }
  return {
    blocks: blocks.reverse(),
    jointsMm: joints.reverse(),
    sensorHalfMm,
    flangeMm,
    infinityMm,
    protrusion,
    bellows,
    frontMm,
    behindMm: back ? BODY_BEHIND_MM : 0,
    halfMm: Math.max(40, ...blocks.map((block) => block.halfMm)),
  };
}
