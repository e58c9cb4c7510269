import { SEEN } from './order.js';

/** So near to a click a hand is on it, mm or degrees. */
const ON_CLICK = 0.01;

const ordinal = (count: number): string => {
  const last = count % 10;
  const teen = Math.floor(count / 10) % 10 === 1;
  return `${count}${teen || last > 3 || last === 0 ? 'th' : ['st', 'nd', 'rd'][last - 1]!}`;
};

/** How many clicks from zero a scale stands; empty where it has none. */
export function clicksSaid(click: number | undefined, value: number): { on: string; off: string } {
  if (click === undefined || click <= 2 * ON_CLICK || Math.abs(value) < SEEN) {
    return { on: '', off: '' };
  }
  const clicks = Math.abs(value) / click;
  const whole = Math.round(clicks);
  if (Math.abs(clicks - whole) * click <= ON_CLICK) {
    return { on: ` (${whole} ${whole === 1 ? 'click' : 'clicks'})`, off: '' };
  }
  const below = Math.floor(clicks);
  return {
    on: '',
    off:
      below === 0
        ? 'It lies before the first click.'
        : `It lies between the ${ordinal(below)} and the ${ordinal(below + 1)} click.`,
  };
}
