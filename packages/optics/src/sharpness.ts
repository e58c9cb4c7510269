import { radians } from './vector.js';

/** What counts as sharp: four schools, all giving a circle of confusion on the sensor, mm. */
export type Criterion =
  | { readonly kind: 'coc'; readonly cocMm: number }
  | { readonly kind: 'diagonal'; readonly divisor: number }
  | { readonly kind: 'pixels'; readonly pixels: number }
  | { readonly kind: 'print'; readonly printWidthMm: number; readonly viewingDistanceMm: number };

/** What the eye separates: one minute of arc. */
export const ACUITY_ARCMIN = 1;

export function circleOfConfusionMm(
  criterion: Criterion,
  frame: { widthMm: number; heightMm: number; pixelPitchMm: number | null },
): number {
  switch (criterion.kind) {
    case 'coc':
      return criterion.cocMm;
    case 'diagonal':
      return Math.hypot(frame.widthMm, frame.heightMm) / criterion.divisor;
    case 'pixels':
      return criterion.pixels * (frame.pixelPitchMm ?? NaN);
    case 'print': {
      const onPrintMm = criterion.viewingDistanceMm * Math.tan(radians(ACUITY_ARCMIN / 60));
      return (onPrintMm * frame.widthMm) / criterion.printWidthMm;
    }
  }
}
