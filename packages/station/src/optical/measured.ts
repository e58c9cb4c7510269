import type { CircleAtStop, FallAt } from '@gangway/optics';
import type { MeasuredLens } from '../document/measured.js';
import type { Lens } from '../document/station.js';

/** What was measured on a lens, where it is used instead of the ideal. Bare lens, at infinity. */

/** Null where nothing was measured, or the ideal is asked for to compare. */
export const measuredOf = ({ measured }: Pick<Lens, 'measured'>): MeasuredLens | null =>
  measured && measured.use !== false ? measured : null;

/** The given circle, and the measured one over the stops that were measured. */
export function circleTable(lens: Pick<Lens, 'circle' | 'measured'>): CircleAtStop[] {
  const given = lens.circle.map(({ f_number, diameter_mm }) => ({ fNumber: f_number, diameterMm: diameter_mm })); // prettier-ignore
  const own = measuredOf(lens)?.circle ?? [];
  if (own.length === 0) return given;
  const [first, last] = [own[0]!.f_number, own.at(-1)!.f_number];
  return [
    ...given.filter(({ fNumber }) => fNumber < first),
    ...own.map(({ f_number, diameter_mm }) => ({ fNumber: f_number, diameterMm: diameter_mm })),
    ...given.filter(({ fNumber }) => fNumber > last),
  ];
}

interface AtStop {
  readonly f_number: number;
}

/** The entries on both sides of a stop and how far it lies between them, in stops; ends are held. */
function around<Entry extends AtStop>(
  entries: readonly Entry[],
  fNumber: number,
): readonly [Entry, Entry, number] {
  const after = entries.findIndex(({ f_number }) => f_number >= fNumber);
  if (after <= 0) {
    const end = after === 0 ? entries[0]! : entries.at(-1)!;
    return [end, end, 0];
  }
  const [low, high] = [entries[after - 1]!, entries[after]!];
  return [low, high, Math.log2(fNumber / low.f_number) / Math.log2(high.f_number / low.f_number)];
}

/** Straight between places, held at the ends. */
function along(places: readonly (readonly [at: number, value: number])[], at: number): number {
  const after = places.findIndex(([place]) => place >= at);
  if (after <= 0) return (after === 0 ? places[0]! : places.at(-1)!)[1];
  const [[a, from], [b, to]] = [places[after - 1]!, places[after]!];
  return from + ((at - a) / (b - a)) * (to - from);
}

/**
 * Measured falloff at a stop by the tangent of the angle from the axis; null where none was measured.
 * @param pupilRatio light to the back comes from p f before it
 */
export function fallTable(lens: Lens, fNumber: number, pupilRatio: number): FallAt[] | null {
  const entries = measuredOf(lens)?.falloff ?? [];
  if (entries.length === 0) return null;
  const [low, high, share] = around(entries, fNumber);
  const placesOf = ({ points }: (typeof entries)[number]) =>
    points.map(({ radius_mm, stops }) => [radius_mm, stops] as const);
  const [a, b] = [placesOf(low), placesOf(high)];
  // Past what either stop shows only natural falloff goes on.
  const reach = Math.min(a.at(-1)![0], b.at(-1)![0]);
  const radii = [...new Set([...a, ...b].map(([radius]) => radius))].sort((p, q) => p - q);
  return radii
    .filter((radius) => radius <= reach)
    .map((radius) => ({
      tan: radius / (pupilRatio * lens.focal_length_mm),
      stops: along(a, radius) + share * (along(b, radius) - along(a, radius)),
    }));
}

type Zones<Value extends string> = readonly ({ readonly radius_mm: number } & Readonly<Record<Value, number>>)[]; // prettier-ignore

const zonePlaces = <Value extends string>(zones: Zones<Value>, value: Value) =>
  [...zones].sort((a, b) => a.radius_mm - b.radius_mm).map((zone) => [zone.radius_mm, zone[value] as number] as const); // prettier-ignore

/** Half contrast at a stop and radius, cycles a mm; null where it was not measured. */
export function mtf50At(lens: Lens, fNumber: number, radiusMm: number): number | null {
  const entries = (measuredOf(lens)?.sharpness ?? []).filter(({ zones }) => zones.length > 0);
  if (entries.length === 0) return null;
  const [low, high, share] = around(entries, fNumber);
  const at = ({ zones }: (typeof entries)[number]): number => along(zonePlaces(zones, 'mtf50_cy_mm'), radiusMm); // prettier-ignore
  return at(low) + share * (at(high) - at(low));
}

/** Detail kept of the best stop's at a stop and radius, 0 to 1; null where it was not measured. */
export function keptAt(lens: Lens, fNumber: number, radiusMm: number): number | null {
  const entries = (measuredOf(lens)?.detail ?? []).filter(({ zones }) => zones.length > 0);
  if (entries.length === 0) return null;
  const [low, high, share] = around(entries, fNumber);
  const at = ({ zones }: (typeof entries)[number]): number => along(zonePlaces(zones, 'kept'), radiusMm); // prettier-ignore
  return at(low) + share * (at(high) - at(low));
}

/**
 * A patch of light c across halves contrast at 0.705/c: the disc's transfer 2 J₁(π f c)/(π f c) is a
 * half at π f c = 2.215. Source: any optics text, e.g. Hecht, Optics (out-of-focus transfer).
 */
export const DISC_HALF_CONTRAST = 0.705;

/** The patch that a lens's own faults, with diffraction, are as bad as, mm; null where not measured. */
export function ownPatchMm(lens: Lens, fNumber: number, radiusMm: number): number | null {
  const mtf50 = mtf50At(lens, fNumber, radiusMm);
  return mtf50 === null ? null : DISC_HALF_CONTRAST / mtf50;
}

/**
 * Radius to which a lens's own patch is no larger than the circle of confusion, mm; null where
 * sharpness was not measured. `beyond`: it is sharp as far as was measured, and may be farther out.
 */
export function sharpRadiusMm(
  lens: Lens,
  fNumber: number,
  cocMm: number,
): { readonly radiusMm: number; readonly beyond: boolean } | null {
  const entries = measuredOf(lens)?.sharpness ?? [];
  if (entries.length === 0) return null;
  const radii = [...new Set(entries.flatMap(({ zones }) => zones.map(({ radius_mm }) => radius_mm)))].sort((a, b) => a - b); // prettier-ignore
  if (radii.length === 0) return null;
  const least = DISC_HALF_CONTRAST / cocMm;
  const at = (radius: number): number => mtf50At(lens, fNumber, radius)!;
  if (at(radii[0]!) < least) return { radiusMm: 0, beyond: false };
  for (let i = 1; i < radii.length; i++) {
    const [a, b] = [radii[i - 1]!, radii[i]!];
    const [from, to] = [at(a), at(b)];
    if (to < least)
      return { radiusMm: a + ((from - least) / (from - to)) * (b - a), beyond: false };
  }
  return { radiusMm: radii.at(-1)!, beyond: true };
}
