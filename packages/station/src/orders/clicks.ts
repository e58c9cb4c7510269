import { engravedStops, STEPS_PER_STOP } from '@gangway/optics';
import type { Movement } from '../document/movements.js';
import type { Station } from '../document/station.js';
import { USUAL_STEPS } from '../exposure/worked.js';
import { stopsOnScale } from '../optical/dots.js';
import { rounded } from '../words/rounded.js';
import type { Control } from './order.js';

/** What is changed on the spot, in the terms of the control: a click less or more of what is there. */

/** One click of a scale that has none: as fine as it is set and read. */
const FINE_MM = 0.5;
const FINE_DEG = 0.5;

/** The stops an iris clicks at, from the widest, each exact. */
const irisStops = ({ lens }: Station): number[] => {
  const between = engravedStops(lens.f_min, lens.f_max, 'third').filter(
    (n) => n > lens.f_min * 1.001 && n < lens.f_max / 1.001,
  );
  return [lens.f_min, ...between, ...(lens.f_max > lens.f_min ? [lens.f_max] : [])];
};

/** Where a control stands so many clicks further; null at its end, or where nothing clicks. */
type Click<C extends Control = Control> = (
  station: Station,
  control: C,
  now: number,
  by: number,
) => number | null;

function irisClicked(station: Station, now: number, by: number): number | null {
  const stops = irisStops(station);
  const off = (n: number): number => Math.abs(Math.log2(n / now));
  const at = stops.reduce((best, n, i) => (off(n) < off(stops[best]!) ? i : best), 0);
  return stops[at + by] ?? null;
}

function shutterClicked({ exposure }: Station, now: number, by: number): number | null {
  const { steps = USUAL_STEPS, fastest_s = 0, slowest_s = Infinity } = exposure?.shutter ?? {};
  const per = STEPS_PER_STOP[steps];
  const next = 2 ** ((Math.round(Math.log2(now) * per) + by) / per);
  return next < fastest_s / 1.01 || next > slowest_s * 1.01 ? null : next;
}

const isLinear = (movement: string): movement is 'rise' | 'shift' =>
  movement === 'rise' || movement === 'shift';

/** The next dot of a back that stops nowhere else. */
const dotFrom = (dots: readonly number[], now: number, by: number): number | null =>
  (by > 0 ? dots.find((mm) => mm > now + 1e-3) : dots.findLast((mm) => mm < now - 1e-3)) ?? null;

const standardClicked: Click<Extract<Control, { kind: 'standard' }>> = (
  station,
  { standard, movement },
  now,
  by,
) => {
  const { movement_limits: limits } = station;
  const dots = standard === 'back' && isLinear(movement) ? stopsOnScale(station, movement) : [];
  if (dots.length > 0) return dotFrom(dots, now, by);
  const linear = isLinear(movement);
  const click = (linear ? limits.detent_mm : limits.detent_deg) || (linear ? FINE_MM : FINE_DEG);
  const second = standard === 'back' && (limits.moves !== 'rear' || !linear);
  const range = limits[`${second ? 'rear_' : ''}${movement}_${linear ? 'mm' : 'deg'}` as Movement];
  const next = rounded((Math.round(now / click) + by) * click, 3);
  return range && (next < range[0] - 1e-9 || next > range[1] + 1e-9) ? null : next;
};

/**
 * Where a control stands a click further on; null at its end, or where it has no clicks to count.
 * @param by how many clicks: above zero a smaller stop, a longer time, more of a movement
 */
export const clicked: Click = (station, control, now, by) => {
  switch (control.kind) {
    case 'iris':
      return irisClicked(station, now, by);
    case 'shutter':
      return shutterClicked(station, now, by);
    case 'iso':
      return isoEngraved(100 * 2 ** ((Math.round(Math.log2(now / 100) * 3) + by) / 3));
    case 'standard':
      return standardClicked(station, control, now, by);
    default:
      return null;
  }
};

/** Sensitivities as they are engraved; ISO 12232 rounds them so, from memory. */
const ISO_THIRDS = [100, 125, 160, 200, 250, 320, 400, 500, 640, 800];

function isoEngraved(iso: number): number | null {
  let scale = 1;
  let value = iso;
  while (value >= 800 * 1.1) [value, scale] = [value / 8, scale * 8];
  while (value < 100 / 1.1) [value, scale] = [value * 8, scale / 8];
  const nearest = ISO_THIRDS.reduce((a, b) =>
    Math.abs(Math.log2(b / value)) < Math.abs(Math.log2(a / value)) ? b : a,
  );
  const found = nearest * scale;
  return found < 1 || found > 10_000_000 ? null : Math.round(found);
}
