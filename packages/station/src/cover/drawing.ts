import {
  axisPoint,
  circleDiameterMm,
  circleOnSensor,
  coneHalfAngleRad,
  coneOutline,
  cornerMarginMm,
  CORNERS,
  covers,
  engravedStops,
  envelope,
  frameCorner,
  toPicture,
  verticalInSensor,
  worstCorner,
  type Cone,
  type Corner,
  type Ellipse,
  type Frame,
  type Placing,
  type Point,
  mostOf,
} from '@gangway/optics';
import { coreMmAt, setupOf, type Setup } from '../optical/setup.js';
import type { Station } from '../document/station.js';
import type { Standing } from '../optical/state.js';
import { multiplied } from '../optical/multiplied.js';
import { circleTable } from '../optical/measured.js';

export interface CornerMark {
  readonly corner: Corner;
  readonly at: Point;
  /** To the edge of the circle; null when there is no edge that way. */
  readonly marginMm: number | null;
  readonly standing: Standing;
}

export interface PlacedFrame {
  readonly centre: Point;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** What the Cover drawing shows, in mm on the real back, picture upright, origin straight ahead. */
export interface CoverDrawing {
  /** Mm on the back for each mm of movement. */
  readonly factor: number;
  readonly frame: PlacedFrame;
  /** The whole back, where only a part of it is kept. */
  readonly whole: PlacedFrame | null;
  readonly corners: readonly CornerMark[];
  /** Where the lens axis meets the back. */
  readonly axis: Point;
  /** Null when the lens leans so far that its cone no longer closes. */
  readonly circle: Ellipse | null;
  readonly core: Ellipse | null;
  /** The same edges as polygons cut off far outside the sheet, when they do not close. */
  readonly open: { circle: readonly Point[]; core: readonly Point[] } | null;
  /** The core as quoted, at infinity. */
  readonly coreDiameterMm: number;
  /** Circles at the engraved whole stops on either side, where they differ from this one. */
  readonly neighbours: readonly { fNumber: number; diameterMm: number; ellipse: Ellipse }[];
  /** Where the frame's centre may lie. */
  readonly envelope: readonly Point[];
  /** From the worst corner to the circle's edge, along the line from the axis. */
  readonly margin: { corner: Point; edge: Point } | null;
  /** Largest half-extent the rig's circles ever need at infinity: for a sheet that stands still. */
  readonly baseMm: number;
  /** The level line of the scene: its height straight ahead, and how much it climbs for each mm to the right. */
  readonly levelLine: { readonly atMm: number; readonly slope: number } | null;
  /** Where shift and rise as set put the frame's centre, before the factor. */
  readonly placing: Placing;
}

export function coverDrawing(station: Station): CoverDrawing {
  const s = setupOf(station);
  const k = s.factor;
  const out = ({ x, y }: Point): Point => ({ x: x * k, y: y * k });
  const grown = (ellipse: Ellipse | null): Ellipse | null =>
    ellipse && {
      ...ellipse,
      centre: out(ellipse.centre),
      semiMajorMm: ellipse.semiMajorMm * k,
      semiMinorMm: ellipse.semiMinorMm * k,
    };
  const circle = grown(circleOnSensor(s.cone));
  return {
    factor: k,
    frame: frameAt(s.frame, k),
    whole: station.crop ? frameAt(s.whole, k) : null,
    corners: CORNERS.map((corner) => {
      const place = frameCorner(s.frame, corner);
      const margin = cornerMarginMm(s.cone, s.frame, corner) * k;
      return {
        corner,
        at: out(place),
        marginMm: Number.isFinite(margin) ? margin : null,
        standing: !covers(s.cone, place) ? 'outside' : covers(s.core, place) ? 'within' : 'costs',
      };
    }),
    axis: out(axisPoint(s.cone)),
    circle,
    open: circle
      ? null
      : {
          circle: outline(s, s.cone).map(out),
          core: outline(s, s.core).map(out),
        },
    core: grown(circleOnSensor(s.core)),
    coreDiameterMm: coreMmAt(station.lens, station.aperture, s) * k,
    neighbours: neighbours(s).flatMap(({ fNumber, bareMm }) => {
      const halfAngleRad = coneHalfAngleRad(bareMm, s.engravedMm, s.pupilRatio);
      const ellipse = grown(circleOnSensor({ ...s.cone, halfAngleRad }));
      return ellipse ? [{ fNumber, diameterMm: bareMm * k, ellipse }] : [];
    }),
    envelope: envelope(s.cone, s.frame, s.mechanism, s.placing).map(out),
    margin: marginLine(s, out),
    baseMm: baseMm(s),
    levelLine: levelLine(s),
    placing: s.placing,
  };
}

/** Where a rise and a shift put the frame's centre in the drawing. */
export const placeOf = (
  { placing, factor }: Pick<CoverDrawing, 'placing' | 'factor'>,
  set: Pick<Station['movements'], 'rise_mm' | 'shift_mm'>,
): Point => {
  const { x, y } = toPicture(placing, { riseMm: set.rise_mm, shiftMm: set.shift_mm });
  return { x: x * factor, y: y * factor };
};

const frameAt = (frame: Frame, k: number): PlacedFrame => ({
  centre: { x: frame.shiftMm * k, y: frame.riseMm * k },
  widthMm: frame.widthMm * k,
  heightMm: frame.heightMm * k,
});

/** Far enough out that the cut is off any sheet. */
const outline = (s: Setup, cone: Cone): Point[] => coneOutline(cone, (20 * baseMm(s)) / s.factor);

/** Half the largest circle, or half the back's diagonal when that is larger. */
function baseMm(s: Setup): number {
  const { station } = s;
  const largest =
    mostOf(s.facts.circles.map(({ diameterMm }) => diameterMm)) * s.combined * s.factor;
  return Math.max(largest, Math.hypot(station.back.width_mm, station.back.height_mm)) / 2;
}

/** What lies level is pictured square to the upright: x u_x + y u_y + v u_z = 0. */
function levelLine(s: Setup): CoverDrawing['levelLine'] {
  const { station } = s;
  const { rear_tilt_deg: tilt = 0, rear_swing_deg: swing = 0 } = station.movements;
  const [x, y, z] = verticalInSensor(station.camera.pitch_deg, tilt, swing);
  if (Math.abs(y) < STEEP) return null;
  return { atMm: (-s.imageDistanceMm * s.factor * z) / y + 0, slope: -x / y + 0 };
}

/** The cosine of 85°: steeper than that the level line is off any sheet. */
const STEEP = 0.087;

function neighbours(s: Setup): { fNumber: number; bareMm: number }[] {
  const { station } = s;
  const { lens, aperture } = station;
  const whole = engravedStops(lens.f_min, lens.f_max, 'whole');
  const wider = whole.findLast((n) => n < aperture * 0.999);
  const smaller = whole.find((n) => n > aperture * 1.001);
  return [wider, smaller].flatMap((fNumber) => {
    if (fNumber === undefined) return [];
    const quoted = circleDiameterMm(circleTable(lens), fNumber);
    const bareMm = multiplied(station.chain, quoted).circleMm;
    return Math.abs(bareMm - s.circleMm) < 1e-6 ? [] : [{ fNumber, bareMm }];
  });
}

function marginLine(s: Setup, out: (p: Point) => Point): CoverDrawing['margin'] {
  const { corner, marginMm } = worstCorner(s.cone, s.frame);
  if (!Number.isFinite(marginMm)) return null;
  const from = axisPoint(s.cone);
  const at = frameCorner(s.frame, corner);
  const span = Math.hypot(at.x - from.x, at.y - from.y) || 1;
  const t = (span + marginMm) / span;
  return {
    corner: out(at),
    edge: out({ x: from.x + (at.x - from.x) * t, y: from.y + (at.y - from.y) * t }),
  };
}
