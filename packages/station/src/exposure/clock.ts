/** Times of day as the document has them, HH:MM, and what comes after them. */

const DAY_S = 24 * 3600;

const secondsOf = (clock: string): number => {
  const [hours, minutes] = clock.split(':').map(Number) as [number, number];
  return hours * 3600 + minutes * 60;
};

const two = (value: number): string => String(value).padStart(2, '0');

/** A time of day some seconds after another, to the second: 16:24:10. */
export function clockAfter(clock: string, seconds: number): string {
  const at = Math.round(secondsOf(clock) + seconds);
  const within = ((at % DAY_S) + DAY_S) % DAY_S;
  return [Math.floor(within / 3600), Math.floor(within / 60) % 60, within % 60].map(two).join(':');
}

/** How long it is from one time of day to the next such as another, s: from 22:00 to 01:00, 3 h. */
export const untilS = (from: string, to: string): number =>
  (secondsOf(to) - secondsOf(from) + DAY_S) % DAY_S;
