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
import { assumedLines } from './assumed.js';
import { measuredWhy, measurementsOf } from './measured.js';
import { turningOf } from '../optical/turning.js';
import { reportFacade } from '../facade/facade.js';
import { reportTurnIn } from '../facade/turn-in.js';
import { asShot } from '../optical/held.js';
import { reportMarks } from '../focus/marks.js';
import type { Readings, Report } from './report.js';
import { reportCoverage } from '../cover/coverage.js';
import type { Station } from '../document/station.js';
import { rigReport } from '../rig/report.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { reportPerspective } from '../optical/perspective.js';
import { NO_IMAGE } from '../words/no-image.js';
import { finite } from '../words/finite.js';

/** Every section by its name: worked out from a setup alone. Undefined where a station has none. */
const SECTIONS = {
  optics,
  rig: rigReport,
  coverage: reportCoverage,
  field,
  focus,
  perspective: reportPerspective,
  facade: (s: Setup) => (s.station.facade ? reportFacade(s, s.station.facade) : undefined),
  marks: (s: Setup) => (s.station.marks ? reportMarks(asShot(s)) : undefined),
  turn_in: (s: Setup) => (s.station.turn_in ? reportTurnIn(s, s.station.turn_in) : undefined),
  turning: ({ station }: Setup) => turning(station),
  assumed: assumedLines,
  measured: ({ station }: Setup) => {
    const found = measurementsOf(station).map((each) => ({
      pointer: each.pointer,
      why: measuredWhy(each),
    }));
    return found.length > 0 ? found : undefined;
  },
} satisfies { [Name in keyof Required<Readings>]: (s: Setup) => Readings[Name] };

type Section = keyof typeof SECTIONS;

const NAMES = Object.keys(SECTIONS) as Section[];

/**
 * What a station gives outright, each section worked out when it is first read: a page pays for what
 * it shows. For all of them as plain data see {@link readings}.
 */
export class Reading implements Readings {
  readonly #setup: Setup;
  readonly #known: { [Name in Section]?: Readings[Name] } = {};

  constructor(s: Setup) {
    this.#setup = s;
  }

  #read<Name extends Section>(name: Name): NonNullable<Readings[Name]> {
    const known = this.#known;
    // What a station has not is asked again: that costs a look at one field.
    if (known[name] === undefined) known[name] = SECTIONS[name](this.#setup) as Readings[Name];
    return known[name] as NonNullable<Readings[Name]>;
  }

  get optics() {
    return this.#read('optics');
  }
  get rig() {
    return this.#read('rig');
  }
  get coverage() {
    return this.#read('coverage');
  }
  get field() {
    return this.#read('field');
  }
  get focus() {
    return this.#read('focus');
  }
  get perspective() {
    return this.#read('perspective');
  }
  get facade(): Readings['facade'] {
    return this.#read('facade');
  }
  get marks(): Readings['marks'] {
    return this.#read('marks');
  }
  get turn_in(): Readings['turn_in'] {
    return this.#read('turn_in');
  }
  get turning(): Readings['turning'] {
    return this.#read('turning');
  }
  get assumed() {
    return this.#read('assumed');
  }
  get measured(): Readings['measured'] {
    return this.#read('measured');
  }

  /** All sections, as they stand in a report. */
  toJSON(): Readings {
    const all: Record<string, unknown> = {};
    for (const name of NAMES) {
      const section = this[name];
      if (section !== undefined) all[name] = section;
    }
    return all as unknown as Readings;
  }
}

/** A station's figures, for a page that reads some of them. */
export const readingOf = (station: Station): Reading => new Reading(setupOf(station));

/** All that a station gives outright: everything but what has to be searched for. */
export function readings(station: Station): Readings {
  const s = setupOf(station);
  const all: Record<string, unknown> = {};
  for (const name of NAMES) {
    const section = SECTIONS[name](s);
    if (section !== undefined) all[name] = section;
  }
  return all as unknown as Readings;
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

function optics(s: Setup): Report['optics'] {
  const { station } = s;
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
  const bellows = finite(bellowsStops(magnification, pupilRatio));
  const acting =
    bellows === null ? null : effectiveFNumber(fNumber, magnification, pupilRatio) * s.factor;
  const depth = depthOfField(s.pupil, v, fNumber, cocMm);
  const plane = planeOfSharpFocus(f, s.axis, v);
  return {
    image_distance_mm: v,
    magnification: magnification * s.factor,
    extension_mm: v - f,
    effective_f_number: acting,
    bellows_stops: bellows,
    hinge_mm: finite(hingeDistanceMm(f, s.axis)),
    hyperfocal_m: hyperfocalMm(f, fNumber, cocMm) / 1000,
    near_m: finite(depth.nearMm / 1000),
    far_m: finite(depth.farMm / 1000),
    plane: {
      normal: [plane.normal[0] + 0, plane.normal[1] + 0, plane.normal[2] + 0],
      distance_mm: finite(plane.distanceMm),
    },
    airy_um: acting === null ? null : airyDiameterUm(acting),
    ...(acting === null ? { no_image: NO_IMAGE } : {}),
  };
}
