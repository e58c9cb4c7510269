import { focusControl } from '../document/focusing.js';
import type { Station } from '../document/station.js';
import { assumed, type Assumption } from '../words/assumptions.js';

/** What is taken for granted of the control that focuses, where nobody said what it is. */
export function focusingAssumed(station: Station): Assumption[] {
  const { by, told } = focusControl(station);
  if (told || station.held_off || by === 'rail') return [];
  const value = by === 'ring' ? 'helicoid' : 'bellows';
  return [assumed('focus_by', { by }, '/lens/focus_by', value, ['focusing'])];
}
