import { fixed } from '../../words/format.js';
import { sense } from '../../words/names.js';
import { movedToFrame, SENSIBLE } from '../place.js';
import type { FramingKind } from './kind.js';

/** Rise and shift alone, where the circle already allows them. */
export const move: FramingKind = ({ station }) => {
  const after = movedToFrame(station, SENSIBLE) ?? movedToFrame(station);
  if (!after) return [];
  const { rise_mm: rise, shift_mm: shift } = after.movements;
  const parts = [
    ...(rise === station.movements.rise_mm
      ? []
      : [`${fixed(Math.abs(rise), 1)} mm of ${sense('rise_mm', rise)}`]),
    ...(shift === station.movements.shift_mm
      ? []
      : [`${fixed(Math.abs(shift), 1)} mm of ${sense('shift_mm', shift)}`]),
  ];
  if (parts.length === 0) return [];
  return [
    {
      id: 'frame-move',
      says: ['/movements/rise_mm', '/movements/shift_mm'],
      title: `Set ${parts.join(' and ')}`,
      price: 'costs nothing else',
      cost: 0.3,
      after,
    },
  ];
};
