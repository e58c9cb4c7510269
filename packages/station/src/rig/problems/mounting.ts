import { adapterThicknessMm, REGISTER_PLAY_MM } from '@gangway/optics';
import { thicknessOf } from '../../document/lengths.js';
import type { RigParts } from '../../document/rig-parts.js';
import type { ChainPart } from '../../document/station.js';
import { named, type Finding, type GearCheck } from './problem.js';

const KIND_WORDS: Record<ChainPart['kind'], string> = {
  adapter: 'the adapter',
  multiplier: 'the converter or reducer',
  board: 'the board',
  view_camera: 'the camera',
};

export const partName = (part: ChainPart): string => named(part, KIND_WORDS[part.kind]);

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

const given = (mount: string | undefined): mount is string => Boolean(mount?.trim());

/** What stands on either side of a joint, by name. */
function besideJoint({ lens, chain, back }: RigParts, joint: number): [string, string] {
  return [
    joint === 0 ? named(lens, 'the lens') : partName(chain[joint - 1]!),
    joint === chain.length ? named(back, 'the back') : partName(chain[joint]!),
  ];
}

const mountsOf = (part: ChainPart): [string | undefined, string | undefined] => [
  part.front_mount,
  part.rear_mount,
];

export const mountMismatch: GearCheck<'mount_mismatch'> = (rig) => {
  const { lens, chain, back } = rig;
  const findings: Finding<'mount_mismatch'>[] = [];
  for (let joint = 0; joint <= chain.length; joint++) {
    const ahead = joint === 0 ? lens.mount : mountsOf(chain[joint - 1]!)[1];
    const behind = joint === chain.length ? back.mount : mountsOf(chain[joint]!)[0];
    if (!given(ahead) || !given(behind) || same(ahead, behind)) continue;
    findings.push(mismatch(rig, joint, ahead, behind));
  }
  return findings;
};

function mismatch(
  rig: RigParts,
  joint: number,
  ahead: string,
  behind: string,
): Finding<'mount_mismatch'> {
  const { lens, back, chain } = rig;
  const [front, rear] = besideJoint(rig, joint);
  const thicknessMm =
    lens.register_mm !== undefined && back.register_mm !== undefined
      ? adapterThicknessMm(lens.register_mm, back.register_mm)
      : NaN;
  const fits = chain.length === 0 && thicknessMm > 0;
  return {
    severity: 'stop',
    joint,
    values: { front, rear, ahead, behind, thicknessMm: fits ? thicknessMm : null },
    ...(fits ? { want: { kind: 'adapter' as const, thicknessMm } } : {}),
  };
}

/** What the lens's rear barrel has to pass, part by part, until its end. */
export function barrelPath({ lens, chain, back }: RigParts): {
  passes: { joint: number; name: string; throatMm: number | undefined }[];
  leftMm: number;
} {
  let leftMm = lens.rear_protrusion_mm ?? 0;
  const passes: { joint: number; name: string; throatMm: number | undefined }[] = [];
  for (const [joint, part] of chain.entries()) {
    if (leftMm <= REGISTER_PLAY_MM) return { passes, leftMm: 0 };
    // Inside the bellows there is room.
    if (part.kind === 'view_camera') return { passes, leftMm: 0 };
    passes.push({ joint, name: partName(part), throatMm: part.throat_mm });
    leftMm -= part.kind === 'board' ? Math.max(0, part.offset_mm) : thicknessOf(part);
  }
  if (leftMm > REGISTER_PLAY_MM) {
    passes.push({ joint: chain.length, name: named(back, 'the back'), throatMm: back.throat_mm });
  }
  return { passes, leftMm: Math.max(0, leftMm) };
}

export const throatTooNarrow: GearCheck<'throat_too_narrow'> = (rig) => {
  const rearMm = rig.lens.rear_diameter_mm;
  if (rearMm === undefined) return [];
  return barrelPath(rig).passes.flatMap(
    ({ joint, name, throatMm }): Finding<'throat_too_narrow'>[] =>
      throatMm === undefined || throatMm >= rearMm
        ? []
        : [{ severity: 'stop', joint, values: { name, rearMm, throatMm } }],
  );
};

export const rearElementStrikes: GearCheck<'rear_element_strikes'> = (rig) => {
  const { lens, chain, back } = rig;
  const protrusion = lens.rear_protrusion_mm;
  if (protrusion === undefined) return [];
  const strike = (
    reachesMm: number,
    clearMm: number,
    joint: number,
    glass: string | null,
  ): Finding<'rear_element_strikes'> => ({
    severity: 'stop',
    joint,
    values: { reachesMm, clearMm, glass },
  });
  const first = chain[0];
  if (first?.kind === 'multiplier' && first.clear_depth_mm !== undefined) {
    return protrusion <= first.clear_depth_mm
      ? []
      : [strike(protrusion, first.clear_depth_mm, 0, partName(first))];
  }
  const { leftMm } = barrelPath(rig);
  if (back.clear_depth_mm === undefined || leftMm <= back.clear_depth_mm) return [];
  return [strike(leftMm, back.clear_depth_mm, chain.length, null)];
};

/** An adapter can fill the gap between the registers only when there is one, wide enough. */
export const registerNoRoom: GearCheck<'register_no_room'> = ({ lens, back, chain, lengths }) => {
  const findings: Finding<'register_no_room'>[] = [];
  for (const [joint, part] of chain.entries()) {
    if (part.kind !== 'adapter' || part.least_thickness_mm === undefined) continue;
    if (part.thickness_mm >= part.least_thickness_mm) continue;
    findings.push({
      severity: 'stop',
      joint,
      values: {
        lacks: 'thickness',
        name: partName(part),
        leastMm: part.least_thickness_mm,
        thicknessMm: part.thickness_mm,
      },
    });
  }
  if (lengths.bellows || lens.register_mm === undefined || back.register_mm === undefined) {
    return findings;
  }
  const roomMm = adapterThicknessMm(lens.register_mm, back.register_mm);
  const needsMm = chain.reduce(
    (sum, part) => sum + (part.kind === 'adapter' ? (part.least_thickness_mm ?? 0) : 0),
    0,
  );
  const bodyMm = back.register_mm;
  if (roomMm < -REGISTER_PLAY_MM) {
    findings.push({
      severity: 'warn',
      joint: chain.length,
      values: { lacks: 'infinity', lensMm: lens.register_mm, bodyMm },
    });
  } else if (needsMm > roomMm + REGISTER_PLAY_MM && findings.length === 0) {
    findings.push({
      severity: 'warn',
      joint: chain.length,
      values: { lacks: 'room', roomMm, needsMm, bodyMm },
    });
  }
  return findings;
};
