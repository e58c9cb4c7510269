import type { Station } from '../document/station.js';
import type { KitItem, KitItemOf } from '../kit/schema.js';
import { layoutOf } from '../mosaic/layout.js';
import { setupOf } from '../optical/setup.js';
import { drawMm, extensionSetMm } from '../optical/draw.js';
import { mm } from '../words/format.js';
import { KIND_NAMES } from '../words/names.js';
import { lengthsOf } from '../document/lengths.js';

/** What has to come along for a day’s stations. */

export type PackedKind = KitItem['kind'];

export interface Packed {
  readonly kind: PackedKind;
  readonly name: string;
  /** Of the kit; null for what was never in it. */
  readonly kitId: string | null;
  /** Stations it is used at, counted from 0; empty for what always comes along. */
  readonly usedAt: readonly number[];
  /** What could stand in for it; empty: it has no spare; null: the kit does not tell. */
  readonly spares: readonly string[] | null;
  /** How many are needed, where they are used up. */
  readonly count: number | null;
}

/** A station one pair of hands does not do. */
export interface TwoHands {
  readonly station: number;
  readonly why: string;
}

export interface Packing {
  readonly gear: readonly Packed[];
  readonly extras: readonly Packed[];
  readonly hands: readonly TwoHands[];
}

interface Used {
  readonly kind: PackedKind;
  readonly name: string;
  readonly kitId: string | null;
}

type Origin = { readonly origin?: { readonly kit_id: string } | undefined };

const used = (kind: PackedKind, name: string, part: Origin): Used => ({
  kind,
  name,
  kitId: part.origin?.kit_id ?? null,
});

/** Everything a station is shot with. */
function gearOf({ lens, chain, back, exposure }: Station): Used[] {
  const size = `${back.width_mm} × ${back.height_mm} mm back`;
  return [
    used('lens', lens.name ?? `${lens.focal_length_mm} mm lens`, lens),
    ...(lens.filter ? [used('filter', lens.filter.name ?? 'Filter ring', lens.filter)] : []),
    ...chain.map((part) =>
      used(
        part.kind === 'view_camera' ? 'camera' : part.kind,
        part.name?.trim() || KIND_NAMES[part.kind],
        part,
      ),
    ),
    used('back', back.name ?? size, back),
    ...(exposure?.filters ?? []).map((each, i) =>
      used('filter', each.name || `Filter ${i + 1}`, each),
    ),
    ...(exposure?.film ? [used('film', exposure.film.name ?? 'Film', exposure.film)] : []),
  ];
}

/** Exposures a station takes. */
const exposuresOf = (station: Station): number =>
  (station.mosaic && !station.held_off ? layoutOf(station).frames.length : 1) *
  (station.exposure?.brackets?.frames ?? 1);

/** Lenses within this of each other can stand in for one another: common practice, no source. */
const LIKE = 0.1;

const near = (a: number, b: number, share: number): boolean => Math.abs(a / b - 1) <= share;

type Alike = { readonly [K in PackedKind]: (one: KitItemOf<K>, other: KitItemOf<K>) => boolean };

const sameFaces = (
  one: { front_mount?: string | undefined; rear_mount?: string | undefined },
  other: { front_mount?: string | undefined; rear_mount?: string | undefined },
): boolean => one.front_mount === other.front_mount && one.rear_mount === other.rear_mount;

/** Whether a thing could do what another of its kind does. */
const ALIKE: Alike = {
  lens: (one, other) =>
    near(one.focal_length_mm, other.focal_length_mm, LIKE) && one.mount === other.mount,
  back: (one, other) =>
    near(one.width_mm, other.width_mm, 0.02) &&
    near(one.height_mm, other.height_mm, 0.02) &&
    one.mount === other.mount,
  adapter: (one, other) =>
    sameFaces(one, other) && (other.movement !== undefined || one.movement === undefined),
  multiplier: (one, other) => near(one.factor, other.factor, 0.02),
  board: (one, other) => sameFaces(one, other) && one.offset_mm === other.offset_mm,
  camera: (one, other) =>
    sameFaces(one, other) && (other.bellows_max_mm ?? 0) >= (one.bellows_max_mm ?? 0),
  filter: (one, other) =>
    one.thread_mm === other.thread_mm && Math.abs((one.stops ?? 0) - (other.stops ?? 0)) < 0.2,
  film: (one, other) => one.iso !== undefined && one.iso === other.iso,
  // Told by how many there are.
  extra: () => false,
};

const standsIn = (one: KitItem, other: KitItem): boolean =>
  one.kind === other.kind && ALIKE[one.kind](one as never, other as never);

interface Kept {
  readonly id: string;
  readonly document: KitItem;
}

/** Order of a list that is packed from: what is large first. */
const ORDER: readonly PackedKind[] = [
  'camera',
  'back',
  'lens',
  'board',
  'adapter',
  'multiplier',
  'filter',
  'film',
  'extra',
];

/** Farther out the front cannot be reached from the glass, mm: common practice, no source. */
const ARM_MM = 500;
/** A lens that one hand does not hold, g: common practice, no source. */
const HEAVY_G = 2500;

function handsFor(station: Station, index: number): TwoHands[] {
  const lengths = lengthsOf(station);
  const found: TwoHands[] = [];
  if (lengths.bellows && !station.held_off) {
    const draw = drawMm(lengths, extensionSetMm(setupOf(station)));
    if (draw > ARM_MM) {
      found.push({
        station: index,
        why: `The bellows are drawn out ${mm(draw, 0)}: from the glass nobody reaches the front.`,
      });
    }
  }
  if ((station.lens.mass_g ?? 0) > HEAVY_G) {
    found.push({
      station: index,
      why: 'The lens is heavy: one holds it while the other mounts it.',
    });
  }
  return found;
}

/** Which extras come along, by what the stations are shot on. */
function extrasFor(stations: readonly Station[], kit: readonly Kept[]): Packed[] {
  const film = stations.some(({ back }) => back.medium === 'film');
  const digital = stations.some(({ back }) => back.medium !== 'film');
  const bellows = stations.some(({ chain }) => chain.some(({ kind }) => kind === 'view_camera'));
  const comes = { every_job: true, film, digital, bellows };
  return kit.flatMap(({ id, document }) => {
    if (document.kind !== 'extra' || !comes[document.comes_with]) return [];
    const { count = null } = document;
    return [
      {
        kind: 'extra' as const,
        name: document.name,
        kitId: id,
        usedAt: [],
        spares: count === null ? null : count > 1 ? [`${count} of them`] : [],
        count,
      },
    ];
  });
}

/** What to pack for stations in their order, from what they are made of and what the kit holds. */
export function packingOf(stations: readonly Station[], kit: readonly Kept[]): Packing {
  const found = new Map<string, { used: Used; at: Set<number>; count: number }>();
  stations.forEach((station, i) => {
    for (const each of gearOf(station)) {
      const key = `${each.kind} ${each.kitId ?? each.name}`;
      const entry = found.get(key) ?? { used: each, at: new Set(), count: 0 };
      entry.at.add(i);
      entry.count += exposuresOf(station);
      found.set(key, entry);
    }
  });
  const packed = new Set([...found.values()].map(({ used: { kitId } }) => kitId));
  const gear = [...found.values()].map(({ used: { kind, name, kitId }, at, count }): Packed => {
    const own = kit.find(({ id }) => id === kitId)?.document;
    const spares = own && kit.filter(({ id, document }) => id !== kitId && standsIn(own, document));
    return {
      kind,
      name,
      kitId,
      usedAt: [...at],
      // What comes along anyway is named first.
      spares:
        spares
          ?.sort((a, b) => Number(packed.has(b.id)) - Number(packed.has(a.id)))
          .map(({ document }) => document.name) ?? null,
      count: kind === 'film' ? count : null,
    };
  });
  return {
    gear: gear.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind)),
    extras: extrasFor(stations, kit),
    hands: stations.flatMap(handsFor),
  };
}
