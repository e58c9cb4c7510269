import type { Report } from '../report.js';
import type { Station } from '../schema.js';
import type { Setup } from '../setup.js';
import { keepsApart, rigProblems } from './problems/index.js';
import { reachOf, stackOf } from './stack.js';

const metresOrNull = (mm: number | null): number | null =>
  mm === null || !Number.isFinite(mm) ? null : Number((mm / 1000).toPrecision(12));

/** The report's `rig` part. */
export function rigReport(station: Station, s: Setup): Report['rig'] {
  const stack = stackOf(station);
  const reach = reachOf(station, stack);
  const problems = rigProblems(station, s, stack, reach);
  return {
    mounts: !problems.some(keepsApart),
    reaches_infinity: reach.reachesInfinity,
    farthest_focus_m: metresOrNull(reach.farthestMm),
    closest_focus_m: metresOrNull(reach.closestMm),
    largest_magnification:
      reach.largestMagnification === null ? null : reach.largestMagnification * s.ahead * s.factor,
    problems: problems.map(({ code, severity, message, cure }) => ({
      code,
      severity,
      message,
      cure,
    })),
  };
}
