import {
  areaOf,
  clipToRectangle,
  convergenceDeg,
  correctionStretch,
  degrees,
  toLevel,
  toPitched,
  verticalInSensor,
  type Frame,
  type Point,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

/** What correcting a pitched picture costs. */
export interface PitchCost {
  readonly convergenceDeg: number;
  /** Stretch across at the edge where the picture is drawn out most. */
  readonly stretchAtTop: number;
  /** Pixels of the sensor that the corrected picture is made of, as a share of all. */
  readonly keptShare: number;
}

const cornersOf = (frame: Frame): Point[] => {
  const [x, y] = [frame.widthMm / 2, frame.heightMm / 2];
  return [
    { x: frame.shiftMm - x, y: frame.riseMm - y },
    { x: frame.shiftMm + x, y: frame.riseMm - y },
    { x: frame.shiftMm + x, y: frame.riseMm + y },
    { x: frame.shiftMm - x, y: frame.riseMm + y },
  ];
};

/** The largest upright rectangle, as high as the corrected picture, that is full of picture. */
function uprightPart(outline: readonly Point[]): Point[] {
  const ys = outline.map(({ y }) => y);
  const [bottom, top] = [Math.max(ys[0]!, ys[1]!), Math.min(ys[2]!, ys[3]!)];
  const left = Math.max(outline[0]!.x, outline[3]!.x);
  const right = Math.min(outline[1]!.x, outline[2]!.x);
  return [
    { x: left, y: bottom },
    { x: right, y: bottom },
    { x: right, y: top },
    { x: left, y: top },
  ];
}

/** Price of making the verticals of a pitched station upright afterwards. */
export function evaluatePitch(station: Station): PitchCost {
  const s = setupOf(station);
  const { frame, imageDistanceMm: v } = s;
  const pitch = station.camera.pitch_deg + (station.movements.rear_tilt_deg ?? 0);
  const far = pitch > 0 ? frame.riseMm + frame.heightMm / 2 : frame.riseMm - frame.heightMm / 2;
  const level = cornersOf(frame).map((corner) => toLevel(corner, v, pitch));
  const kept = level.includes(null)
    ? []
    : uprightPart(level as Point[]).map((corner) => toPitched(corner, v, pitch));
  const share = kept.includes(null)
    ? 0
    : areaOf(kept as Point[]) / (frame.widthMm * frame.heightMm);
  return {
    convergenceDeg: convergenceDeg(
      frame,
      v,
      verticalInSensor(
        station.camera.pitch_deg,
        station.movements.rear_tilt_deg ?? 0,
        station.movements.rear_swing_deg ?? 0,
      ),
    ),
    stretchAtTop: correctionStretch(v, pitch, far).across,
    keptShare: Math.min(1, share),
  };
}

/** The same picture by pointing the camera and correcting, against the shift that is set. */
export interface SoftwareComparison {
  /** Pitch that centres the picture without any rise, degrees. */
  readonly pitchDeg: number;
  /** Stretch across and up at the picture's top and foot. */
  readonly top: { readonly across: number; readonly up: number };
  readonly foot: { readonly across: number; readonly up: number };
  /** Sensor pixels that show the picture, as a share of the shifted frame's own. */
  readonly pixelShare: number;
  /** Share of the picture that the pitched sensor does not see. */
  readonly fieldLost: number;
  readonly megapixels: { readonly shifted: number; readonly corrected: number } | null;
  /** The wanted picture in level coordinates, and the part of it the pitched sensor sees. */
  readonly wanted: readonly Point[];
  readonly seen: readonly Point[];
  /** The wanted picture as the pitched sensor has it, and the sensor there. */
  readonly pitched: readonly Point[];
  readonly sensor: readonly Point[];
}

/**
 * What one gets without rise: the camera points at the height of the picture's middle, the shift
 * stays, and the picture is corrected until it is the shifted one.
 * @returns null when the camera is not level to begin with, or no such picture exists
 */
export function inSoftware(station: Station): SoftwareComparison | null {
  const s = setupOf(station);
  const { frame, imageDistanceMm: v, factor } = s;
  if (Math.abs(station.camera.pitch_deg + (station.movements.rear_tilt_deg ?? 0)) > 1e-9)
    return null;
  const pitchDeg = degrees(Math.atan(frame.riseMm / v));
  const wanted = cornersOf(frame);
  const pitched = wanted.map((corner) => toPitched(corner, v, pitchDeg));
  if (pitched.includes(null)) return null;
  const sensor = cornersOf({ ...s.whole, riseMm: 0 });
  const [x, y] = [s.whole.widthMm / 2, s.whole.heightMm / 2];
  const onSensor = clipToRectangle(pitched as Point[], {
    left: s.whole.shiftMm - x,
    right: s.whole.shiftMm + x,
    bottom: -y,
    top: y,
  });
  const seen = onSensor.map((corner) => toLevel(corner, v, pitchDeg)!);
  const area = frame.widthMm * frame.heightMm;
  const top = toPitched({ x: frame.shiftMm, y: frame.riseMm + frame.heightMm / 2 }, v, pitchDeg)!;
  const foot = toPitched({ x: frame.shiftMm, y: frame.riseMm - frame.heightMm / 2 }, v, pitchDeg)!;
  const pixels = (mm2: number): number => (mm2 * factor * factor) / s.pixelPitchMm! ** 2 / 1e6;
  const out = ({ x: px, y: py }: Point): Point => ({ x: px * factor, y: py * factor });
  return {
    pitchDeg,
    top: correctionStretch(v, pitchDeg, top.y),
    foot: correctionStretch(v, pitchDeg, foot.y),
    pixelShare: areaOf(onSensor) / area,
    fieldLost: Math.max(0, 1 - areaOf(seen) / area),
    megapixels:
      s.pixelPitchMm === null
        ? null
        : { shifted: pixels(area), corrected: pixels(areaOf(onSensor)) },
    wanted: wanted.map(out),
    seen: seen.map(out),
    pitched: (pitched as Point[]).map(out),
    sensor: sensor.map(out),
  };
}
