import type { Station } from '../../src/index.js';

/** What is printed, as a hand that knows nothing else reads it off the card. */

const number = (text: string): number => Number(text.replace('−', '-'));

/** A figure as it is printed, in mm, m, degrees, s: whatever it is of. */
export function figure(said: string): number {
  if (said === '∞') return Infinity;
  const feet = /^(\d+)′ ([\d.]+)″$/.exec(said);
  if (feet) return (Number(feet[1]) * 12 + Number(feet[2])) * 0.0254;
  const inches = /^([\d.]+)″$/.exec(said);
  if (inches) return Number(inches[1]) * 0.0254;
  const far = /^([\d.]+) ft$/.exec(said);
  if (far) return Number(far[1]) * 0.3048;
  return number(/−?[\d.]+/.exec(said)![0]);
}

/** Thirds of a stop as rings have them; source: ISO 517 and common practice. */
const STOPS = new Set([
  0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6,
  6.3, 7.1, 8, 9, 10, 11, 13, 14, 16, 18, 20, 22, 25, 29, 32, 36, 40, 45, 51, 57, 64, 72, 80, 90,
  102, 114, 128,
]);

/** f/11 is cut as the eleventh sixth of two: 11.31. */
export const irisAt = (said: string): number => {
  const engraved = number(said.replace('f/', ''));
  return STOPS.has(engraved) ? 2 ** (Math.round(6 * Math.log2(engraved)) / 6) : engraved;
};

const PER = { full: 1, half: 2, third: 3 } as const;

/** A dial gives what is engraved as the power of two it stands for; a clock gives what it shows. */
export function openFor(said: string, { exposure }: Station): number {
  const clock = /^(?:(\d+) h)? ?(?:(\d+) min)? ?(?:([\d.]+) s)?$/.exec(said);
  const part = /^1\/([\d.]+) s$/.exec(said);
  const seconds = part
    ? 1 / Number(part[1])
    : Number(clock![1] ?? 0) * 3600 + Number(clock![2] ?? 0) * 60 + Number(clock![3] ?? 0);
  const per = PER[exposure?.shutter?.steps ?? 'third'];
  const step = 2 ** (Math.round(Math.log2(seconds) * per) / per);
  const slowest = exposure?.shutter?.slowest_s ?? Infinity;
  return step <= slowest * 1.01 && Math.abs(Math.log2(step / seconds)) < 0.26 / per + 0.06
    ? step
    : seconds;
}

export function powerOf(said: string): number {
  const thirds = said.endsWith('⅓') ? 1 : said.endsWith('⅔') ? 2 : 0;
  const share = /^1\/(\d+)/.exec(said);
  return (share ? 1 / Number(share[1]) : 1) * 2 ** (thirds / 3);
}

/** Which of two ways is plus, as the hand goes: up, right, forward; a back leans back at its top. */
const PLUS = /^(up|right|to the right|forward|back at its top)$/;

export type Along = readonly [right: number, up: number];

/** “up and to the left” as a direction; forward and back stand for up and down. */
export function direction(way: string): Along {
  const right = way.includes('right') ? 1 : way.includes('left') ? -1 : 0;
  const up = /\b(up|forward)\b/.test(way) ? 1 : /\b(down|back)\b/.test(way) ? -1 : 0;
  return [right, up];
}

/** A figure and its way, from a scale’s zero. */
export const signed = (said: string, way: string): number =>
  (way === '' || PLUS.test(way) ? 1 : -1) * (way === '' ? 0 : figure(said));
