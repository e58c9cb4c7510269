import { DIAGONAL_24X36_MM, type Corner } from '@gangway/optics';
import type { Mosaic, Station } from '../document/station.js';
import { finite } from '../words/finite.js';
import { depthsOf } from './depths.js';
import { layoutOf, type Layout } from './layout.js';
import { cornersPast, frameFalloffStops, pictureFalloffStops } from './light.js';
import { parallaxOf } from './parallax.js';
import { mosaicPicture, type MosaicPicture } from './picture.js';
import { saidOf, type Severity } from '../words/findings.js';
import { MOSAIC_SAYS, type MosaicProblemCode } from '../words/mosaic-problems.js';
import { findingsIn } from './problems.js';
import { workOf } from './work.js';

export interface MosaicFrame {
  order: number;
  x_mm: number;
  y_mm: number;
  rotation_deg: number;
  rise_mm: number;
  shift_mm: number;
  covered: boolean;
  sharp: boolean;
  lost: Corner[];
  falloff_stops: number | null;
  /** Of a turn: right of the camera's own yaw. */
  yaw_deg?: number;
}

/** A layout that serves the wish; taken, the values at their pointers are set. */
export interface MosaicOffer {
  kind: Mosaic['pattern'];
  frames: number;
  megapixels: number | null;
  width_px: number | null;
  height_px: number | null;
  values: Record<string, unknown>;
  /** Whether no fewer frames serve, moved the same way (across, or turned), for certain. */
  least: boolean;
}

export interface MosaicProblem {
  code: MosaicProblemCode | 'wish';
  severity: Severity;
  message: string;
}
export interface MosaicReport {
  frames: MosaicFrame[];
  overlaps: { a: number; b: number; share: number }[];
  falloff_stops: number | null;
  /** The picture that comes out; null where there is none. */
  x_mm: number | null;
  y_mm: number | null;
  width_mm: number | null;
  height_mm: number | null;
  /** Null where pixels are not known, too. */
  width_px: number | null;
  height_px: number | null;
  megapixels: number | null;
  claimed_megapixels: number | null;
  overlap: { x: number | null; y: number | null };
  horizontal_deg: number | null;
  vertical_deg: number | null;
  equivalent_35mm_mm: number | null;
  parallax_px: number | null;
  body_travel_mm: number;
  time_s: number;
  data_bytes: number | null;
  /** False where the rig cannot take the frames as they are asked for, or nothing comes of it. */
  possible: boolean;
  problems: MosaicProblem[];
  /** With a wish. */
  offers?: MosaicOffer[];
  /** The search for them ended early, its steps used up: fewer frames may do. */
  stopped?: true;
}

function framesOf(layout: Layout): MosaicFrame[] {
  const { cone, core, frames } = layout;
  return frames.map((frame, i) => {
    const lost = cornersPast(cone, frame);
    return {
      order: i + 1,
      x_mm: frame.centre.x + 0,
      y_mm: frame.centre.y + 0,
      rotation_deg: frame.rotationDeg,
      rise_mm: frame.set.riseMm + 0,
      shift_mm: frame.set.shiftMm + 0,
      covered: lost.length === 0,
      sharp: cornersPast(core, frame).length === 0,
      lost,
      falloff_stops: frameFalloffStops(layout, frame),
      ...(frame.yawDeg === undefined ? {} : { yaw_deg: frame.yawDeg + 0 }),
    };
  });
}

function overlapsEachWay({ mosaic }: Layout): MosaicReport['overlap'] {
  if (mosaic.pattern !== 'grid') return { x: null, y: null };
  const { columns = 1, rows = 1, overlap = 0.3 } = mosaic;
  return { x: columns > 1 ? overlap : null, y: rows > 1 ? overlap : null };
}

/** Pixels, to the nearest. */
const pixelsAlong = (mm: number, pitchMm: number): number => Math.round(mm / pitchMm);

type Size = 'x_mm' | 'y_mm' | 'width_mm' | 'height_mm' | 'width_px' | 'height_px' | 'megapixels';

/** Where the picture lies and how large it is. */
function sizeOf(
  { pixelPitchMm: pitch }: Layout,
  picture: MosaicPicture | null,
): Pick<MosaicReport, Size> {
  if (!picture) {
    const none = { x_mm: null, y_mm: null, width_mm: null, height_mm: null };
    return { ...none, width_px: null, height_px: null, megapixels: null };
  }
  const { centre, widthMm, heightMm } = picture;
  const width = pitch === null ? null : pixelsAlong(widthMm, pitch);
  const height = pitch === null ? null : pixelsAlong(heightMm, pitch);
  return {
    x_mm: centre.x + 0,
    y_mm: centre.y + 0,
    width_mm: widthMm,
    height_mm: heightMm,
    width_px: width,
    height_px: height,
    megapixels: width === null || height === null ? null : (width * height) / 1e6,
  };
}

/** What it sees; of a turn what it sweeps, whatever a flat merge leaves of it. */
function fieldOf(
  { turn, s }: Layout,
  picture: MosaicPicture | null,
): Pick<MosaicReport, 'horizontal_deg' | 'vertical_deg' | 'equivalent_35mm_mm'> {
  const diagonal = picture && Math.hypot(picture.widthMm, picture.heightMm);
  return {
    horizontal_deg: turn ? turn.horizontalDeg : picture && picture.horizontalDeg,
    vertical_deg: picture && picture.verticalDeg,
    equivalent_35mm_mm: diagonal && (s.engravedMm * s.factor * DIAGONAL_24X36_MM) / diagonal,
  };
}

/** Everything about a station’s mosaic that is not searched for. */
export function reportMosaic(
  station: Station,
  mosaic: Mosaic,
  layout: Layout = layoutOf(station, mosaic),
  picture: MosaicPicture | null = mosaicPicture(layout),
): MosaicReport {
  const depths = depthsOf(station, layout);
  const { partsMm, travelMm } = parallaxOf(layout, depths);
  const { timeS, dataBytes, claimedMegapixels } = workOf(station, layout);
  const { pixelPitchMm: pitch } = layout;
  const found = findingsIn({ station, layout, picture, depths });
  return {
    frames: framesOf(layout),
    overlaps: layout.neighbours.map(({ a, b, share }) => ({ a: a + 1, b: b + 1, share })),
    falloff_stops: picture && pictureFalloffStops(layout, picture),
    ...sizeOf(layout, picture),
    claimed_megapixels: claimedMegapixels,
    overlap: overlapsEachWay(layout),
    ...fieldOf(layout, picture),
    parallax_px:
      partsMm === 0 ? 0 : partsMm === null || pitch === null ? null : finite(partsMm / pitch),
    body_travel_mm: travelMm,
    time_s: timeS,
    data_bytes: dataBytes,
    possible: found.every(({ severity }) => severity !== 'stop'),
    problems: found.map((each) => ({
      code: each.code,
      severity: each.severity,
      message: saidOf(MOSAIC_SAYS, each),
    })),
  };
}
