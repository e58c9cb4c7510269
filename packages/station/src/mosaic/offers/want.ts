import { radians, type Point, type Size } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import type { Layout } from '../layout.js';
import type { MosaicPicture } from '../picture.js';
import { noneServes, type NoneServes } from '../../words/wish.js';

export type Wish = NonNullable<Mosaic['wish']>;

/** What a picture must have to serve a wish: least pixels or angles; a fill wants the most. */
export interface Want {
  readonly fill: boolean;
  /** Every frame within the sharp core, not only within the circle. */
  readonly sharp: boolean;
  readonly leastWidthPx: number;
  readonly leastPixels: number;
  readonly leastHorizontalDeg: number;
  readonly leastVerticalDeg: number;
  readonly shape: { readonly across: number; readonly up: number } | null;
}

const NOTHING: Want = {
  fill: false,
  sharp: false,
  leastWidthPx: 0,
  leastPixels: 0,
  leastHorizontalDeg: 0,
  leastVerticalDeg: 0,
  shape: null,
};

/**
 * Side of a flat picture about a middle that is seen under an angle: the tangent of the difference of
 * its ends’ angles, solved for it.
 */
export function sideFor(deg: number, middle: number, away: number): number {
  if (deg >= 180) return Infinity;
  if (deg <= 0) return 0;
  const [sin, cos] = [Math.sin(radians(deg)), Math.cos(radians(deg))];
  const root = Math.sqrt((away * cos) ** 2 + sin * sin * (away * away + middle * middle));
  return (2 * (root - away * cos)) / sin;
}

const MM_AN_INCH = 25.4;

/** A wish as least pixels and angles; why not, where it cannot be told. */
export function wantOf(station: Station, layout: Layout, wish: Wish): Want | NoneServes {
  const { pixelPitchMm, mosaic } = layout;
  const own: Want = { ...NOTHING, shape: mosaic.output ?? null };
  if (wish.fill !== undefined) return { ...own, fill: true, sharp: wish.fill === 'sharp' };
  if (wish.horizontal_deg !== undefined) {
    const { horizontal_deg: across, vertical_deg: up = 0 } = wish;
    return { ...own, leastHorizontalDeg: across, leastVerticalDeg: up };
  }
  if (wish.focal_length_mm !== undefined) {
    const { focal_length_mm: f, width_mm, height_mm } = wish;
    const deg = (side: number): number => (2 * Math.atan(side / (2 * f)) * 180) / Math.PI;
    return {
      ...own,
      leastHorizontalDeg: deg(width_mm),
      leastVerticalDeg: deg(height_mm),
    };
  }
  if (pixelPitchMm === null) {
    return noneServes('no_pixels', { back: station.back.name?.trim() || null });
  }
  if (wish.megapixels !== undefined) return { ...own, leastPixels: wish.megapixels * 1e6 };
  const px = Math.ceil((wish.print_width_mm / MM_AN_INCH) * wish.dpi);
  return { ...own, leastWidthPx: px };
}

/** What rounding takes, mm: a millionth of a millimetre; the angle of it at a metre. */
const HAIR = 1e-6;

/** Whether a picture has what is wanted; of a fill, whether there is one at all. */
export function serves(want: Want, picture: MosaicPicture, pitchMm: number | null): boolean {
  const { widthMm, heightMm, horizontalDeg, verticalDeg } = picture;
  const px = (mm: number): number => (pitchMm === null ? 0 : Math.round(mm / pitchMm));
  return (
    px(widthMm) >= want.leastWidthPx &&
    px(widthMm) * px(heightMm) >= want.leastPixels &&
    horizontalDeg >= want.leastHorizontalDeg - HAIR &&
    verticalDeg >= want.leastVerticalDeg - HAIR
  );
}

/** The least sides and area that a flat picture about a middle needs, mm; with a shape, its sides in step. */
export function leastSize(
  want: Want,
  { imageDistanceMm: v, pixelPitchMm }: Pick<Layout, 'imageDistanceMm' | 'pixelPitchMm'>,
  middle: Point,
): Size & { readonly areaMm2: number } {
  const pitch = pixelPitchMm ?? 0;
  const areaMm2 = want.leastPixels * pitch * pitch;
  const w = Math.max(want.leastWidthPx * pitch, sideFor(want.leastHorizontalDeg, middle.x, v));
  const h = sideFor(want.leastVerticalDeg, middle.y, v);
  if (!want.shape) return { widthMm: w, heightMm: h, areaMm2 };
  const ratio = want.shape.across / want.shape.up;
  const widthMm = Math.max(w, h * ratio, Math.sqrt(areaMm2 * ratio));
  return { widthMm, heightMm: widthMm / ratio, areaMm2 };
}

/** Whether a picture of a size about a middle has what is wanted. */
export function isEnough(
  want: Want,
  layout: Pick<Layout, 'imageDistanceMm' | 'pixelPitchMm'>,
  { widthMm, heightMm }: Size,
  middle: Point,
): boolean {
  const least = leastSize(want, layout, middle);
  return (
    widthMm >= least.widthMm - HAIR &&
    heightMm >= least.heightMm - HAIR &&
    widthMm * heightMm >= least.areaMm2 * (1 - 1e-9)
  );
}
