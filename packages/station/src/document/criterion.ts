import type { Back, Settings } from './station.js';

/** Standards of sharpness: which is usual on a back, and whether anybody chose the one that is set. */

type Criterion = Settings['criterion'];

/** Blur this many pixels wide is taken for sharp where nobody says (common practice, no source). */
const USUAL_PIXELS = 3;

/** The same on film, as a part of the diagonal (common practice, no source). */
const USUAL_DIVISOR = 1500;

/** Whether the pixels of a back are what its picture is judged by; a film may give those of a scan. */
export const judgedByPixels = ({ medium, width_px }: Pick<Back, 'medium' | 'width_px'>): boolean =>
  medium !== 'film' && width_px !== undefined;

/** What counts as sharp on a back where nobody says: by pixels where they are known, else by the diagonal. */
export const usualCriterion = (back: Pick<Back, 'medium' | 'width_px'>): Criterion =>
  judgedByPixels(back) ? { pixels: USUAL_PIXELS } : { diagonal_divisor: USUAL_DIVISOR };

/** With what is usual on its back, and said to be that. */
export const withUsualCriterion = <T extends Pick<Settings, 'back' | 'criterion'>>(
  station: T,
): T => ({
  ...station,
  criterion: usualCriterion(station.back),
  criterion_by: 'default',
});

/** Whether a standard can be read on a back: pixels need a back that tells them. */
export const readableOn = (criterion: Criterion, back: Pick<Back, 'width_px'>): boolean =>
  criterion.pixels === undefined || back.width_px !== undefined;

/**
 * A standard nobody chose goes with the back; one that is set by hand is chosen, and one that a new
 * back cannot be held to gives way to what is usual there.
 */
export function criterionInStep<T extends Pick<Settings, 'back' | 'criterion' | 'criterion_by'>>(
  after: T,
  before: T,
): T {
  if (after.criterion !== before.criterion) {
    // A rig or a variant may bring what is usual on its own back: nobody chose that.
    const usual = JSON.stringify(after.criterion) === JSON.stringify(usualCriterion(after.back));
    return after.criterion_by === 'default' && !usual
      ? { ...after, criterion_by: 'chosen' }
      : after;
  }
  if (after.back === before.back) return after;
  const gone = readableOn(after.criterion, before.back) && !readableOn(after.criterion, after.back);
  return after.criterion_by === 'default' || gone ? withUsualCriterion(after) : after;
}
