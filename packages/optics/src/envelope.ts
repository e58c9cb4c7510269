import {
  axisPoint,
  CORNERS,
  frameCorner,
  frameCovered,
  reach,
  slice,
  type Cone,
  type Point,
} from './coverage.js';
import { stepToSet, toSet, type Placing } from './placing.js';
import { clip } from './polygon.js';

/** How far the mechanism goes, in millimetres as set. */
export interface Mechanism {
  readonly rise: readonly [number, number];
  readonly shift: readonly [number, number];
  /** Greatest length of the combined movement, for a lens that turns; Infinity when free. */
  readonly radialMm: number;
}

export interface Ellipse {
  readonly centre: Point;
  readonly semiMajorMm: number;
  readonly semiMinorMm: number;
  /** Turn of the major axis from picture right, anticlockwise, degrees. */
  readonly turnDeg: number;
}

/**
 * The image circle as it falls on the sensor plane: an ellipse, or null when the lens leans
 * so far that its cone no longer closes on the sensor.
 */
export function circleOnSensor(cone: Cone): Ellipse | null {
  const [ax, ay, az] = cone.axis;
  const { apexMm = 0 } = cone;
  const v = cone.imageDistanceMm + apexMm * az;
  const across = Math.hypot(ax, ay);
  const leanRad = Math.atan2(across, az);
  const { halfAngleRad } = cone;
  if (leanRad + halfAngleRad >= Math.PI / 2 - 1e-9 || v <= 0) return null;
  // From where the normal through the cone's point meets the sensor.
  const far = v * Math.tan(leanRad + halfAngleRad) - apexMm * across;
  const near = v * Math.tan(leanRad - halfAngleRad) - apexMm * across;
  const semiMajorMm = (far - near) / 2;
  const mid = (far + near) / 2;
  // Half the chord across the lean, through the ellipse's centre.
  const turned: Cone = { ...cone, axis: [across, 0, az] };
  const semiMinorMm = slice(turned, { x: mid, y: 0 }, { x: 0, y: 1 }).high;
  const [ux, uy] = across === 0 ? [1, 0] : [ax / across, ay / across];
  return {
    centre: { x: mid * ux, y: mid * uy },
    semiMajorMm,
    semiMinorMm,
    turnDeg: (Math.atan2(uy, ux) * 180) / Math.PI,
  };
}

/**
 * The edge of the cone on the sensor plane as a polygon round the place where the axis meets it,
 * cut off at `capMm` from there: for a cone that is open on one side.
 */
export function coneOutline(cone: Cone, capMm: number, directions = 240): Point[] {
  const from = axisPoint(cone);
  return Array.from({ length: directions }, (_, i) => {
    const angle = (2 * Math.PI * i) / directions;
    const direction = { x: Math.cos(angle), y: Math.sin(angle) };
    const far = Math.min(capMm, reach(cone, from, direction));
    return { x: from.x + far * direction.x, y: from.y + far * direction.y };
  });
}

/** Stands for no end, where a lens leans so far that its cone is open on one side. */
const FAR_MM = 1e4;

/** Straight sides that stand for a turning mechanism's circle. */
const SIDES = 144;

/**
 * Every place the frame's centre may take with its four corners inside the cone and the
 * mechanism's range kept, as a convex polygon in picture coordinates; empty when there is none.
 * @param size the frame's width and height
 * @param placing where movements as set put the centre
 */
export function envelope(
  cone: Cone,
  size: { widthMm: number; heightMm: number },
  mechanism: Mechanism,
  placing: Placing,
  directions = 180,
): Point[] {
  const centre = circleOnSensor(cone)?.centre ?? axisPoint(cone);
  const frame = { ...size, shiftMm: centre.x, riseMm: centre.y };
  // The region is convex and symmetric about the ellipse's centre: outside there means empty.
  if (!frameCovered(cone, frame)) return [];
  const corners = CORNERS.map((corner) => frameCorner(frame, corner));
  let polygon: Point[] = [];
  for (let i = 0; i < directions; i++) {
    const angle = (2 * Math.PI * i) / directions;
    const direction = { x: Math.cos(angle), y: Math.sin(angle) };
    const far = Math.max(
      0,
      Math.min(FAR_MM, ...corners.map((corner) => reach(cone, corner, direction))),
    );
    polygon.push({ x: centre.x + far * direction.x, y: centre.y + far * direction.y });
  }
  // As set: shift and rise of a place p are toSet(p), straight functions of x and y.
  const [perX, perY] = [stepToSet(placing, { x: 1, y: 0 }), stepToSet(placing, { x: 0, y: 1 })];
  const zero = toSet(placing, { x: 0, y: 0 });
  /** i × shift + j × rise ≤ most, as set. */
  const side = (i: number, j: number, most: number): [number, number, number] => [
    i * perX.shiftMm + j * perX.riseMm,
    i * perY.shiftMm + j * perY.riseMm,
    most - i * zero.shiftMm - j * zero.riseMm,
  ];
  const [fall, rise] = mechanism.rise;
  const [left, right] = mechanism.shift;
  const sides = [side(1, 0, right), side(-1, 0, -left), side(0, 1, rise), side(0, -1, -fall)];
  if (Number.isFinite(mechanism.radialMm)) {
    // Sides whose ends lie on the circle, so that no corner goes past the mechanism.
    const inscribed = mechanism.radialMm * Math.cos(Math.PI / SIDES);
    for (let i = 0; i < SIDES; i++) {
      const angle = (2 * Math.PI * i) / SIDES;
      sides.push(side(Math.cos(angle), Math.sin(angle), inscribed));
    }
  }
  for (const [a, b, c] of sides) {
    if (Number.isFinite(c)) polygon = clip(polygon, a, b, c);
  }
  return polygon;
}
