import { rigFacts } from '../optical/facts.js';
import type { Back, ChainPart, Film, Lens, MovementLimits, Station } from '../document/station.js';
import { leanedOf, stanceOfStation } from '../document/standards.js';
import { REAR_MOVEMENTS } from '../document/movements.js';
import { bedReading } from '@gangway/optics';
import { criterionInStep } from '../document/criterion.js';
import type { KitItem, KitItemOf } from './schema.js';
import { heldStop } from '../document/stop.js';
import { focusEnds } from '../optical/reach.js';
import type { RigParts } from '../document/rig-parts.js';

/** A kit item as it is stored: which one, and how often it was changed. */
export interface Stored<T = KitItem> {
  readonly id: string;
  readonly revision: number;
  readonly document: T;
}

type Origin = NonNullable<Lens['origin']>;

export const originOf = ({ id, revision }: Stored<unknown>): { origin: Origin } => ({
  origin: { kit_id: id, kit_revision: revision },
});

const bare = <T extends KitItem>({ kind: _, ...rest }: T): Omit<T, 'kind'> => rest;

export const lensFrom = (stored: Stored<KitItemOf<'lens'>>): Lens => ({
  ...bare(stored.document),
  ...originOf(stored),
});

export const backFrom = (
  stored: Stored<KitItemOf<'back'>>,
  orientation: Back['orientation'] = 'landscape',
): Back => ({ ...bare(stored.document), orientation, ...originOf(stored) });

/** A film as it is loaded: a copy with where it is from. */
export function filmFrom(stored: Stored<KitItemOf<'film'>>): Film {
  const { kind: _, notes: _n, mass_g: _m, modified: _a, ...film } = stored.document;
  return { ...film, ...originOf(stored) };
}

const CHAIN_KINDS = ['adapter', 'multiplier', 'board', 'camera'] as const;
type ChainKind = (typeof CHAIN_KINDS)[number];

export const goesInChain = (item: KitItem): item is KitItemOf<ChainKind> =>
  (CHAIN_KINDS as readonly string[]).includes(item.kind);

/** A part of the chain from the kit. A rigid camera is an adapter with movements. */
export function chainPartFrom(stored: Stored<KitItemOf<ChainKind>>): ChainPart {
  const item = stored.document;
  const origin = originOf(stored);
  if (item.kind !== 'camera') return { ...item, ...origin } as ChainPart;
  const {
    kind: _,
    bellows_min_mm: least,
    bellows_max_mm: most,
    thickness_mm: depth,
    ...rest
  } = item;
  return most === undefined
    ? { ...rest, kind: 'adapter', thickness_mm: depth ?? 0, ...origin }
    : { ...rest, kind: 'view_camera', bellows_min_mm: least ?? 0, bellows_max_mm: most, ...origin };
}

/** Length that a step-up ring adds in front of the thread: common practice, no source. */
export const STEP_RING_MM = 4;

/** A filter as it sits before a lens, or the sentence that says why it does not. */
export function filterFrom(
  stored: Stored<KitItemOf<'filter'>>,
  lens: Lens,
): { ok: true; value: NonNullable<Lens['filter']> } | { ok: false; message: string } {
  const { name, thread_mm: thread, clear_diameter_mm, thickness_mm } = stored.document;
  const own = lens.filter_thread_mm;
  if (own !== undefined && thread < own) {
    return {
      ok: false,
      message: `The filter’s thread of ${thread} mm is smaller than the lens’s, ${own} mm; it would cut the picture.`,
    };
  }
  const stepped = own !== undefined && thread > own;
  return {
    ok: true,
    value: {
      name: stepped ? `${name} on a step-up ring ${own} to ${thread} mm` : name,
      clear_diameter_mm,
      ahead_of_pupil_mm:
        (lens.thread_ahead_of_pupil_mm ?? 0) + thickness_mm + (stepped ? STEP_RING_MM : 0),
      ...originOf(stored),
    },
  };
}

const NONE: [number, number] = [0, 0];
const RANGES = ['rise_mm', 'shift_mm', 'tilt_deg', 'swing_deg'] as const;
const REAR = [...REAR_MOVEMENTS, 'rear_pivot_mm', 'frame_stops', 'zero'] as const;

/** How far the stops of a sliding back reach, where nothing else says; no way without any. */
function stopsReach(
  { frame_stops: stops }: MovementLimits,
  range: (typeof RANGES)[number],
): [number, number] {
  if (!stops || range.endsWith('_deg') || 'turns' in stops) return NONE;
  const axis = range === 'shift_mm' ? 0 : 1;
  if ('places_mm' in stops) {
    const places = stops.places_mm.map((place) => place[axis]);
    return [Math.min(0, ...places), Math.max(0, ...places)];
  }
  const half =
    (((axis === 0 ? stops.columns : stops.rows) - 1) / 2) * Math.abs(stops.pitch_mm[axis]);
  return [-half + 0, half];
}

/** What all movements of a rig’s parts allow together. Ranges of the same sense add up. */
export function movementsOf(rig: Pick<RigParts, 'lens' | 'chain'>): MovementLimits {
  const carriers = [rig.lens, ...rig.chain].flatMap((part) =>
    'movement' in part && part.movement ? [part.movement] : [],
  );
  const only = carriers[0];
  if (only && carriers.length === 1) {
    const zeros = Object.fromEntries(
      RANGES.filter((range) => {
        const radial = range.endsWith('_mm') ? only.radial_shift_mm : only.radial_tilt_deg;
        return only[range] === undefined && radial === undefined;
      }).map((range) => [range, stopsReach(only, range)]),
    );
    return { ...only, ...zeros };
  }
  const sum = (range: (typeof RANGES)[number]): [number, number] => {
    // The document takes leans up to 80°; nothing that is built goes there.
    const most = range.endsWith('_deg') ? 80 : Infinity;
    let ends: [number, number] = [...NONE];
    for (const carrier of carriers) {
      const radial = range.endsWith('_mm') ? carrier.radial_shift_mm : carrier.radial_tilt_deg;
      const [low, high] = carrier[range] ?? [-(radial ?? 0), radial ?? 0];
      ends = [Math.max(-most, ends[0] + low + 0), Math.min(most, ends[1] + high)];
    }
    return ends;
  };
  // The back is one part's: what it does by itself comes from whichever names it.
  const rear = Object.fromEntries(
    REAR.flatMap((field) => {
      const carrier = carriers.find((each) => each[field] !== undefined);
      return carrier ? [[field, carrier[field]]] : [];
    }),
  );
  return {
    ...rear,
    rise_mm: sum('rise_mm'),
    shift_mm: sum('shift_mm'),
    tilt_deg: sum('tilt_deg'),
    swing_deg: sum('swing_deg'),
    moves:
      carriers.every((carrier) => carrier.moves === 'rear') && carriers.length > 0
        ? 'rear'
        : 'front',
  };
}

/**
 * A station with another rig. Settings stay where the new rig allows them: the stop is held to
 * what the lens has, the focus to what the rig reaches, a standard of sharpness to a back it can be
 * told on, and what the back did beside the front goes where the back alone moves.
 */
export function withRig(
  station: Station,
  rig: RigParts & { readonly movement_limits?: MovementLimits | undefined },
): Station {
  const { lens, chain, back } = rig;
  const limits = rig.movement_limits ?? movementsOf(rig);
  const { rear_rise_mm: _r, rear_shift_mm: _s, ...plain } = station.movements;
  const next: Station = {
    ...station,
    lens,
    chain: [...chain],
    back: { ...back, orientation: station.back.orientation },
    movement_limits: limits,
    movements: limits.moves === 'rear' ? plain : station.movements,
    aperture: heldStop(lens, station.aperture),
  };
  return criterionInStep(focusInReach(next), station);
}

function focusInReach(station: Station): Station {
  const { distance_m: distance, image_distance_mm: onBed } = station.focus;
  if (distance !== undefined) return withinReach(station, distance);
  return onBed === undefined
    ? station
    : { ...station, focus: { image_distance_mm: roomOnBed(station, onBed) } };
}

/** A reading of the bed that leaves room for lens and back as they lean, mm. */
function roomOnBed(station: Station, imageDistanceMm: number): number {
  const least = bedReading(stanceOfStation(station), 1);
  // Outward by a hair, so that rounding does not bring it too near again.
  return imageDistanceMm >= least ? imageDistanceMm : Math.ceil(least * 1.000001 * 1000) / 1000;
}

/** The focus held to what a rig reaches. */
export function withinReach(station: Station, distanceM: number | null): Station {
  const { nearMm, farMm } = focusEnds(rigFacts(station), leanedOf(stanceOfStation(station)));
  const distanceMm = (distanceM ?? Infinity) * 1000;
  const { leastM } = rigFacts(station).reach;
  if (distanceMm > farMm || (leastM >= 1 && distanceMm >= nearMm)) {
    // Near life size a distance tells two settings; the magnification tells one.
    return {
      ...station,
      focus: leastM >= 0.5 ? { magnification: leastM } : { distance_m: farMm / 1000 },
    };
  }
  // Outward by a hair, so that rounding does not put it too near again.
  return distanceMm < nearMm
    ? { ...station, focus: { distance_m: Math.ceil(nearMm * 1.000001) / 1000 } }
    : { ...station, focus: { distance_m: distanceM } };
}
