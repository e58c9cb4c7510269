import { bisect, radians, type Size } from '@gangway/optics';
import type { Mosaic, Station } from '../../document/station.js';
import type { Layout } from '../layout.js';
import type { MosaicPicture } from '../picture.js';

export type Wish = NonNullable<Mosaic['wish']>;

/** What a picture must have to serve a wish: least sides, area or angles; a fill wants the most. */
export interface Want {
  readonly fill: boolean;
  /** Every frame within the sharp core, not only within the circle. */
  readonly sharp: boolean;
  readonly leastWidthMm: number;
  readonly leastHeightMm: number;
  readonly leastWidthPx: number;
  readonly leastPixels: number;
  readonly leastHorizontalDeg: number;
  readonly leastVerticalDeg: number;
  readonly shape: { readonly across: number; readonly up: number } | null;
}

const NOTHING: Want = {
  fill: false,
  sharp: false,
  leastWidthMm: 0,
  leastHeightMm: 0,
  leastWidthPx: 0,
  leastPixels: 0,
  leastHorizontalDeg: 0,
  leastVerticalDeg: 0,
  shape: null,
};

/** Side of a flat picture about a middle that is seen under an angle. */
function sideFor(deg: number, middle: number, away: number): number {
  if (deg >= 180) return Infinity;
  const seen = (side: number): number =>
    Math.atan((middle + side / 2) / away) - Math.atan((middle - side / 2) / away);
  return bisect(1e7, 0, (side) => seen(side) >= radians(deg));
}

const MM_AN_INCH = 25.4;

/** A wish as least sides, pixels and angles; a sentence where it cannot be told. */
export function wantOf(station: Station, layout: Layout, wish: Wish): Want | string {
  const { imageDistanceMm: v, middle, pixelPitchMm } = layout;
  const own: Want = { ...NOTHING, shape: layout.mosaic.output ?? null };
  if (wish.fill !== undefined) return { ...own, fill: true, sharp: wish.fill === 'sharp' };
  if (wish.horizontal_deg !== undefined) {
    const { horizontal_deg: across, vertical_deg: up = 0 } = wish;
    return {
      ...own,
      leastHorizontalDeg: across,
      leastVerticalDeg: up,
      leastWidthMm: sideFor(across, middle.x, v),
      leastHeightMm: up === 0 ? 0 : sideFor(up, middle.y, v),
    };
  }
  if (wish.focal_length_mm !== undefined) {
    const { focal_length_mm: f, width_mm, height_mm } = wish;
    const deg = (side: number): number => (2 * Math.atan(side / (2 * f)) * 180) / Math.PI;
    return {
      ...own,
      leastWidthMm: (width_mm * v) / f,
      leastHeightMm: (height_mm * v) / f,
      leastHorizontalDeg: deg(width_mm),
      leastVerticalDeg: deg(height_mm),
    };
  }
  if (pixelPitchMm === null) {
    return `${station.back.name?.trim() || 'The back'} has no pixels given, so that they cannot be wished for; give them in the kit.`;
  }
  if (wish.megapixels !== undefined) return { ...own, leastPixels: wish.megapixels * 1e6 };
  const px = Math.ceil((wish.print_width_mm / MM_AN_INCH) * wish.dpi);
  return { ...own, leastWidthPx: px, leastWidthMm: px * pixelPitchMm };
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

/** The least sides and area a flat picture needs, mm; the same with a shape's sides in step. */
export function leastSize(want: Want, pitchMm: number | null): Size & { readonly areaMm2: number } {
  const areaMm2 = pitchMm === null ? 0 : want.leastPixels * pitchMm * pitchMm;
  const { leastWidthMm: w, leastHeightMm: h, shape } = want;
  if (!shape) return { widthMm: w, heightMm: h, areaMm2 };
  const ratio = shape.across / shape.up;
  const widthMm = Math.max(w, h * ratio, Math.sqrt(areaMm2 * ratio));
  return { widthMm, heightMm: widthMm / ratio, areaMm2 };
}
