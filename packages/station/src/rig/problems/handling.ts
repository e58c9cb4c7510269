import { momentNm } from '@gangway/optics';
import { fixed } from '../../words/format.js';
import { thicknessOf } from '../../document/chain.js';
import { partName } from './mounting.js';
import { named, type Asked, type Check } from './problem.js';

/** Past this the front sags on a foot under the body: a choice, no source. */
const HEAVY_NM = 1;

/** The weight in front, when masses are known, about the body’s flange. */
function balance({ station, lengths }: Asked): { momentNm: number; frontG: number } | null {
  const { lens, chain } = station;
  if (lengths.bellows || lens.mass_g === undefined || lens.balance_ahead_mm === undefined)
    return null;
  let ahead = 0;
  const parts: { massG: number; aheadMm: number }[] = [];
  for (const part of [...chain].reverse()) {
    const long = part.kind === 'board' ? part.offset_mm : thicknessOf(part);
    if (part.mass_g !== undefined) parts.push({ massG: part.mass_g, aheadMm: ahead + long / 2 });
    ahead += long;
  }
  parts.push({ massG: lens.mass_g, aheadMm: ahead + lens.balance_ahead_mm });
  return { momentNm: momentNm(parts), frontG: parts.reduce((sum, { massG }) => sum + massG, 0) };
}

export const frontHeavy: Check = (asked) => {
  const { lens, back } = asked.station;
  const front = balance(asked);
  if (!front || back.mass_g === undefined) return [];
  if (front.frontG <= back.mass_g || front.momentNm <= HEAVY_NM) return [];
  return [
    {
      severity: 'warn',
      joint: asked.station.chain.length,
      message: `What hangs before the body weighs ${fixed(front.frontG / 1000, 1)} kg and pulls with ${fixed(front.momentNm, 1)} N m; the body weighs ${fixed(back.mass_g / 1000, 1)} kg.`,
      cure: lens.has_foot
        ? 'Put the tripod on the foot of the lens, not on the body.'
        : 'Carry the front on a rail or bracket; do not hang it from the mount.',
    },
  ];
};

export const openShutter: Check = ({ station: { lens } }) =>
  lens.needs_open_shutter
    ? [
        {
          severity: 'warn',
          joint: 0,
          message: `The shutter of ${named(lens, 'the lens')} must be open or cocked for mounting and for a live picture.`,
          cure: 'Open or cock it first; close it before the exposure.',
        },
      ]
    : [];

export const modified: Check = ({ station: { lens, chain, back } }) => {
  if (!lens.modified && !back.modified && !chain.some((part) => part.modified)) return [];
  const altered = [
    ...(lens.modified ? [{ joint: 0, name: named(lens, 'The lens') }] : []),
    ...chain.flatMap((part, joint) => (part.modified ? [{ joint, name: partName(part) }] : [])),
    ...(back.modified ? [{ joint: chain.length, name: named(back, 'The back') }] : []),
  ];
  return altered.map(({ joint, name }) => ({
    severity: 'warn',
    joint,
    message: `${name.replace(/^./, (first) => first.toUpperCase())} was altered by its owner: swarf may be left in it, a rear element may strike mirror or shutter, and its warranty is void.`,
    cure: 'Clean it, check the clearance by hand with the camera off, and have it looked at by a workshop.',
  }));
};
