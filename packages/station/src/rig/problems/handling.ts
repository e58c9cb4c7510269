import { momentNm } from '@gangway/optics';
import { thicknessOf } from '../../document/lengths.js';
import type { RigFacts } from '../../optical/facts.js';
import { partName } from './mounting.js';
import { named, type GearCheck } from './problem.js';

/** Past this the front sags on a foot under the body: a choice, no source. */
const HEAVY_NM = 1;

/** The weight in front, when masses are known, about the body’s flange. */
function balance({ lens, chain, lengths }: RigFacts): { momentNm: number; frontG: number } | null {
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

export const frontHeavy: GearCheck<'front_heavy'> = (facts) => {
  const { lens, back, chain } = facts;
  const front = balance(facts);
  if (!front || back.mass_g === undefined) return [];
  if (front.frontG <= back.mass_g || front.momentNm <= HEAVY_NM) return [];
  return [
    {
      severity: 'warn',
      joint: chain.length,
      values: { ...front, bodyG: back.mass_g, foot: lens.has_foot === true },
    },
  ];
};

export const openShutter: GearCheck<'open_shutter'> = ({ lens }) =>
  lens.needs_open_shutter
    ? [{ severity: 'warn', joint: 0, values: { name: named(lens, 'the lens') } }]
    : [];

export const modified: GearCheck<'modified'> = ({ lens, chain, back }) => {
  if (!lens.modified && !back.modified && !chain.some((part) => part.modified)) return [];
  const altered = [
    ...(lens.modified ? [{ joint: 0, name: named(lens, 'The lens') }] : []),
    ...chain.flatMap((part, joint) => (part.modified ? [{ joint, name: partName(part) }] : [])),
    ...(back.modified ? [{ joint: chain.length, name: named(back, 'The back') }] : []),
  ];
  return altered.map(({ joint, name }) => ({ severity: 'warn', joint, values: { name } }));
};
