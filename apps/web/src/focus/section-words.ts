import { distance, fixed, type Section, type SectionMark, type Units } from '@gangway/station';

/** Near work is told in millimetres. */
export const nearOrFar = (m: number, units: Units): string =>
  units === 'metric' && Math.abs(m) < 2 ? `${fixed(m * 1000, 0)} mm` : distance(m, units);

const SIDE = { name: 'Side section', above: 'above', below: 'below', lean: 'Lean' } as const;
const PLAN = { name: 'Plan', above: 'right of', below: 'left of', lean: 'Swing' } as const;
/** What a section calls its directions. */
export const WORDS = { side: SIDE, plan: PLAN };

/** What the drawing shows, for those who listen. */
export function described({ hingeMm, kind, aheadM, marks }: Section, units: Units): string {
  const { above, below } = WORDS[kind];
  const hinge =
    hingeMm === null
      ? 'The lens stands straight'
      : `The hinge line lies ${nearOrFar(Math.abs(hingeMm) / 1000, units)} ${hingeMm > 0 ? above : below} the lens`;
  const plane = aheadM === null ? 'at or past infinity' : `${nearOrFar(aheadM, units)} ahead`;
  return `${hinge}; the plane of sharp focus crosses straight ahead ${plane}. ${marks
    .map((mark) => `${mark.label}: ${blurWords(mark)}`)
    .join('; ')}`;
}

export const blurWords = ({ blurUm, holds, must }: SectionMark): string =>
  `${blurUm === null ? 'no focus' : `${fixed(blurUm, 0)} µm blur`}${holds ? '' : must === 'soft' ? ', not soft enough' : ', does not hold'}`;
