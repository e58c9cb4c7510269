import {
  apertureStops,
  bellowsStops,
  magnificationAt,
  multiplierStops,
  timeOfEv,
  type Reciprocity,
  leastOf,
  mostOf,
} from '@gangway/optics';
import type { Exposure, Station } from '../document/station.js';
import { asShot, stationShot } from '../optical/held.js';
import { setupOf } from '../optical/setup.js';
import { finite } from '../words/finite.js';

/** What the meter read, and what stands between that and the shutter, in stops. */
export interface Light {
  /** The meter’s own time at its aperture and sensitivity, s; null without a reading. */
  readonly meteredS: number | null;
  /** From the metered aperture and sensitivity to those of the station. */
  readonly apertureStops: number;
  readonly isoStops: number;
  /** Null where no image is formed. */
  readonly bellowsStops: number | null;
  readonly multiplierStops: number;
  readonly filterStops: number;
  /** Filters, and by hand the bellows and multipliers too. */
  readonly addedStops: number;
  readonly compensationStops: number;
  /** Aperture, sensitivity, what is added and the compensation. */
  readonly allStops: number;
  /** Brightest spot against darkest, or as given; null when not known. */
  readonly sceneRangeStops: number | null;
}

/** The exposure value a set of spots asks: that of the placed one, else halfway from darkest to brightest. */
export function evOfSpots(
  spots: NonNullable<NonNullable<Exposure['meter']>['spots']>,
): number | null {
  if (spots.length === 0) return null;
  const placed = spots.find(({ place_stops }) => place_stops !== undefined);
  if (placed) return placed.ev - placed.place_stops!;
  const values = spots.map(({ ev }) => ev);
  return (leastOf(values) + mostOf(values)) / 2;
}

function meteredTime(meter: NonNullable<Exposure['meter']>, fNumber: number): number | null {
  if (meter.time_s !== undefined) return meter.time_s;
  const ev = meter.ev ?? (meter.spots ? evOfSpots(meter.spots) : null);
  return ev === null ? null : timeOfEv(ev, fNumber);
}

/** Without a stop of its own the meter read at the one that is shot at. */
export const meteredFNumber = (station: Station): number =>
  station.exposure?.meter?.f_number ?? stationShot(station).aperture;

/** Stops from the sensitivity that was metered to the one used; nothing where only one is known. */
function isoStopsOf({ iso, meter }: Exposure): number {
  const [metered, used] = [meter?.iso ?? iso, iso ?? meter?.iso];
  return metered === undefined || used === undefined ? 0 : Math.log2(metered / used);
}

export function sceneRange({ scene_range_stops: given, meter }: Exposure): number | null {
  if (given !== undefined) return given;
  const values = (meter?.spots ?? []).map(({ ev }) => ev);
  return values.length < 2 ? null : mostOf(values) - leastOf(values);
}

export function lightOf(station: Station, exposure: Exposure): Light {
  const s = asShot(setupOf(station));
  const { aperture } = stationShot(station);
  const { meter, filters = [], compensation_stops: compensationStops = 0 } = exposure;
  const fNumber = meteredFNumber(station);
  const magnification = magnificationAt(s.focalLengthMm, s.axis[2], s.imageDistanceMm);
  const bellows = finite(bellowsStops(magnification, s.pupilRatio));
  const factor = station.chain.reduce(
    (all, part) => (part.kind === 'multiplier' ? all * part.factor : all),
    1,
  );
  const multiplier = multiplierStops(factor);
  const filter = filters.reduce((sum, { stops }) => sum + stops, 0);
  const added = filter + (meter?.through_lens ? 0 : (bellows ?? 0) + multiplier);
  const [byAperture, byIso] = [apertureStops(aperture, fNumber), isoStopsOf(exposure)];
  return {
    meteredS: meter ? meteredTime(meter, fNumber) : null,
    apertureStops: byAperture,
    isoStops: byIso,
    bellowsStops: bellows,
    multiplierStops: multiplier,
    filterStops: filter,
    addedStops: added,
    compensationStops,
    allStops: byAperture + byIso + added + compensationStops,
    sceneRangeStops: sceneRange(exposure),
  };
}

/** What the bellows add; nothing where no image is formed. */
export const bellowsAdded = ({ bellowsStops: stops }: Light): number => stops ?? 0;

/** By how much the filters even out the corners, in stops. */
export const centreStops = ({ filters = [] }: Exposure): number =>
  filters.reduce((sum, { centre, stops }) => sum + (centre ? stops : 0), 0);

/** A document’s reciprocity as the physics takes it. */
export const reciprocityOf = ({ reciprocity }: Exposure): Reciprocity | undefined =>
  reciprocity as Reciprocity | undefined;
