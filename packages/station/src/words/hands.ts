import type { Station } from '../document/station.js';
import type { Movement, RearMovement } from '../document/movements.js';
import { degrees, mm } from './format.js';
import { MOVEMENT_NAMES, sense } from './names.js';

/** Less of a movement than this nobody sets, in mm or degrees. */
const SEEN = 0.05;

const WAYS = {
  front: { rise: ['Raise', 'Lower'], shift: ['right', 'left'] },
  // The picture looks higher as the back goes down, and further right as it goes left.
  back: { rise: ['Lower', 'Raise'], shift: ['left', 'right'] },
} as const;

/** What moves, by its name on this rig. */
export function standardSaid(
  { chain }: Pick<Station, 'chain'>,
  standard: 'front' | 'back',
): string {
  if (standard === 'back') return 'the back';
  return chain.some(({ kind }) => kind === 'view_camera') ? 'the front standard' : 'the lens';
}

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
  const what = standardSaid({ chain }, standard);
  const way = WAYS[standard][movement][mmSet < 0 ? 1 : 0];
  const size = mm(Math.abs(mmSet));
  return movement === 'rise' ? `${way} ${what} ${size}` : `Shift ${what} ${size} ${way}`;
}

/** Which standard carries the plain rise and shift. */
export const standardOf = ({ movement_limits: { moves } }: Pick<Station, 'movement_limits'>) =>
  moves === 'rear' ? ('back' as const) : ('front' as const);

/** Where the back carries rise and shift, and so goes the other way than the picture. */
const BACK = {
  rise_mm: { noun: ['drop of the back', 'lift of the back'], done: ['lowered', 'raised'] },
  shift_mm: {
    noun: ['shift of the back to the left', 'shift of the back to the right'],
    done: ['left', 'right'],
  },
} as const;

const isLinear = (field: string): field is keyof typeof BACK => field in BACK;

/** A movement as a thing that can be eased: “rise”, or “drop of the back” where that moves. */
export function movedNoun(
  station: Pick<Station, 'movement_limits'>,
  field: Movement | RearMovement,
  value: number,
): string {
  return isLinear(field) && standardOf(station) === 'back'
    ? BACK[field].noun[value < 0 ? 1 : 0]
    : sense(field, value);
}

/** A movement that was set, to stand after “with”: “8.3 mm of rise”, “the back lowered 8.3 mm”. */
export function movedSaid(
  station: Pick<Station, 'movement_limits'>,
  field: Movement | RearMovement,
  value: number,
): string {
  const size = field.endsWith('_mm') ? mm(Math.abs(value)) : degrees(Math.abs(value));
  const back = isLinear(field) && standardOf(station) === 'back';
  if (Math.abs(value) < SEEN) return `no ${MOVEMENT_NAMES[field]}${back ? ' of the back' : ''}`;
  if (!back) return `${size} of ${sense(field, value)}`;
  const done = BACK[field].done[value < 0 ? 1 : 0];
  return field === 'rise_mm' ? `the back ${done} ${size}` : `the back shifted ${size} ${done}`;
}

/** Which standard to use for what, where a camera moves both (common practice, no source). */
export const FRONT_OR_BACK = {
  shift:
    'Shift the back for a stitch and for the last millimetre of the frame: the lens stays still, so near and far do not part. Shift the front where the back cannot go.',
  lean: 'Lean the front for sharpness: shapes stay as they are. Lean the back for shape: upright and level lines change with it.',
} as const;
