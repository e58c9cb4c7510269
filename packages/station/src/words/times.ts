import { STEPS_PER_STOP, type ShutterSteps } from '@gangway/optics';
import { fixed, trimmed } from './format.js';

/** Times as shutters have them engraved, from the exact powers of two they stand for. */

const FULL =
  '1/8000 1/4000 1/2000 1/1000 1/500 1/250 1/125 1/60 1/30 1/15 1/8 1/4 1/2 1 2 4 8 15 30';
const HALF =
  '1/6000 1/3000 1/1500 1/750 1/350 1/180 1/90 1/45 1/20 1/10 1/6 1/3 0.7 1.5 3 6 10 20 45';
const THIRD =
  '1/6400 1/5000 1/3200 1/2500 1/1600 1/1250 1/800 1/640 1/400 1/320 1/200 1/160 1/100 1/80 1/50 1/40 1/25 1/20 1/13 1/10 1/6 1/5 0.3 0.4 0.6 0.8 1.3 1.6 2.5 3.2 5 6 10 13 20 25 40 50';

/** Full steps from 2^-13 on; between each two of them a half, or two thirds. */
const FIRST = -13;
const [full, half, third] = [FULL, HALF, THIRD].map((all) => all.split(' ')) as [
  string[],
  string[],
  string[],
];

/** The engraved name of a step, without its unit; null where nothing is engraved. */
function engraved(index: number, steps: ShutterSteps): string | null {
  const per = STEPS_PER_STOP[steps];
  const whole = Math.floor(index / per);
  const part = index - whole * per;
  const at = whole - FIRST;
  if (at < 0) return null;
  if (part === 0) return full[at] ?? null;
  return (per === 2 ? half[at] : third[2 * at + part - 1]) ?? null;
}

/** So many figures a person can set by a clock or read off a scale. */
function seconds(timeS: number): string {
  if (timeS < 0.275) return `1/${trimmed(Number((1 / timeS).toPrecision(3)), 1)}`;
  return timeS < 10 ? trimmed(timeS, 2) : trimmed(timeS, 1);
}

/** A time as it was worked out: 1/118 s, 1.34 s, 2 min 14 s, 1 h 12 min. */
export function timeSaid(timeS: number): string {
  if (timeS < 59.95) return `${seconds(timeS)} s`;
  if (timeS < 3599.5) {
    const whole = Math.round(timeS);
    const rest = whole % 60;
    return `${Math.floor(whole / 60)} min${rest === 0 ? '' : ` ${rest} s`}`;
  }
  const minutes = Math.round(timeS / 60);
  const rest = minutes % 60;
  return `${fixed(Math.floor(minutes / 60), 0)} h${rest === 0 ? '' : ` ${rest} min`}`;
}

/** A step of a shutter’s scale as it is engraved: 1/125 s for 2^-7. */
export function dialSaid(timeS: number, steps: ShutterSteps): string {
  const name = engraved(Math.round(Math.log2(timeS) * STEPS_PER_STOP[steps]), steps);
  return name === null ? timeSaid(timeS) : `${name} s`;
}

/** A factor of time for a number of stops: 2.5×. */
export const factorSaid = (stops: number): string =>
  `${trimmed(2 ** stops, 2 ** stops < 10 ? 1 : 0)}×`;

/** How far a time may be from a step of the scale and still be that step, stops. */
const ON_SCALE = 0.03;

/** A time as it was set: by the name of the step where it is one, else as it is. */
export function setTimeSaid(timeS: number): string {
  for (const steps of ['third', 'half'] as const) {
    const exact = Math.log2(timeS) * STEPS_PER_STOP[steps];
    if (Math.abs(exact - Math.round(exact)) > ON_SCALE * STEPS_PER_STOP[steps]) continue;
    const name = engraved(Math.round(exact), steps);
    if (name !== null) return `${name} s`;
  }
  return timeSaid(timeS);
}
