import {
  CORNERS,
  dot,
  focusedAtMagnification,
  frameCorner,
  imageDistanceFromDistance,
  radians,
  sensorBasis,
  UPRIGHT,
  type Budget,
  type Freedom,
  type SoftMark,
  type SolveMark,
  type SolveQuestion,
  type Vec3,
  leastOf,
  mostOf,
} from '@gangway/optics';
import { SOFT_COCS } from './marks.js';
import type { Mark, Station } from '../document/station.js';
import type { Setup } from '../optical/setup.js';
import { standardsOf } from '../document/standards.js';

/** A mark with its number in the station's list. */
export interface Numbered {
  readonly mark: Mark;
  readonly index: number;
  /** mm from the sensor mark along the body's axes: right, up, ahead. */
  readonly at: Vec3;
}

export interface Sorted {
  readonly sharp: readonly Numbered[];
  readonly soft: readonly Numbered[];
  /** Marks that something is asked of but that lie behind the camera. */
  readonly behind: readonly Numbered[];
}

/** Marks that something is asked of, as the solver takes them. */
export function sortedMarks(station: Station): Sorted {
  const { right, up, normal } = sensorBasis(station.camera.pitch_deg, station.camera.yaw_deg);
  const all = (station.marks ?? []).map((mark, index): Numbered => {
    const p: Vec3 = [mark.x_m * 1000, (mark.y_m - station.camera.height_m) * 1000, mark.z_m * 1000];
    return { mark, index, at: [dot(p, right), dot(p, up), dot(p, normal)] };
  });
  const asked = all.filter(({ mark }) => mark.must !== 'free');
  const ahead = asked.filter(({ at }) => at[2] > 0);
  return {
    sharp: ahead.filter(({ mark }) => mark.must === 'sharp'),
    soft: ahead.filter(({ mark }) => mark.must === 'soft'),
    behind: asked.filter(({ at }) => at[2] <= 0),
  };
}

/** A hair more than asked, so that the next engraved stop still leaves it soft: a third of a stop. */
const NEXT_STOP = 2 ** (1 / 6);

const solveMark = ({ at, mark }: Numbered): SolveMark => ({ at, infinite: mark.infinite === true });

const softMark = (each: Numbered, s: Setup): SoftMark => ({
  ...solveMark(each),
  blurMm:
    NEXT_STOP *
    (each.mark.blur_um === undefined ? SOFT_COCS * s.cocMm : each.mark.blur_um / 1000 / s.factor),
});

/**
 * The station as the search wants it.
 * @param cover half-angle about the axis that the frame has to lie in; null to leave that out
 */
export function questionOf(
  s: Setup,
  { sharp, soft }: Pick<Sorted, 'sharp' | 'soft'>,
  freedom: Freedom,
  cover: number | null,
  budget?: Budget,
): SolveQuestion {
  const { station } = s;
  return {
    focalLengthMm: focalLengthOf(s),
    pupilRatio: s.pupilRatio,
    cocMm: s.cocMm,
    widestFNumber: station.lens.f_min * s.combined,
    sharp: sharp.map(solveMark),
    soft: soft.map((each) => softMark(each, s)),
    freedom,
    standards: standardsOf(station),
    setting: settingEnds(s),
    cover:
      cover === null
        ? null
        : {
            corners: CORNERS.map((corner) =>
              frameCorner({ ...s.frame, shiftMm: s.slide.x, riseMm: s.slide.y }, corner),
            ),
            // A hair inside, so that what is found counts as covered.
            halfAngleRad: cover - 1e-6,
          },
    ...(budget ? { budget } : {}),
    start: { tilt: 0, swing: 0, setting: startSetting(s, sharp) },
  };
}

/** Settings from the farthest to the closest the rig goes. */
export function settingEnds({ facts, ahead }: Setup): readonly [number, number] {
  const { leastM, greatestM } = facts.reach;
  return [leastM * ahead, greatestM === null ? Infinity : greatestM * ahead];
}

/** Set on the bed a lens stays as it is; set by its own focusing it may shorten close up. */
function focalLengthOf(s: Setup): (setting: number) => number {
  const lens = s.facts.focusing;
  if (!lens.close || s.station.focus.image_distance_mm !== undefined) return () => s.engravedMm;
  const { ahead } = s;
  // A search leans at one setting several times over.
  let [last, known] = [NaN, NaN];
  return (m) => {
    if (m !== last) {
      known = ahead * focusedAtMagnification(lens, UPRIGHT, m / ahead).focalLengthMm;
      last = m;
    }
    return known;
  };
}

/**
 * Where a straight lens focuses the middle of the marks. Of the two places that image a distance,
 * the farther from life size; a lens that is set for close work stays where it is set.
 */
function startSetting(s: Setup, sharp: readonly Numbered[]): number {
  const { station } = s;
  const { focalLengthMm: f, imageDistanceMm: v } = s;
  if (!(station.focus.distance_m !== undefined) && v > CLOSE_WORK * f) return v / f - 1;
  const inverse = sharp.map(({ mark, at }) => (mark.infinite ? 0 : 1 / Math.max(at[2], f)));
  const middleMm = 2 / (leastOf(inverse) + mostOf(inverse));
  return middleMm > 4 * f ? imageDistanceFromDistance(f, 1, middleMm) / f - 1 : 1;
}

/** From half life size on. */
const CLOSE_WORK = 1.5;

/** Half-angle, seen from the exit pupil, that both circle and filter ring leave at a stop. */
export function usableHalfAngle(s: Setup): number {
  const { station } = s;
  const { filter } = station.lens;
  const circle = s.cone.halfAngleRad;
  if (!filter) return circle;
  const room = filter.clear_diameter_mm - s.engravedMm / s.fNumber;
  if (filter.ahead_of_pupil_mm === 0) return room >= 0 ? circle : radians(0.01);
  return Math.min(
    circle,
    Math.max(radians(0.01), Math.atan(room / (2 * filter.ahead_of_pupil_mm * s.pupilRatio))),
  );
}
