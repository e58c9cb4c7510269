/**
 * From a meter's reading to the time a shutter gives. Times in s, light in stops (a stop doubles
 * it). Source of the exposure value: ISO 2720 (from memory); the rest is arithmetic, or named below.
 */

/** Time that an exposure value asks at an f-number: t = N² / 2^EV. Source: ISO 2720 (from memory). */
export const timeOfEv = (ev: number, fNumber: number): number => fNumber ** 2 / 2 ** ev;

/** The exposure value of a time at an f-number, log₂(N² / t). */
export const evOf = (timeS: number, fNumber: number): number => Math.log2(fNumber ** 2 / timeS);

/** How many stops slower light passes at one f-number than at another: 2 log₂(N / N₀). */
export const apertureStops = (fNumber: number, from: number): number =>
  2 * Math.log2(fNumber / from);

/** Light a converter takes or a reducer gives back, in stops: 2 log₂ M. */
export const multiplierStops = (factor: number): number => 2 * Math.log2(factor);

/** How a film answers to long times: by a power from a time on, or by its maker's or user's table. */
export type Reciprocity =
  | { readonly exponent: number; readonly from_s: number }
  | { readonly table: readonly { readonly metered_s: number; readonly given_s: number }[] };

/** A time that rounding alone puts past the last entry of a table is still on it. */
const END_OF_TABLE = 1e-9;

/**
 * Time to give a film for a time that is metered.
 *
 * By exponent: as metered up to `from_s`, from there `from_s (t / from_s)^exponent` (the power law
 * in use since Schwarzschild, 1900, in the form given by makers of film: from memory). By table:
 * straight between its entries when both are logarithms; before the first as metered.
 * @returns s; null past the end of a table, where nobody knows
 */
export function givenTimeS(meteredS: number, reciprocity: Reciprocity | undefined): number | null {
  if (!reciprocity) return meteredS;
  if ('exponent' in reciprocity) {
    const { exponent, from_s: from } = reciprocity;
    return meteredS <= from ? meteredS : from * (meteredS / from) ** exponent;
  }
  const { table } = reciprocity;
  const first = table[0];
  if (!first || meteredS < first.metered_s) return meteredS;
  const next = table.findIndex(({ metered_s }) => meteredS <= metered_s * (1 + END_OF_TABLE));
  if (next < 0) return null;
  if (next === 0) return first.given_s;
  const [a, b] = [table[next - 1]!, table[next]!];
  const share = Math.log(meteredS / a.metered_s) / Math.log(b.metered_s / a.metered_s);
  return a.given_s * (b.given_s / a.given_s) ** share;
}

/** Steps between full stops of a shutter's scale. */
export const STEPS_PER_STOP = { full: 1, half: 2, third: 3 } as const;
export type ShutterSteps = keyof typeof STEPS_PER_STOP;

/** An engraved time differs from the power of two it stands for by less than this, in stops (30 s is 32, 1/20 s is 1/22.6). */
export const ENGRAVED_TIME_STOPS = 0.2;

export interface ShutterScale {
  readonly steps: ShutterSteps;
  readonly fastestS?: number | undefined;
  readonly slowestS?: number | undefined;
}

export interface DialStep {
  /** 2^(index / steps a stop) s. */
  readonly index: number;
  readonly timeS: number;
  /** Of the step against what is to be given: above 0 it gives more light. */
  readonly offStops: number;
}

/**
 * The step of a shutter's scale that comes nearest to a time, in stops. A time shorter than the
 * shutter's fastest stands at its fastest.
 * @returns null past its slowest: such a time is held open by the clock
 */
export function dialStep(
  givenS: number,
  { steps, fastestS, slowestS }: ShutterScale,
): DialStep | null {
  const per = STEPS_PER_STOP[steps];
  const stop = (index: number): number => index / per;
  const wanted = Math.log2(givenS);
  let index = Math.round(wanted * per);
  if (slowestS !== undefined && stop(index) > Math.log2(slowestS) + ENGRAVED_TIME_STOPS)
    return null;
  if (fastestS !== undefined) {
    index = Math.max(index, Math.ceil((Math.log2(fastestS) - ENGRAVED_TIME_STOPS) * per));
  }
  return { index: index + 0, timeS: 2 ** stop(index), offStops: stop(index) - wanted + 0 };
}

/** Times of a bracket about a metered one, s, shortest first: each a step from the next. */
export const bracketTimesS = (timeS: number, frames: number, stepStops: number): number[] =>
  Array.from({ length: frames }, (_, i) => timeS * 2 ** (stepStops * (i - (frames - 1) / 2)));

/** Range of a scene, in stops, that a bracket holds: that of one frame and the steps between. */
export const bracketSpanStops = (
  mediumRangeStops: number,
  frames: number,
  stepStops: number,
): number => mediumRangeStops + (frames - 1) * stepStops;

/** Less light than this is missed by nobody, in stops: a flash meter reads to tenths. */
const MISSED_STOPS = 0.1;

/** How often a flash has to be fired to give so much of its full power: one pop at the least. */
export const popsFor = (power: number): number =>
  Math.max(1, Math.ceil(power * 2 ** -MISSED_STOPS));

/**
 * How far a thing that crosses the frame is pictured off from where it was when the shutter began
 * to read, mm on the back: speed × time × magnification.
 * @param magnification of the thing, on the back
 */
export const crossedMm = (speedMPerS: number, timeS: number, magnification: number): number =>
  speedMPerS * timeS * 1000 * magnification;
