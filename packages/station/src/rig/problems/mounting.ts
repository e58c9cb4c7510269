import { adapterThicknessMm, REGISTER_PLAY_MM } from '@gangway/optics';
import { mm } from '../../words/format.js';
import type { ChainPart, Station } from '../../document/station.js';
import { thicknessOf } from '../../document/chain.js';
import { named, type Check, type Finding } from './problem.js';

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
function besideJoint({ lens, chain, back }: Station, joint: number): [string, string] {
  return [
    joint === 0 ? named(lens, 'the lens') : partName(chain[joint - 1]!),
    joint === chain.length ? named(back, 'the back') : partName(chain[joint]!),
  ];
}

const mountsOf = (part: ChainPart): [string | undefined, string | undefined] => [
  part.front_mount,
  part.rear_mount,
];

export const mountMismatch: Check = ({ station }) => {
  const { lens, chain, back } = station;
  const findings: Finding[] = [];
  for (let joint = 0; joint <= chain.length; joint++) {
    const ahead = joint === 0 ? lens.mount : mountsOf(chain[joint - 1]!)[1];
    const behind = joint === chain.length ? back.mount : mountsOf(chain[joint]!)[0];
    if (!given(ahead) || !given(behind) || same(ahead, behind)) continue;
    findings.push(mismatch(station, joint, ahead, behind));
  }
  return findings;
};

function mismatch(station: Station, joint: number, ahead: string, behind: string): Finding {
  const { lens, back, chain } = station;
  const [front, rear] = besideJoint(station, joint);
  const thicknessMm =
    lens.register_mm !== undefined && back.register_mm !== undefined
      ? adapterThicknessMm(lens.register_mm, back.register_mm)
      : NaN;
  const fits = chain.length === 0 && thicknessMm > 0;
  return {
    severity: 'stop',
    joint,
    message: `${front} has the mount ${ahead}, ${rear} takes ${behind}: they do not join.`,
    cure: fits
      ? `Put an adapter from ${ahead} to ${behind} between them, ${mm(thicknessMm, 2)} thick to keep infinity.`
      : `Put a part from ${ahead} to ${behind} between them.`,
    ...(fits ? { want: { kind: 'adapter' as const, thicknessMm } } : {}),
  };
}

/** What the lens's rear barrel has to pass, part by part, until its end. */
export function barrelPath({ lens, chain, back }: Station): {
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

export const throatTooNarrow: Check = ({ station }) => {
  const diameter = station.lens.rear_diameter_mm;
  if (diameter === undefined) return [];
  return barrelPath(station).passes.flatMap(({ joint, name, throatMm }): Finding[] =>
    throatMm === undefined || throatMm >= diameter
      ? []
      : [
          {
            severity: 'stop',
            joint,
            message: `The rear barrel is ${mm(diameter)} wide, the throat of ${name} ${mm(throatMm)}: it does not go in.`,
            cure: `Use a part with a throat of at least ${mm(diameter)}, or a lens with a slimmer rear.`,
          },
        ],
  );
};

export const rearElementStrikes: Check = ({ station }) => {
  const { lens, chain, back } = station;
  const protrusion = lens.rear_protrusion_mm;
  if (protrusion === undefined) return [];
  const first = chain[0];
  if (first?.kind === 'multiplier' && first.clear_depth_mm !== undefined) {
    return protrusion <= first.clear_depth_mm
      ? []
      : [strike(protrusion, first.clear_depth_mm, 0, `the glass of ${partName(first)}`)];
  }
  const { leftMm } = barrelPath(station);
  if (back.clear_depth_mm === undefined || leftMm <= back.clear_depth_mm) return [];
  return [strike(leftMm, back.clear_depth_mm, chain.length, 'mirror or shutter')];
};

const strike = (reaches: number, clear: number, joint: number, what: string): Finding => ({
  severity: 'stop',
  joint,
  message: `The rear of the lens reaches ${mm(reaches)} in, where only ${mm(clear)} are clear: it may strike ${what}.`,
  cure: `Do not mount it so. Use a body that clears ${mm(reaches)}, or an extension of at least ${mm(reaches - clear)} and do without infinity.`,
});

/** An adapter can fill the gap between the registers only when there is one, wide enough. */
export const registerNoRoom: Check = ({ station, lengths }) => {
  const { lens, back, chain } = station;
  const findings: Finding[] = [];
  for (const [joint, part] of chain.entries()) {
    if (part.kind !== 'adapter' || part.least_thickness_mm === undefined) continue;
    if (part.thickness_mm >= part.least_thickness_mm) continue;
    findings.push({
      severity: 'stop',
      joint,
      message: `The mechanism of ${partName(part)} needs ${mm(part.least_thickness_mm)}; at ${mm(part.thickness_mm)} it cannot be made.`,
      cure: `Use a body with a shorter register, or a plain adapter without movements.`,
    });
  }
  if (lengths.bellows || lens.register_mm === undefined || back.register_mm === undefined) {
    return findings;
  }
  const room = adapterThicknessMm(lens.register_mm, back.register_mm);
  const needs = chain.reduce(
    (sum, part) => sum + (part.kind === 'adapter' ? (part.least_thickness_mm ?? 0) : 0),
    0,
  );
  if (room < -REGISTER_PLAY_MM) {
    findings.push({
      severity: 'warn',
      joint: chain.length,
      message: `The lens is made for a register of ${mm(lens.register_mm, 2)}, the body has ${mm(back.register_mm, 2)}: no adapter can bring it to infinity.`,
      cure: `Use a body with a register of ${mm(lens.register_mm, 2)} or less, or this lens for near work only.`,
    });
  } else if (needs > room + REGISTER_PLAY_MM && findings.length === 0) {
    findings.push({
      severity: 'warn',
      joint: chain.length,
      message: `The registers leave ${mm(room, 2)}, the mechanism needs ${mm(needs, 2)}.`,
      cure: `Use a lens with a register of at least ${mm(back.register_mm + needs, 2)}, or do without infinity.`,
    });
  }
  return findings;
};
