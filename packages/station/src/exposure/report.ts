import {
  bracketSpanStops,
  bracketTimesS,
  cornerFalloffStops,
  dialStep,
  givenTimeS,
} from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { layoutOf } from '../mosaic/layout.js';
import { workOf } from '../mosaic/work.js';
import { asShot, stationShot } from '../optical/held.js';
import { setupOf } from '../optical/setup.js';
import { finite } from '../words/finite.js';
import { clockAfter } from './clock.js';
import { flashAnswer } from './flash.js';
import { lightOf, reciprocityOf, type Light } from './light.js';
import { passingOf } from './passing.js';
import { EXPOSURE_SAYS, type ExposureProblemCode } from '../words/exposure-problems.js';
import { saidOf, type Severity } from '../words/findings.js';
import { findingsIn } from './problems.js';
import { SPAN_ROUNDING } from './range.js';
import { USUAL_STEPS, type Worked } from './worked.js';

export interface ExposureProblem {
  code: ExposureProblemCode;
  severity: Severity;
  message: string;
}

export interface ExposureReport extends Worked {
  problems: ExposureProblem[];
}

/** All exposures of a station one after the other, with the moving between them. */
function totalOf(station: Station, times: readonly (number | null)[]): number | null {
  const open = times.reduce<number | null>(
    (sum, each) => (sum === null || each === null ? null : sum + each),
    0,
  );
  if (open === null || times.length === 0) return null;
  const { mosaic } = station;
  if (!mosaic || station.held_off) return open;
  const layout = layoutOf(station);
  return open * layout.frames.length + workOf(station, layout).timeS;
}

type Times = Pick<
  Worked,
  'time_s' | 'given_s' | 'dial_s' | 'off_stops' | 'brackets_s' | 'brackets_dial_s'
>;

/** With flash, without a reading or without an image there is no time. */
const NO_TIMES: Times = {
  time_s: null,
  given_s: null,
  dial_s: null,
  off_stops: null,
  brackets_s: [],
  brackets_dial_s: [],
};

function timesOf(exposure: Exposure, { meteredS, bellowsStops, allStops }: Light): Times {
  if (exposure.flash || meteredS === null || bellowsStops === null) return NO_TIMES;
  const { shutter, brackets } = exposure;
  const film = reciprocityOf(exposure);
  const timeS = meteredS * 2 ** allStops;
  const given = givenTimeS(timeS, film);
  const scale = {
    steps: shutter?.steps ?? USUAL_STEPS,
    fastestS: shutter?.fastest_s,
    slowestS: shutter?.slowest_s,
  };
  const dial = given === null ? null : dialStep(given, scale);
  const brackets_s = bracketTimesS(timeS, brackets?.frames ?? 1, brackets?.step_stops ?? 0).map(
    (each) => givenTimeS(each, film),
  );
  return {
    time_s: timeS,
    given_s: given,
    dial_s: dial?.timeS ?? null,
    off_stops: dial?.offStops ?? null,
    brackets_s,
    brackets_dial_s: brackets_s.map((each) =>
      each === null ? null : (dialStep(each, scale)?.timeS ?? null),
    ),
  };
}

function rangeOf(
  { brackets, medium_range_stops: medium }: Exposure,
  { sceneRangeStops: scene }: Light,
): Pick<Worked, 'scene_range_stops' | 'span_stops' | 'covers_range'> {
  const span =
    medium === undefined
      ? null
      : bracketSpanStops(medium, brackets?.frames ?? 1, brackets?.step_stops ?? 0);
  return {
    scene_range_stops: scene,
    span_stops: span,
    covers_range: span === null || scene === null ? null : span >= scene - SPAN_ROUNDING,
  };
}

/** From the meter’s reading to what is set. */
export function exposureReport(given: Station, exposure: Exposure): ExposureReport {
  const station = stationShot(given);
  const s = asShot(setupOf(station));
  const light = lightOf(station, exposure);
  const times = timesOf(exposure, light);
  const total = totalOf(station, times.brackets_s);
  const { smearPx, skewPx } = passingOf(s, exposure, times.dial_s ?? times.given_s);
  const starts = exposure.starts_at;
  const worked: Worked = {
    bellows_stops: light.bellowsStops,
    multiplier_stops: light.multiplierStops,
    filter_stops: light.filterStops,
    added_stops: light.addedStops,
    compensation_stops: light.compensationStops,
    ...times,
    ...rangeOf(exposure, light),
    corner_stops: finite(cornerFalloffStops(s.cone, s.frame)),
    flash_stops: exposure.flash ? light.addedStops : null,
    flash: flashAnswer(exposure, light),
    smear_px: smearPx,
    skew_px: skewPx,
    total_s: total,
    ends_at: starts === undefined || total === null ? null : clockAfter(starts, total),
  };
  const problems = findingsIn(station, exposure, worked).map((each) => ({
    code: each.code,
    severity: each.severity,
    message: saidOf(EXPOSURE_SAYS, each),
  }));
  return { ...worked, problems };
}
