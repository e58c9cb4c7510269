import type { Diffraction } from '@gangway/optics';

/** What diffraction does at a stop, in a few words: the same wherever it is told. */
export const DIFFRACTION_WORDS: Record<Diffraction, string> = {
  none: 'takes no detail',
  begins: 'begins',
  visible: 'is visible',
  plain: 'plainly softens',
};

/** Why each is said, by pixels and by a standard of sharpness. */
export const DIFFRACTION_REASONS: Record<'pixels' | 'standard', Record<Diffraction, string>> = {
  pixels: {
    none: 'Contrast is lost to it before, detail is not: it still passes all the sensor can hold.',
    begins: 'It no longer passes the finest detail the sensor can hold.',
    visible: 'The finest detail is gone, and what is a little coarser loses contrast.',
    plain: 'Nothing is left of detail half as fine as the sensor can hold.',
  },
  standard: {
    none: 'Its disc is less than half of what counts as sharp.',
    begins: 'Its disc is more than half of what counts as sharp.',
    visible: 'Its disc is more than 0.7 of what counts as sharp.',
    plain: 'Its disc alone is as large as what counts as sharp.',
  },
};
