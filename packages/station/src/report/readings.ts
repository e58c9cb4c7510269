import {
  airyDiameterUm,
  bellowsStops,
  depthOfField,
  DIAGONAL_24X36_MM,
  effectiveFNumber,
  equivalentFocalLengthMm,
  fieldOfView,
  hingeDistanceMm,
  hyperfocalMm,
  magnificationAt,
  planeOfSharpFocus,
} from '@gangway/optics';
import { assumptionsOf } from './assumed.js';
import { measurementsOf } from './measured.js';
import { turningOf } from '../optical/turning.js';
import { reportFacade } from '../facade/facade.js';
import { reportTurnIn } from '../facade/turn-in.js';
import { heldSetup } from '../focus/held-setup.js';
import { reportMarks } from '../focus/marks.js';
import type { Readings, Report } from './report.js';
import { reportCoverage } from '../cover/coverage.js';
import type { Station } from '../document/station.js';
import { rigReport } from '../rig/report.js';
import { setup, type Setup } from '../optical/setup.js';
import { reportPerspective } from '../optical/perspective.js';
import { finite } from '../words/finite.js';

/**
 * What a station gives outright: everything but what has to be searched for. Quick enough to
 * follow a hand on a scale.
 */
export function readings(station: Station): Readings {
  const s = setup(station);
  const { held_off } = station;
  const measured = measurementsOf(station).map(({ pointer, why }) => ({ pointer, why }));
  return {
    optics: optics(station, s),
    rig: rigReport(station, s),
    coverage: reportCoverage(station, s),
    field: field(s),
    focus: focus(s),
    perspective: reportPerspective(station, s),
    ...(station.facade ? { facade: reportFacade(station, s, station.facade) } : {}),
    ...(station.marks
      ? { marks: reportMarks(station, held_off ? heldSetup(station, held_off, s) : s) }
      : {}),
    ...(station.turn_in ? { turn_in: reportTurnIn(s, station.turn_in) } : {}),
    turning: turning(station),
    assumed: assumptionsOf(station, s).map(({ pointer, value, why }) => ({ pointer, value, why })),
    ...(measured.length > 0 ? { measured } : {}),
  };
}

function turning(station: Station): Report['turning'] {
  const found = turningOf(station);
  return (
    found && {
      angle_deg: found.angleDeg,
      ...(found.tiltAngleDeg === null ? {} : { tilt_angle_deg: found.tiltAngleDeg }),
      shift_mm: found.shiftMm,
      tilt_deg: found.tiltDeg,
      reached: found.reached,
      off_mm: found.offMm,
      off_deg: found.offDeg,
    }
  );
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
