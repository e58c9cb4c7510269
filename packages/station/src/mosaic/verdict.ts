import { fixed } from '../words/format.js';
import type { MosaicVerdict } from './none.js';
import type { MosaicReport } from './report.js';

/** Megapixels as people say them: one decimal below ten. */
export const megapixelsSaid = (mp: number): string => `${fixed(mp, mp < 9.95 ? 1 : 0)} MP`;

const sizeSaid = ({ megapixels, width_mm, height_mm }: MosaicReport): string =>
  megapixels === null
    ? `${fixed(width_mm!, 0)} × ${fixed(height_mm!, 0)} mm`
    : megapixelsSaid(megapixels);

/** How the layout stands: what stops it, what is black, else what comes out of how many frames. */
export function mosaicVerdict(report: MosaicReport): MosaicVerdict {
  const { problems, frames } = report;
  const stops = problems.filter(({ severity }) => severity === 'stop');
  const count = `${frames.length} ${frames.length === 1 ? 'frame' : 'frames'}`;
  const apart = stops.find(({ code }) => code === 'apart');
  if (apart) {
    const [figure] = /\d[\d.]* (?:px|mm)/.exec(apart.message) ?? ['Apart'];
    return { standing: 'outside', figure, words: 'apart', sentence: apart.message };
  }
  const lost = stops.find(({ code }) => code === 'lean_lost');
  if (lost) {
    return {
      standing: 'outside',
      figure: 'Lean lost',
      words: `on the way, ${count}`,
      sentence: lost.message,
    };
  }
  if (stops.length > 0) {
    return {
      standing: 'outside',
      figure: String(stops.length),
      words: frames.length === 0 ? 'to settle' : `to settle, ${count}`,
      sentence: stops[0]!.message,
    };
  }
  const black = frames.filter(({ covered }) => !covered);
  if (black.length > 0) {
    return {
      standing: 'outside',
      figure: 'Corner',
      words: `black in ${black.length === 1 ? black[0]!.order : `${black.length} frames`}`,
      sentence: problems.find(({ code }) => code === 'not_covered')!.message,
    };
  }
  const warned = problems.filter(({ code }) => code !== 'no_turning_back' && code !== 'wish');
  const soft = frames.filter(({ sharp }) => !sharp).length;
  const size = sizeSaid(report);
  return {
    standing: warned.length > 0 || soft > 0 ? 'costs' : 'within',
    figure: size,
    words: `from ${frames.length}${soft > 0 ? `, ${soft} soft at a corner` : ''}`,
    sentence: `${size} come out of ${count}${warned[0] ? `. ${warned[0].message}` : '.'}`,
  };
}
