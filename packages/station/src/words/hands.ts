import type { Station } from '../document/station.js';
import { mm } from './format.js';

type Placed = Pick<Station, 'movements' | 'movement_limits' | 'chain'>;

/** Less of a movement than this nobody sets. */
const SEEN_MM = 0.05;

const WAYS = {
  front: { rise: ['Raise', 'Lower'], shift: ['right', 'left'] },
  // The picture looks higher as the back goes down, and further right as it goes left.
  back: { rise: ['Lower', 'Raise'], shift: ['left', 'right'] },
} as const;

/**
 * A rise or a shift as the hand does it: “Lower the back 6.0 mm”.
 * @param standard what moves
 * @param mmSet named by what the picture does: higher and further right are positive
 */
export function moveSaid(
  { chain }: Pick<Station, 'chain'>,
  standard: 'front' | 'back',
  movement: 'rise' | 'shift',
  mmSet: number,
): string {
  const bellows = chain.some(({ kind }) => kind === 'view_camera');
  const what = standard === 'back' ? 'the back' : bellows ? 'the front standard' : 'the lens';
  const way = WAYS[standard][movement][mmSet < 0 ? 1 : 0];
  const size = mm(Math.abs(mmSet));
  return movement === 'rise' ? `${way} ${what} ${size}` : `Shift ${what} ${size} ${way}`;
}

/** Which standard carries the plain rise and shift. */
export const standardOf = ({ movement_limits: { moves } }: Pick<Station, 'movement_limits'>) =>
  moves === 'rear' ? ('back' as const) : ('front' as const);

/** Everything that is shifted on a station, each standard by itself, as the hand does it. */
export function movesSaid(station: Placed): string[] {
  const { movements: set } = station;
  const own = standardOf(station);
  const all = [
    [own, 'rise', set.rise_mm],
    [own, 'shift', set.shift_mm],
    ['back', 'rise', set.rear_rise_mm ?? 0],
    ['back', 'shift', set.rear_shift_mm ?? 0],
  ] as const;
  return all
    .filter(([, , value]) => Math.abs(value) >= SEEN_MM)
    .map(([standard, movement, value]) => `${moveSaid(station, standard, movement, value)}.`);
}

/** Which standard to use for what, where a camera moves both (common practice, no source). */
export const FRONT_OR_BACK = {
  shift:
    'Shift the back for a stitch and for the last millimetre of the frame: the lens stays still, so near and far do not part. Shift the front where the back cannot go.',
  lean: 'Lean the front for sharpness: shapes stay as they are. Lean the back for shape: upright and level lines change with it.',
} as const;
