import type { Exposure, Settings } from './station.js';

type Meter = NonNullable<Exposure['meter']>;

const READ = ['time_s', 'ev', 'spots', 'f_number', 'iso'] as const;

const sameReading = (one: Meter, other: Meter): boolean =>
  READ.every((name) => one[name] === other[name]);

/**
 * A reading that does not say at which stop and sensitivity it was taken was taken at those of the
 * station. When they change it stays what it was: what was there then is kept with it.
 */
export function readingKept<T extends Pick<Settings, 'aperture' | 'exposure'>>(
  after: T,
  before: T,
): T {
  const [meter, was] = [after.exposure?.meter, before.exposure?.meter];
  if (!meter || !was || !sameReading(meter, was)) return after;
  const iso = before.exposure!.iso;
  const kept: Pick<Meter, 'f_number' | 'iso'> = {
    ...(meter.time_s !== undefined &&
    meter.f_number === undefined &&
    after.aperture !== before.aperture
      ? { f_number: before.aperture }
      : {}),
    ...(meter.iso === undefined && iso !== undefined && after.exposure!.iso !== iso ? { iso } : {}),
  };
  return Object.keys(kept).length === 0
    ? after
    : { ...after, exposure: { ...after.exposure, meter: { ...meter, ...kept } } };
}
