import type { Exposure, Station } from '../document/station.js';
import { stationShot } from '../optical/held.js';
import { distance, fixed, fStop, stops, trimmed, type Units } from '../words/format.js';
import { factorSaid, timeSaid } from '../words/times.js';
import { bellowsAdded, lightOf, meteredFNumber } from './light.js';
import type { ExposureReport } from './report.js';
import { powerSaid } from './verdict.js';

/** One thing between the meter and the shutter. */
export interface ExposureStep {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  /** Where it begins and how far it goes, in stops from one second, or from full power. */
  readonly from: number;
  readonly stops: number;
}

/** Less than this is not worth a line. */
const SEEN_STOPS = 0.02;

const added = (value: number): string =>
  `${value < 0 ? '' : '+'}${fixed(value, 1)} ${Math.abs(value) < 1.05 ? 'stop' : 'stops'}, ${factorSaid(value)}`;

/** What the meter was and what it read, in words. */
function meterSaid(station: Station, { meter, iso }: Exposure, meteredS: number): string {
  const at = meter?.iso ?? iso;
  const read = meter?.spots
    ? `${meter.spots.length} spots: `
    : meter?.ev !== undefined
      ? `EV ${trimmed(meter.ev, 1)}: `
      : '';
  return `${read}${timeSaid(meteredS)} at ${fStop(meteredFNumber(station))}${at === undefined ? '' : `, ISO ${trimmed(at, 1)}`}`;
}

/** From the meter to the shutter, or to the power of a flash, one thing after the other; empty without a reading. */
export function exposureSteps(
  station: Station,
  exposure: Exposure,
  report: Pick<ExposureReport, 'time_s' | 'given_s' | 'flash'>,
  units: Units,
): ExposureStep[] {
  const light = lightOf(station, exposure);
  const { time_s: timeS, given_s: given, flash } = report;
  const begins = flash ? (exposure.flash_power?.metered ?? 1) : light.meteredS;
  if (begins === null || (timeS === null && !flash)) return [];
  const { meter, filters = [], iso } = exposure;
  const throughLens = meter?.through_lens === true;
  const kind =
    meter?.through_lens === undefined ? '' : throughLens ? ', through the lens' : ', by hand';
  const steps: ExposureStep[] = [
    {
      id: 'meter',
      title: flash ? 'Flash meter' : `Meter${kind}`,
      detail: flash
        ? `${fStop(meteredFNumber(station))} at ${powerSaid(begins)}`
        : meterSaid(station, exposure, begins),
      from: Math.log2(begins),
      stops: 0,
    },
  ];
  let at = Math.log2(begins);
  const go = (id: string, title: string, by: number, detail = added(by)): void => {
    if (Math.abs(by) < SEEN_STOPS) return;
    steps.push({ id, title, detail, from: at, stops: by });
    at += by;
  };
  go('aperture', `Aperture, ${fStop(stationShot(station).aperture)}`, light.apertureStops);
  go('iso', `ISO ${trimmed(iso ?? 0, 1)}`, light.isoStops);
  if (!throughLens) {
    const { distance_m: far } = station.focus;
    go(
      'bellows',
      `Bellows${typeof far === 'number' ? `, focused at ${distance(far, units)}` : ''}`,
      bellowsAdded(light),
    );
    go('multiplier', light.multiplierStops < 0 ? 'Reducer' : 'Converter', light.multiplierStops);
  }
  filters.forEach(({ name, stops: by }, i) => go(`filter ${i}`, name || `Filter ${i + 1}`, by));
  go('compensation', 'Compensation', light.compensationStops);
  if (given !== null && timeS !== null) {
    go(
      'film',
      'Film, long time',
      Math.log2(given / timeS),
      `${timeSaid(timeS)} asks ${timeSaid(given)}, ${stops(Math.log2(given / timeS))}`,
    );
  }
  return steps;
}
