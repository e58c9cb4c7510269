import type { Settings } from '../document/station.js';
import { trimmed } from './format.js';

type Criterion = Settings['criterion'];

/** A standard of sharpness as one says it: “3 pixels”. */
export function criterionWords(criterion: Criterion): string {
  if (criterion.coc_mm !== undefined) return `a circle of ${trimmed(criterion.coc_mm, 4)} mm`;
  if (criterion.pixels !== undefined) {
    return `${trimmed(criterion.pixels, 2)} ${criterion.pixels === 1 ? 'pixel' : 'pixels'}`;
  }
  if (criterion.diagonal_divisor !== undefined) {
    return `the diagonal over ${trimmed(criterion.diagonal_divisor, 0)}`;
  }
  return `a print ${trimmed(criterion.print_width_mm / 10, 0)} cm wide from ${trimmed(criterion.viewing_distance_mm / 10, 0)} cm`;
}
