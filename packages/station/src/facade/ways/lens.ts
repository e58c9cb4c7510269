import { stopsBetween } from '@gangway/optics';
import { trimmed } from '../../words/format.js';
import { movedToFrame } from '../place.js';
import type { FramingKind } from './kind.js';

const MOST = 3;

/** Another lens of the kit in the same rig. */
export const lens: FramingKind = ({ station, swaps }) =>
  swaps
    .flatMap(({ name, station: swapped }) => {
      const after = movedToFrame(swapped);
      if (!after) return [];
      const from = station.lens.focal_length_mm;
      const to = after.lens.focal_length_mm;
      const slower = Math.max(0, stopsBetween(station.aperture, after.aperture));
      return [
        {
          says: ['/lens', '/movement_limits', '/chain'],
          id: `frame-lens-${name}`,
          title: `Use ${name}`,
          price: `${trimmed(to, 1)} mm instead of ${trimmed(from, 1)} mm, so everything is ${trimmed(to / from, 2)} × the size`,
          // An octave of focal length is a heavy price; a lens that is there is a light one.
          cost: 1 + 3 * Math.abs(Math.log2(to / from)) + slower / 2,
          after,
        },
      ];
    })
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST);
