import type { Station } from '../document/station.js';
import type { Carrier } from '../mosaic/carrier.js';
import type { LaidFrame } from '../mosaic/layout.js';
import type { Setting } from './order.js';

/** A back that stops at dots of its own: which one, and which way the hand goes to it. */

/** As near as a stop is told from its neighbour, mm and degrees. */
const SAME_MM = 0.01;
const SAME_DEG = 0.1;

const ways = (value: number, [plus, minus]: readonly [string, string]): string =>
  Math.abs(value) < SAME_MM ? '' : value > 0 ? plus : minus;

const joined = (parts: readonly string[], none: string): string =>
  parts.filter(Boolean).join(' and ') || none;

/** The stop a frame stands at; null where the back has none, or none there. */
export function dotSaid(
  { movement_limits: { frame_stops: given } }: Station,
  { stops }: Carrier,
  frame: Pick<LaidFrame, 'set' | 'rotationDeg'>,
): { says: string; sets: Setting[] } | null {
  if (!stops || !given) return null;
  const index = stops.findIndex(
    (stop) =>
      Math.hypot(stop.riseMm - frame.set.riseMm, stop.shiftMm - frame.set.shiftMm) < SAME_MM &&
      Math.abs(stop.rotationDeg - frame.rotationDeg) < SAME_DEG,
  );
  if (index < 0) return null;
  const { riseMm, shiftMm } = stops[index]!;
  const set = (said: string): Setting[] => [
    { control: { kind: 'dots' }, to: index, said, way: '' },
  ];
  if ('turns' in given) {
    const said = `stop ${index + 1} of ${given.turns}`;
    return { says: `Turn the adapter to its ${said}`, sets: set(said) };
  }
  // The picture looks higher and further right as the back goes down and to the left.
  const hand = joined(
    [ways(shiftMm, ['to the left', 'to the right']), ways(riseMm, ['down', 'up'])],
    'in its middle',
  );
  const seen = joined([ways(shiftMm, ['right', 'left']), ways(riseMm, ['top', 'foot'])], 'middle');
  const said =
    'columns' in given
      ? `column ${(index % given.columns) + 1}, row ${Math.floor(index / given.columns) + 1}`
      : `dot ${index + 1} of ${stops.length}`;
  const dot = 'columns' in given ? `the dot of ${said} of the picture` : `its ${said}`;
  return {
    says: `Slide the back to ${dot}: back ${hand}, the ${seen} of the picture`,
    sets: set(said),
  };
}
