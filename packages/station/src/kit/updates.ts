import { differences, type Difference } from '../document/differences.js';
import { filmed } from '../document/filmed.js';
import type { ChainPart, Exposure, Film, Station } from '../document/station.js';
import {
  backFrom,
  chainPartFrom,
  filmFrom,
  filterFrom,
  goesInChain,
  lensFrom,
  movementsOf,
  originOf,
  withRig,
  type Stored,
} from './assemble.js';
import type { KitItemOf, Kind } from './schema.js';
import type { RigParts } from '../document/rig-parts.js';

/** A copy in a rig whose kit item has changed since it was taken. */
export interface KitUpdate {
  readonly name: string;
  /** What taking it would alter: the copy here, the kit now. */
  readonly changes: readonly Difference[];
}

type Copy = Pick<RigParts['lens'], 'origin'>;

const ofKind = <K extends Kind>(
  stored: Stored | undefined,
  kind: K,
): Stored<KitItemOf<K>> | null =>
  stored?.document.kind === kind ? (stored as Stored<KitItemOf<K>>) : null;

/** Fields that say where a copy is from or how it is turned, not what it is. */
function plain(part: object): Record<string, unknown> {
  const { origin: _from, orientation: _o, filter: _f, ...rest } = part as Record<string, unknown>;
  return rest;
}

type Find = (id: string) => Stored | undefined;

/** Takes a copy anew where its kit item was changed since in what the copy says, and notes it. */
const freshener =
  (find: Find, updates: KitUpdate[]) =>
  <P extends object>(part: P & Copy, make: (stored: Stored) => P | null): P => {
    const { origin } = part;
    const stored = origin && find(origin.kit_id);
    if (!stored || stored.revision === origin.kit_revision) return part;
    const next = make(stored);
    if (!next) return part;
    const changes = differences(plain(part), plain(next));
    if (changes.length === 0) return part;
    updates.push({ name: stored.document.name, changes });
    return next;
  };

/**
 * The copies of a rig brought up to the kit as it stands now.
 * @param find the kit item of an id; undefined when it is gone or archived
 */
export function updatedFromKit<T extends RigParts>(
  rig: T,
  find: Find,
): { updates: KitUpdate[]; after: T } {
  const updates: KitUpdate[] = [];
  const fresher = freshener(find, updates);
  const lens = fresher(rig.lens, (stored) => {
    const item = ofKind(stored, 'lens');
    return item && { ...lensFrom(item), ...(rig.lens.filter ? { filter: rig.lens.filter } : {}) };
  });
  const filter =
    lens.filter &&
    fresher(lens.filter, (stored) => {
      const item = ofKind(stored, 'filter');
      const made = item && filterFrom(item, lens);
      return made?.ok ? made.value : null;
    });
  const chain = rig.chain.map((part) =>
    fresher<ChainPart>(part, (stored) => {
      const { document } = stored;
      return goesInChain(document) ? chainPartFrom({ ...stored, document }) : null;
    }),
  );
  const back = fresher(rig.back, (stored) => {
    const item = ofKind(stored, 'back');
    return item && backFrom(item, rig.back.orientation);
  });
  return { updates, after: { ...rig, lens: filter ? { ...lens, filter } : lens, chain, back } };
}

const movementsIn = (rig: RigParts): string =>
  JSON.stringify(
    [rig.lens, ...rig.chain].map((part) => ('movement' in part ? part.movement : null)),
  );

/** What a film brought with it goes with the film; what was set by hand since stays. */
function withFresherFilm(exposure: Exposure, film: Film): Exposure {
  const { development } = exposure;
  const known = film.developments?.some(({ name }) => name === development);
  return filmed(exposure, film, known ? development : undefined, 'stays');
}

/** Film and filters of an exposure brought up to the kit. */
function updatedExposure(
  exposure: Exposure | undefined,
  find: Find,
): { updates: KitUpdate[]; after: Exposure | undefined } {
  const updates: KitUpdate[] = [];
  if (!exposure) return { updates, after: exposure };
  const fresher = freshener(find, updates);
  const { film, filters } = exposure;
  const loaded =
    film &&
    fresher(film, (stored) => {
      const item = ofKind(stored, 'film');
      return item && filmFrom(item);
    });
  const on = filters?.map((each) =>
    fresher<NonNullable<Exposure['filters']>[number]>(each, (stored) => {
      const item = ofKind(stored, 'filter');
      if (!item || item.document.stops === undefined) return null;
      const { name, stops, centre } = item.document;
      const { centre: _, ...rest } = each;
      return { ...rest, name, stops, ...(centre ? { centre } : {}), ...originOf(item) };
    }),
  );
  const after = loaded && loaded !== film ? withFresherFilm(exposure, loaded) : exposure;
  return { updates, after: on ? { ...after, filters: on } : after };
}

/**
 * {@link updatedFromKit} of a station, its film and filters with it; its own movement limits stay
 * unless the kit's changed.
 */
export function stationUpdate(
  station: Station,
  find: Find,
): { updates: KitUpdate[]; after: Station } {
  const { updates, after } = updatedFromKit(station, find);
  const light = updatedExposure(station.exposure, find);
  const moved = movementsIn(station) !== movementsIn(after);
  const rigged =
    updates.length === 0
      ? station
      : withRig(station, {
          lens: after.lens,
          chain: after.chain,
          back: after.back,
          movement_limits: moved ? movementsOf(after) : station.movement_limits,
        });
  return {
    updates: [...updates, ...light.updates],
    after: light.updates.length === 0 ? rigged : { ...rigged, exposure: light.after! },
  };
}

/** Ids of the kit items whose copies a document holds. */
export function kitIdsIn(document: unknown): string[] {
  const found = new Set<string>();
  const look = (value: unknown): void => {
    if (typeof value !== 'object' || value === null) return;
    for (const [key, inner] of Object.entries(value)) {
      if (key === 'kit_id' && typeof inner === 'string') found.add(inner);
      else look(inner);
    }
  };
  look(document);
  return [...found];
}
