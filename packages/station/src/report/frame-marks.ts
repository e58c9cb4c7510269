import { newBudget, spend } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { reportMarks } from '../focus/marks.js';
import { atLaidFrame, layoutOf } from '../mosaic/layout.js';
import { setupOf } from '../optical/setup.js';

/** What a frame costs, and each mark looked at in it. */
const [FRAME_STEPS, MARK_STEPS] = [2000, 100];
const NOT_ASKED = 'So many frames and marks are not looked through one by one.';

/**
 * Which marks each frame of a mosaic sees, and which of them are not as wanted in it: the plane of
 * focus stays with a back that moves and travels with a lens that moves. Null where it sees none;
 * where very many frames and marks use up the steps, it is said.
 */
export function marksByFrame(station: Station, budget = newBudget()): (string | null)[] {
  const marks = station.marks ?? [];
  if (!station.mosaic || marks.length === 0) return [];
  const layout = layoutOf(station);
  return layout.frames.map((_, i) => {
    if (!spend(budget, FRAME_STEPS + MARK_STEPS * marks.length)) return NOT_ASKED;
    const one = atLaidFrame(station, layout, i);
    const seen = reportMarks(setupOf(one)).filter(({ in_frame }) => in_frame);
    if (seen.length === 0) return null;
    const off = seen.filter(({ holds }) => !holds);
    const names = (of: typeof seen): string => of.map(({ label }) => label || 'a mark').join(', ');
    return off.length === 0
      ? `Holds ${names(seen)}.`
      : `Sees ${names(seen)}; ${names(off)} not as wanted.`;
  });
}
