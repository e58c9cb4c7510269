import { measuredOf } from '../optical/measured.js';
import type { Lens, Station } from '../document/station.js';

/** Plans with what was measured on its lens, or with the ideal to compare. */
export function withMeasuredUse(station: Station, use: boolean): Station {
  const { measured } = station.lens;
  if (!measured) return station;
  const { use: _, ...rest } = measured;
  return { ...station, lens: { ...station.lens, measured: use ? rest : { ...rest, use } } };
}

/** Whether the circle at a stop is the lens's own, measured at that stop or on both sides of it. */
export function circleMeasured(lens: Lens, fNumber: number): boolean {
  const own = measuredOf(lens)?.circle ?? [];
  return own.length > 0 && fNumber >= own[0]!.f_number * 0.97 && fNumber <= own.at(-1)!.f_number * 1.03; // prettier-ignore
}
