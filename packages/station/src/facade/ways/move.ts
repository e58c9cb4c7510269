import { fixed } from '../../words/format.js';
import { moveSaid, standardOf } from '../../words/hands.js';
import { sense } from '../../words/names.js';
import { movedToFrame, SENSIBLE } from '../place.js';
import type { FramingKind } from './kind.js';

/** Rise and shift alone, where the circle already allows them. */
export const move: FramingKind = ({ station }) => {
  const after = movedToFrame(station, SENSIBLE) ?? movedToFrame(station);
  if (!after) return [];
  const { rise_mm: rise, shift_mm: shift } = after.movements;
  const back = standardOf(station) === 'back';
  const part = (movement: 'rise' | 'shift', value: number): string =>
    back
      ? moveSaid(station, 'back', movement, value)
      : `${fixed(Math.abs(value), 1)} mm of ${sense(`${movement}_mm`, value)}`;
  const parts = [
    ...(rise === station.movements.rise_mm ? [] : [part('rise', rise)]),
    ...(shift === station.movements.shift_mm ? [] : [part('shift', shift)]),
  ];
  if (parts.length === 0) return [];
  return [
    {
      id: 'frame-move',
      says: ['/movements/rise_mm', '/movements/shift_mm'],
      title: back
        ? parts.join(' and ').replace(' and Shift the back', ' and shift it')
        : `Set ${parts.join(' and ')}`,
      price: 'costs nothing else',
      cost: 0.3,
      after,
    },
  ];
};
