import type { Corner } from '@gangway/optics';
import type { Movement, RearMovement } from '../document/movements.js';
import type { Station } from '../document/station.js';
import { fixed, trimmed } from './format.js';

/** What things are called, in one place. */

export const CORNER_NAMES: Record<Corner, string> = {
  top_left: 'top left',
  top_right: 'top right',
  bottom_left: 'bottom left',
  bottom_right: 'bottom right',
};

export const MOVEMENT_NAMES: Record<Movement | RearMovement, string> = {
  rise_mm: 'rise',
  shift_mm: 'shift',
  tilt_deg: 'tilt',
  swing_deg: 'swing',
  rear_rise_mm: 'rise of the back',
  rear_shift_mm: 'shift of the back',
  rear_tilt_deg: 'tilt of the back',
  rear_swing_deg: 'swing of the back',
};

/** A movement by its sense: a negative rise is a fall. */
export function sense(movement: Movement | RearMovement, value: number): string {
  if (movement.startsWith('rear_')) return MOVEMENT_NAMES[movement];
  if (movement === 'rise_mm') return value < 0 ? 'fall' : 'rise';
  if (movement === 'shift_mm') return value < 0 ? 'shift left' : 'shift right';
  if (movement === 'tilt_deg') return value < 0 ? 'tilt back' : 'tilt forward';
  return value < 0 ? 'swing left' : 'swing right';
}

export const unitOf = (movement: Movement | RearMovement): string =>
  movement.endsWith('_mm') ? 'mm' : '°';

type Part = Station['chain'][number];

/** What a part is called that has no name. */
export const KIND_NAMES: Record<Part['kind'], string> = {
  adapter: 'Adapter',
  multiplier: 'Converter or reducer',
  board: 'Board',
  view_camera: 'Bellows camera',
};

/** What a part between lens and back is called: its name, or what it is. */
export const partTitle = (part: Part): string => part.name?.trim() || KIND_NAMES[part.kind];

const PART_WORDS: { [K in Part['kind']]: (part: Extract<Part, { kind: K }>) => string } = {
  adapter: (part) => `Adapter, ${trimmed(part.thickness_mm, 2)} mm`,
  multiplier: (part) =>
    `${part.factor < 1 ? 'Reducer' : 'Converter'} ${trimmed(part.factor, 3)} ×${part.circle_limit_mm === undefined ? '' : `, passes a circle of ${trimmed(part.circle_limit_mm, 1)} mm`}`,
  board: (part) =>
    part.offset_mm === 0
      ? 'Flat board'
      : `${part.offset_mm < 0 ? 'Recessed' : 'Extension'} board, ${trimmed(Math.abs(part.offset_mm), 1)} mm`,
  view_camera: (part) =>
    `Bellows, ${trimmed(part.bellows_min_mm, 1)} to ${trimmed(part.bellows_max_mm, 1)} mm`,
};

/** What stands between lens and back, in order from the lens, and how the back leans on the bed. */
export function chainWords({ chain, movements }: Station): string[] {
  const words = chain.map((part) => (PART_WORDS[part.kind] as (each: Part) => string)(part));
  const { rear_tilt_deg: tilt = 0, rear_swing_deg: swing = 0 } = movements;
  const { rear_rise_mm: rise = 0, rear_shift_mm: shift = 0 } = movements;
  if (rise !== 0) words.push(`Back, ${trimmed(Math.abs(rise), 1)} mm of ${sense('rise_mm', rise)}`);
  if (shift !== 0)
    words.push(`Back, ${trimmed(Math.abs(shift), 1)} mm of ${sense('shift_mm', shift)}`);
  if (tilt !== 0)
    words.push(
      `Back leaned ${fixed(Math.abs(tilt), 1)}° ${tilt > 0 ? 'back' : 'forward'} at its top`,
    );
  if (swing !== 0) {
    words.push(`Back swung ${fixed(Math.abs(swing), 1)}° ${swing > 0 ? 'right' : 'left'}`);
  }
  return words;
}
