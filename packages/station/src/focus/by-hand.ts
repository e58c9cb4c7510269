import {
  bestImageDistanceMm,
  degrees as toDegrees,
  ringFNumber,
  settingForPlane,
  spreadWhereSchoolsMeetMm,
  stopForSpread,
  stopForSpreadAndCoc,
  planeThrough,
  tiltSwingOf,
  type Vec3,
  leastOf,
} from '@gangway/optics';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

/** What two readings on the bed scale give, without a plan of the marks. */
export interface BedAnswer {
  readonly spreadMm: number;
  /** Where to set the standard on the same scale. */
  readonly focusAtMm: number;
  /** Both as they act on the sensor; what is engraved on the ring stands in `ring`. */
  readonly ring: {
    readonly byDiffraction: number;
    readonly byCoc: number;
    /** Infinity's place is not read: the draw is that of the focus that is set. */
    readonly byFocusSet: boolean;
  };
  /** From diffraction: √(375 Δ). */
  readonly byDiffraction: number;
  /** From the circle of confusion: Δ/(2c). */
  readonly byCoc: number;
  /** The spread at which both ask for the same. */
  readonly meetMm: number;
  readonly lean: BedLean | null;
}

/** How to lean so that both marks are sharp at once, from their heights on the glass. */
export interface BedLean {
  /** Of the lens; null where no lean of the lens does it. */
  readonly frontDeg: number | null;
  /** Of the back, its top away from the lens positive. */
  readonly rearDeg: number;
  /** By the rule of thumb f/(5 J), J in feet. Source: Merklinger (1993), from memory. */
  readonly thumbDeg: number | null;
}

/** Null until both readings are given. */
export function bedAnswer(station: Station): BedAnswer | null {
  const { bed } = station;
  if (bed?.near_mm === undefined || bed.far_mm === undefined) return null;
  const s = setupOf(station);
  const { focalLengthMm: f } = s;
  const spreadMm = Math.abs(bed.near_mm - bed.far_mm);
  const zero = bed.infinity_mm;
  const depths =
    zero === undefined ? null : ([f + bed.near_mm - zero, f + bed.far_mm - zero] as const);
  const middle = (bed.near_mm + bed.far_mm) / 2;
  const focusAtMm =
    depths === null || leastOf(depths) <= 0
      ? middle
      : bestImageDistanceMm(depths, (s.pupilRatio - 1) * f) - f + zero!;
  // Without infinity's place on the scale the focus that is set stands in.
  const m = (depths === null ? s.imageDistanceMm * s.axis[2] : (depths[0] + depths[1]) / 2) / f - 1;
  const onRing = (acting: number): number =>
    ringFNumber(acting, m, s.pupilRatio) / s.combined / s.factor;
  const [byDiffraction, byCoc] = [
    stopForSpread(spreadMm),
    stopForSpreadAndCoc(spreadMm, s.cocMm * s.factor),
  ];
  return {
    spreadMm,
    focusAtMm,
    byDiffraction,
    byCoc,
    ring: {
      byDiffraction: onRing(byDiffraction),
      byCoc: onRing(byCoc),
      byFocusSet: depths === null,
    },
    meetMm: spreadWhereSchoolsMeetMm(s.cocMm * s.factor),
    lean: depths === null ? null : leanFrom(station, f, depths),
  };
}

const FOOT_MM = 304.8;

function leanFrom(
  { bed }: Station,
  f: number,
  [near, far]: readonly [number, number],
): BedLean | null {
  const { near_up_mm: nearUp, far_up_mm: farUp } = bed!;
  if (nearUp === undefined || farUp === undefined || nearUp === farUp) return null;
  // A straight lens images each mark at its own depth; at the focal length it lies far off.
  const place = (q: number, up: number): Vec3 => {
    const z = q - f <= 1e-6 ? 1e9 : (f * q) / (q - f);
    return [0, (up * z) / q, z];
  };
  const [a, b] = [place(near, nearUp), place(far, farUp)];
  const plane = planeThrough(a, b, [1000, a[1], a[2]]);
  const setting = plane && settingForPlane(f, plane);
  // Where the line through both marks crosses the lens plane lies the hinge, for a first reading.
  const slope = (b[1] - a[1]) / (b[2] - a[2]);
  const below = Math.abs(a[1] - slope * a[2]);
  return {
    frontDeg: setting ? tiltSwingOf(setting.axis).tiltDeg : null,
    rearDeg: toDegrees(Math.atan((near - far) / (farUp - nearUp))),
    thumbDeg: below > f ? f / (5 * (below / FOOT_MM)) : null,
  };
}
