import {
  airyDiameterUm,
  angleFromAxis,
  bellowsStops,
  convergenceDeg,
  cornerFalloffStops,
  CORNERS,
  depthOfField,
  DIAGONAL_24X36_MM,
  effectiveFNumber,
  equivalentFocalLengthMm,
  fieldOfView,
  frameCorner,
  frameCovered,
  hingeDistanceMm,
  hyperfocalMm,
  magnificationAt,
  movementLimits,
  planeOfSharpFocus,
  ringRoomMm,
  stretchAt,
  verticalInSensor,
  worstCorner,
  type Limit,
  type Limits,
} from '@gangway/optics';
import { reportFacade } from './framing/facade.js';
import { reportTurnIn } from './framing/turn-in.js';
import { reportMarks } from './marks.js';
import type { Direction, Readings, Report } from './report.js';
import type { Station } from './schema.js';
import { rigReport } from './rig/report.js';
import { setup, UNBOUNDED, type Setup } from './setup.js';
import { hasSecondStandard } from './standards.js';

/** JSON has no infinity: a value without a finite number is null. Minus zero is zero. */
const finite = (value: number): number | null => (Number.isFinite(value) ? value + 0 : null);

const endOf = ({ mm }: Limit): number | null => (mm === null ? null : finite(mm));

/**
 * What a station gives outright: everything but what has to be searched for. Quick enough to
 * follow a hand on a scale.
 */
export function readings(station: Station): Readings {
  const s = setup(station);
  return {
    optics: optics(station, s),
    rig: rigReport(station, s),
    coverage: coverage(station, s),
    field: field(s),
    focus: focus(s),
    perspective: perspective(station, s),
    ...(station.facade ? { facade: reportFacade(station, s, station.facade) } : {}),
    ...(station.marks ? { marks: reportMarks(station, s) } : {}),
    ...(station.turn_in ? { turn_in: reportTurnIn(s, station.turn_in) } : {}),
  };
}

function optics(station: Station, s: Setup): Report['optics'] {
  const diagonal = Math.hypot(station.back.width_mm, station.back.height_mm);
  const focal = s.engravedMm * s.factor;
  return {
    focal_length_mm: focal,
    f_number: s.fNumber * s.factor,
    circle_diameter_mm: s.circleMm * s.factor,
    sensor_diagonal_mm: diagonal,
    coc_mm: s.cocMm * s.factor,
    pixel_pitch_um: s.pixelPitchMm === null ? null : s.pixelPitchMm * 1000,
    equivalent_35mm_mm: equivalentFocalLengthMm(focal, diagonal, DIAGONAL_24X36_MM),
  };
}

function coverage(station: Station, s: Setup): Report['coverage'] {
  const worst = worstCorner(s.cone, s.frame);
  const soft = worstCorner(s.core, s.frame);
  const limits = movementLimits(s.cone, s.frame, s.mechanism, s.placing, s.set);
  const second = secondStandard(station, s);
  return {
    covered: frameCovered(s.cone, s.frame),
    worst_corner: worst.corner,
    margin_mm: finite(worst.marginMm * s.factor),
    sharp: frameCovered(s.core, s.frame),
    sharp_margin_mm: finite(soft.marginMm * s.factor),
    limits: endsOf(limits),
    limited_by: {
      rise: limits.rise.by,
      fall: limits.fall.by,
      left: limits.left.by,
      right: limits.right.by,
    },
    ...(second ? { rear_limits: endsOf(second) } : {}),
    filter_clear: filterClear(station, s),
    corner_falloff_stops: finite(cornerFalloffStops(s.cone, s.frame)),
  };
}

const endsOf = ({ rise, fall, left, right }: Limits): Record<Direction, number | null> => ({
  rise_mm: endOf(rise),
  fall_mm: endOf(fall),
  left_mm: endOf(left),
  right_mm: endOf(right),
});

/** Limits of the back's own rise and shift, where the front moves and the back does too. */
function secondStandard(station: Station, s: Setup): Limits | null {
  if (!hasSecondStandard(station)) return null;
  const { movements: set, movement_limits: limits } = station;
  return movementLimits(
    s.cone,
    s.frame,
    {
      rise: limits.rear_rise_mm ?? UNBOUNDED,
      shift: limits.rear_shift_mm ?? UNBOUNDED,
      radialMm: Infinity,
    },
    s.placing,
    { riseMm: set.rear_rise_mm ?? 0, shiftMm: set.rear_shift_mm ?? 0 },
  );
}

/** Whether the ring of the lens's filter, if it has one, leaves all four corners free. */
export function filterClear(station: Station, s: Setup): boolean {
  const { filter } = station.lens;
  if (!filter) return true;
  const { clear_diameter_mm: clear, ahead_of_pupil_mm: ahead } = filter;
  return CORNERS.every((corner) => {
    const angle = angleFromAxis(s.cone, frameCorner(s.frame, corner));
    return ringRoomMm(clear, ahead, s.engravedMm / s.fNumber, angle, s.pupilRatio) >= 0;
  });
}

function field(s: Setup): Report['field'] {
  const seen = fieldOfView(s.frame, s.imageDistanceMm);
  return {
    left_deg: seen.leftDeg,
    right_deg: seen.rightDeg,
    up_deg: seen.upDeg,
    down_deg: seen.downDeg,
    horizontal_deg: seen.horizontalDeg,
    vertical_deg: seen.verticalDeg,
  };
}

function focus(s: Setup): Report['focus'] {
  const { focalLengthMm: f, imageDistanceMm: v, fNumber, cocMm, pupilRatio } = s;
  const axisZ = s.axis[2];
  const magnification = magnificationAt(f, axisZ, v);
  const acting = effectiveFNumber(fNumber, magnification, pupilRatio) * s.factor;
  const depth = depthOfField(s.pupil, v, fNumber, cocMm);
  const plane = planeOfSharpFocus(f, s.axis, v);
  return {
    image_distance_mm: v,
    magnification: magnification * s.factor,
    extension_mm: v - f,
    effective_f_number: acting,
    bellows_stops: bellowsStops(magnification, pupilRatio),
    hinge_mm: finite(hingeDistanceMm(f, s.axis)),
    hyperfocal_m: hyperfocalMm(f, fNumber, cocMm) / 1000,
    near_m: finite(depth.nearMm / 1000),
    far_m: finite(depth.farMm / 1000),
    plane: {
      normal: [plane.normal[0] + 0, plane.normal[1] + 0, plane.normal[2] + 0],
      distance_mm: finite(plane.distanceMm),
    },
    airy_um: airyDiameterUm(acting),
  };
}

function perspective(station: Station, s: Setup): Report['perspective'] {
  const { movements, camera } = station;
  const { frame, imageDistanceMm: v } = s;
  const vertical = verticalInSensor(
    camera.pitch_deg,
    movements.rear_tilt_deg ?? 0,
    movements.rear_swing_deg ?? 0,
  );
  const [halfWidth, halfHeight] = [frame.widthMm / 2, frame.heightMm / 2];
  return {
    convergence_deg: convergenceDeg(frame, v, vertical) + 0,
    stretch: {
      left: stretchAt(frame.shiftMm - halfWidth, frame.riseMm, v),
      right: stretchAt(frame.shiftMm + halfWidth, frame.riseMm, v),
      top: stretchAt(frame.shiftMm, frame.riseMm + halfHeight, v),
      bottom: stretchAt(frame.shiftMm, frame.riseMm - halfHeight, v),
    },
  };
}
