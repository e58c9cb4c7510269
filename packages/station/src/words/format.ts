import { engravedFNumber } from '@gangway/optics';
import { atLeast } from './rounded.js';

/** Numbers as people read them: one place for rounding, signs and units. */

export type Units = 'metric' | 'feet';

const MINUS = '−';

/** Fixed decimals, a true minus, and never a minus zero. */
export function fixed(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? MINUS + text : text;
}

/** With its sign always shown, for a margin. */
export function signed(value: number, decimals: number): string {
  const text = fixed(value, decimals);
  return text.startsWith(MINUS) || Number(text) === 0 ? text : `+${text}`;
}

/** At most so many decimals, none needlessly. */
export const trimmed = (value: number, decimals: number): string =>
  fixed(Number(value.toFixed(decimals)), decimals)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '');

export const mm = (value: number, decimals = 1): string => `${fixed(value, decimals)} mm`;

/** A stop as the ring says it: f/11 also for 11.31, which is what that means. */
export const fStop = (fNumber: number): string => `f/${trimmed(engravedFNumber(fNumber), 1)}`;

export const degrees = (value: number, decimals = 1): string => `${fixed(value, decimals)}°`;

/** Near work is measured in millimetres. */
const metres = (m: number): string => fixed(m, m < 1 ? 3 : m < 10 ? 2 : m < 100 ? 1 : 0);

/** A distance in front of the camera as a figure and its unit, apart so that units can be small. */
export function distanceParts(distanceM: number | null, units: Units): [string, string] {
  if (distanceM === null || !Number.isFinite(distanceM)) return ['∞', ''];
  if (units === 'metric') return [metres(distanceM), 'm'];
  const inches = distanceM / 0.0254;
  if (inches >= 1200) return [fixed(inches / 12, 0), 'ft'];
  // Halves of an inch up close, whole ones further off.
  const step = inches < 120 ? 0.5 : 1;
  const rounded = Math.round(inches / step) * step;
  const feet = Math.floor(rounded / 12);
  return [`${feet}′ ${trimmed(rounded - feet * 12, 1)}″`, ''];
}

export const distance = (distanceM: number | null, units: Units): string =>
  distanceParts(distanceM, units).join(' ').trim();

/** A ring is read to this share of its distance, half a step of the figure. */
const RING_SHARE = 0.003;
const INCH_STEPS = [1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 6, 12];
const M_STEPS = [0.0001, 0.001, 0.01, 0.1, 1];

/** The largest step of a figure that keeps half of itself within what a ring is read to, m. */
export function ringStepM(distanceM: number, units: Units): number {
  const most = 2 * RING_SHARE * distanceM;
  return units === 'metric'
    ? (M_STEPS.findLast((step) => step <= most) ?? M_STEPS[0]!)
    : 0.0254 * (INCH_STEPS.findLast((step) => 0.0254 * step <= most) ?? INCH_STEPS[0]!);
}

/** What a ring reads at a distance, as near as it is read. */
export function ringDistance(distanceM: number | null, units: Units): string {
  if (distanceM === null || !Number.isFinite(distanceM)) return '∞';
  const step = ringStepM(distanceM, units);
  if (units === 'metric') return `${fixed(distanceM, Math.round(-Math.log10(step)))} m`;
  const inches = step / 0.0254;
  const all = Math.round(distanceM / 0.0254 / inches) * inches;
  const feet = Math.floor(all / 12);
  const rest = `${trimmed(all - feet * 12, 4)}″`;
  return feet === 0 ? rest : `${feet}′ ${rest}`;
}

/** A distance that is needed at least: rounded up to the digit that is shown. */
export function distanceFrom(distanceM: number, units: Units): string {
  if (units === 'metric') {
    const decimals = distanceM < 1 ? 3 : distanceM < 10 ? 2 : distanceM < 100 ? 1 : 0;
    return distance(atLeast(distanceM, decimals), units);
  }
  const inches = distanceM / 0.0254;
  const step = inches >= 1200 ? 12 : inches < 120 ? 0.5 : 1;
  return distance(Math.ceil(inches / step - 1e-7) * step * 0.0254, units);
}

const THIRDS = ['', '⅓', '⅔'];

/** A share of light in stops, as a photographer counts it: by thirds where it is thirds. */
export function stops(value: number): string {
  const thirds = Math.round(Math.abs(value) * 3);
  const noun = Math.abs(value) < 1.05 ? 'stop' : 'stops';
  if (thirds === 0 || Math.abs(Math.abs(value) * 3 - thirds) > 0.1) {
    return `${trimmed(value, 1)} ${noun}`;
  }
  const whole = Math.floor(thirds / 3);
  return `${value < 0 ? MINUS : ''}${whole || ''}${THIRDS[thirds % 3]} ${noun}`;
}

/** 1:4, 1:1, 2:1. */
export const ratioSaid = (magnification: number): string => {
  const said = (value: number): string => String(Number(value.toPrecision(2)));
  return magnification < 1 ? `1:${said(1 / magnification)}` : `${said(magnification)}:1`;
};
