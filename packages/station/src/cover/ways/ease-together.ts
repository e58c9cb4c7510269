import { fixed } from '../../words/format.js';
import type { Station } from '../../document/station.js';
import { standardOf } from '../../words/hands.js';
import { sense } from '../../words/names.js';
import type { Kind } from './kind.js';
import { bisect } from '@gangway/optics';

const COST_OF_ALL = 5;
const TENTHS = 10;

function titleOf(station: Station, rise: number, shift: number): string {
  const back = standardOf(station) === 'back';
  const up = back ? (rise < 0 ? 'up' : 'down') : sense('rise_mm', rise);
  const across = back ? (shift < 0 ? 'right' : 'left') : sense('shift_mm', shift);
  return [
    back ? 'Ease the back to' : 'Ease to',
    rise === 0 ? 'no rise,' : `${fixed(Math.abs(rise), 1)} mm ${up},`,
    shift === 0 ? 'no shift' : `${fixed(Math.abs(shift), 1)} mm ${across}`,
  ].join(' ');
}

/** Rise and shift drawn in by the same share, when neither alone would do with less. */
export const easeTogether: Kind = ({ station, cures }) => {
  const { rise_mm: rise, shift_mm: shift } = station.movements;
  if (rise === 0 || shift === 0) return [];
  const at = (share: number): Station => {
    const inward = (value: number): number =>
      (Math.sign(value) * Math.floor(Math.abs(value) * share * TENTHS + 1e-7)) / TENTHS + 0;
    return {
      ...station,
      movements: { ...station.movements, rise_mm: inward(rise), shift_mm: inward(shift) },
    };
  };
  if (!cures(at(0))) return [];
  const good = bisect(0, 1, (share) => cures(at(share)), 1e-6);
  const after = at(good);
  const { rise_mm, shift_mm } = after.movements;
  return [
    {
      id: 'ease-together',
      says: ['/movements/rise_mm', '/movements/shift_mm'],
      title: titleOf(station, rise_mm, shift_mm),
      price: `keeps the direction, gives up ${fixed(100 * (1 - good), 0)} %`,
      cost: 0.7 + COST_OF_ALL * (1 - good),
      after,
    },
  ];
};
