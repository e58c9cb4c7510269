import type { MeasuredLens } from '../document/measured.js';
import type { Lens } from '../document/station.js';
import { fixed, fStop } from '../words/format.js';
import { leastOf } from '@gangway/optics';

/** What was measured on a lens, in a line or two. */

/** Stops that keep nearly all of the best. */
const BEST_KEPT = 0.92;
/** Comfortable still. */
const GOOD_KEPT = 0.8;

const ZONES = ['centre', 'edge', 'corner'] as const;
type Zone = (typeof ZONES)[number];

/** Detail at a stop in its worst zone. */
const worst = ({ zones }: NonNullable<MeasuredLens['detail']>[number]): number => leastOf(zones.map(({ kept }) => kept)); // prettier-ignore

/** The stop that keeps most all over; null without a series. */
export function bestAllOver({ detail = [] }: MeasuredLens): number | null {
  const told = detail.filter(({ zones }) => zones.length > 0);
  if (told.length === 0) return null;
  return told.reduce((best, each) => (worst(each) > worst(best) ? each : best)).f_number;
}

/** A few words with the stops they are about, largest first. */
export interface LensFact {
  readonly figure: string;
  readonly words: string;
  readonly good: boolean;
}

const spanSaid = (stops: readonly number[]): string =>
  stops.length > 1 ? `${fStop(stops[0]!)} to ${fStop(stops.at(-1)!)}` : fStop(stops[0]!);

/** What a photographer would say of the lens after looking at it for an hour. */
export function lensFacts(measured: MeasuredLens): LensFact[] {
  const detail = (measured.detail ?? []).filter(({ zones }) => zones.length > 0);
  const best = detail.filter((each) => worst(each) >= BEST_KEPT).map(({ f_number }) => f_number);
  const from = measured.diffraction_from;
  const fine = detail
    .filter((each) => worst(each) >= GOOD_KEPT && !best.includes(each.f_number))
    .map(({ f_number }) => f_number)
    .filter((stop) => best.length > 0 && stop > best.at(-1)! && stop < (from ?? Infinity));
  const lag = (measured.odd ?? []).find((each) => / lags: /.test(each));
  return [
    ...(best.length > 0 ? [{ figure: spanSaid(best), words: 'sharp to the corners', good: true }] : []), // prettier-ignore
    ...(fine.length > 0 ? [{ figure: fStop(fine.at(-1)!), words: 'still keeps four fifths', good: true }] : []), // prettier-ignore
    ...(from === undefined ? [] : [{ figure: fStop(from), words: 'from here diffraction takes more than it gives', good: false }]), // prettier-ignore
    ...(lag ? [{ figure: lag.replace(/^.*?the (.*?) lags: .*$/, '$1 lags'), words: lag.replace(/^.* lags: (.*)\.$/, '$1'), good: false }] : []), // prettier-ignore
  ];
}

/** Whether anything at all was measured. */
export const isMeasured = ({ measured }: { readonly measured?: MeasuredLens | undefined }): boolean =>
  (['circle', 'falloff', 'sharpness', 'detail'] as const).some((part) => (measured?.[part] ?? []).length > 0) || measured?.centre_mm !== undefined; // prettier-ignore

/** Its middle beside the mount's, where they part. */
export function centreSaid({ centre_mm }: MeasuredLens): string | null {
  if (!centre_mm) return null;
  const { x, y } = centre_mm;
  const parts = [
    [x, 'right', 'left'],
    [y, 'above', 'below'],
  ] as const;
  const said = parts.filter(([by]) => Math.abs(by) >= 0.05).map(([by, plus, minus]) => `${fixed(Math.abs(by), 1)} mm ${by > 0 ? plus : minus}`); // prettier-ignore
  return said.length > 0 ? `its middle lies ${said.join(' and ')} of the mount’s` : 'its middle is the mount’s'; // prettier-ignore
}

/** Given and measured circle at every stop that either names. */
export function circleRows(lens: Pick<Lens, 'circle' | 'measured'>): {
  readonly fNumber: number;
  readonly givenMm: number | null;
  readonly measuredMm: number | null;
}[] {
  const own = lens.measured?.circle ?? [];
  const stops = [...new Set([...lens.circle, ...own].map(({ f_number }) => f_number))].sort((a, b) => a - b); // prettier-ignore
  const at = (of: readonly { f_number: number; diameter_mm: number }[], stop: number): number | null => of.find(({ f_number }) => f_number === stop)?.diameter_mm ?? null; // prettier-ignore
  return stops.map((fNumber) => ({
    fNumber,
    givenMm: at(lens.circle, fNumber),
    measuredMm: at(own, fNumber),
  }));
}

export { ZONES as LENS_ZONES, type Zone as LensZone };
