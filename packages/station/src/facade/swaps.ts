import { lensFrom, withRig, type Stored } from '../kit/assemble.js';
import type { KitItemOf } from '../kit/schema.js';
import { rigProblems } from '../rig/problems/index.js';
import type { Station } from '../document/station.js';
import type { FramingQuestion } from './ways/kind.js';

/**
 * The station with each other lens of the kit in its rig: those that go together with the rest
 * and focus where it is set.
 */
export function lensSwaps(
  station: Station,
  lenses: readonly Stored<KitItemOf<'lens'>>[],
): FramingQuestion['swaps'] {
  // What the movements were given for by hand goes with the camera, not with the lens.
  const ofCamera = station.chain.some(
    (part) => (part.kind === 'view_camera' || part.kind === 'adapter') && !part.movement,
  );
  return lenses
    .filter(({ document }) => document.focal_length_mm !== station.lens.focal_length_mm)
    .flatMap(({ document, ...stored }) => {
      const swapped = withRig(station, {
        lens: lensFrom({ ...stored, document }),
        chain: station.chain,
        back: station.back,
        ...(ofCamera && !document.movement ? { movement_limits: station.movement_limits } : {}),
      });
      const stopped = rigProblems(swapped).some(
        ({ severity, code }) => severity === 'stop' && code !== 'axes_locked',
      );
      return stopped ? [] : [{ name: document.name, station: swapped }];
    });
}
