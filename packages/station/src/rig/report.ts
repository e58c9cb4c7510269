import { perRig } from '../optical/facts.js';
import type { Setup } from '../optical/setup.js';
import { blanksIn } from './blanks.js';
import {
  keepsApart,
  problemsIn,
  rigProblemSaid,
  type ProblemCode,
  type Severity,
} from './problems/index.js';

/** `null`: not known, or no finite value. */
export interface RigReport {
  /** Nothing stops the parts from going together. */
  mounts: boolean;
  reaches_infinity: boolean;
  /** From the sensor; null where infinity is reached, and where nothing can be focused. */
  farthest_focus_m: number | null;
  /** At the greatest extension; null where it is not known, and where nothing can be focused. */
  closest_focus_m: number | null;
  /** On the back; null where it is not known. */
  largest_magnification: number | null;
  /** As it stands: no where something known forbids it, may where a blank decides. */
  works: 'yes' | 'may' | 'no';
  /** JSON pointers of the blanks that decide whether the parts go together. */
  unknown: string[];
  problems: { code: ProblemCode; severity: Severity; message: string; cure: string }[];
}

const metresOrNull = (mm: number | null): number | null =>
  mm === null || !Number.isFinite(mm) ? null : Number((mm / 1000).toPrecision(12));

/** How far the gear focuses. */
const reachSaid = perRig(({ reach, ahead, behind }) => ({
  reaches_infinity: reach.reachesInfinity,
  farthest_focus_m: metresOrNull(reach.farthestMm),
  closest_focus_m: metresOrNull(reach.closestMm),
  largest_magnification:
    reach.largestMagnification === null ? null : reach.largestMagnification * ahead * behind,
}));

/** The report's `rig` part. */
export function rigReport(s: Setup): RigReport {
  const reach = reachSaid(s.facts);
  const problems = problemsIn(s);
  const unknown = blanksIn(s).map(({ pointer }) => pointer);
  const stopped = problems.some(({ severity }) => severity === 'stop');
  return {
    mounts: !problems.some(keepsApart),
    reaches_infinity: reach.reaches_infinity,
    farthest_focus_m: reach.farthest_focus_m,
    closest_focus_m: reach.closest_focus_m,
    largest_magnification: reach.largest_magnification,
    works: stopped ? 'no' : unknown.length > 0 ? 'may' : 'yes',
    unknown,
    problems: problems.map((problem) => {
      const { code, severity } = problem;
      const { message, cure } = rigProblemSaid(problem);
      return { code, severity, message, cure };
    }),
  };
}
