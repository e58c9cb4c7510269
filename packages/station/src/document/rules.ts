import type { z } from 'zod';
import {
  bedReading,
  ENGRAVED,
  imageDistanceOnBed,
  leastDistanceMm,
  type Stance,
} from '@gangway/optics';
import { measuredRules } from './measured.js';
import { MOST_MOSAIC_FRAMES } from './most.js';
import type { Refuse } from './refuse.js';
import { siteRules } from './site-rules.js';
import { leanedOf, stanceOfStation } from './standards.js';
import type {
  Back,
  ChainPart,
  Exposure,
  Film,
  Lens,
  MovementLimits,
  Settings,
  Station,
} from './station.js';
import { focusingLensOf } from './focusing.js';

/** What fields owe each other, once each by itself is sound. One rule for every document. */

type Path = (string | number)[];

/** What the fields of a back owe each other, in a station as in the kit. */
export function backRules(
  back: Pick<Back, 'width_mm' | 'height_mm'>,
  at: Path,
  refuse: Refuse,
): void {
  if (back.height_mm > back.width_mm) {
    refuse(
      [...at, 'height_mm'],
      `must be at most width_mm (${back.width_mm}): give the back as built, orientation turns it`,
    );
  }
}

export function lensRules(
  lens: Pick<Lens, 'f_min' | 'f_max' | 'circle' | 'movement' | 'measured'>,
  at: Path,
  refuse: Refuse,
): void {
  if (lens.f_max < lens.f_min) {
    refuse([...at, 'f_max'], `must be no wider than the widest stop, f/${lens.f_min}`);
  }
  lens.circle.forEach((entry, i) => {
    const before = lens.circle[i - 1];
    if (before && entry.f_number === before.f_number) {
      refuse([...at, 'circle', i, 'f_number'], `repeats f/${entry.f_number}; give each stop once`);
    } else if (before && entry.f_number < before.f_number) {
      refuse(
        [...at, 'circle', i, 'f_number'],
        `must be above f/${before.f_number}: list the stops from the widest to the smallest`,
      );
    }
  });
  movementRules(lens.movement, [...at, 'movement'], refuse);
  measuredRules(lens.measured, [...at, 'measured'], refuse);
}

/** Columns of a grid, which with its rows may make no more than a mosaic has. */
function gridRule(
  { columns = 1, rows = 1 }: { readonly columns?: number; readonly rows?: number },
  at: Path,
  what: string,
  refuse: Refuse,
): void {
  if (!(columns * rows > MOST_MOSAIC_FRAMES)) return;
  refuse(
    [...at, 'columns'],
    `must be from 1 to ${Math.floor(MOST_MOSAIC_FRAMES / rows)} with ${rows} rows: at most ${MOST_MOSAIC_FRAMES} ${what}`,
  );
}

export function movementRules(
  limits: Pick<MovementLimits, 'reduced' | 'frame_stops'> | undefined,
  at: Path,
  refuse: Refuse,
): void {
  const stops = limits?.frame_stops;
  if (stops && 'columns' in stops) gridRule(stops, [...at, 'frame_stops'], 'stops', refuse);
  (limits?.reduced ?? []).forEach(({ f_from, f_to }, i) => {
    if (f_to >= f_from) return;
    refuse([...at, 'reduced', i, 'f_to'], `must be at least f_from, ${f_from}: from wide to small`);
  });
}

/** The draws of a bellows, in a chain as in the kit. */
export function bellowsRules(
  {
    bellows_min_mm: least,
    bellows_max_mm: most,
  }: { bellows_min_mm: number; bellows_max_mm: number },
  at: Path,
  refuse: Refuse,
): void {
  if (most < least) refuse([...at, 'bellows_max_mm'], `must be at least bellows_min_mm, ${least}`);
}

function chainRules(chain: readonly ChainPart[], refuse: Refuse): void {
  chain.forEach((part, i) => {
    if (part.kind === 'view_camera') bellowsRules(part, ['chain', i], refuse);
    if ('movement' in part) movementRules(part.movement, ['chain', i, 'movement'], refuse);
  });
  if (chain.filter((part) => part.kind === 'view_camera').length > 1) {
    refuse(['chain'], 'must hold at most one "view_camera"');
  }
}

/** Gear put together, in a station as in a rig on its own; lens or back may still be to come. */
export function rigRules(
  {
    lens,
    chain,
    back,
  }: {
    readonly lens?: Lens | undefined;
    readonly chain: readonly ChainPart[];
    readonly back?: Pick<Back, 'width_mm' | 'height_mm'> | undefined;
  },
  refuse: Refuse,
): void {
  if (back) backRules(back, ['back'], refuse);
  if (lens) lensRules(lens, ['lens'], refuse);
  chainRules(chain, refuse);
}

const READINGS = ['time_s', 'ev', 'spots'] as const;

/** What a film owes itself, in a station as in the kit: a table runs upwards, developments have names of their own. */
export function filmRules(
  { reciprocity, developments }: Pick<Film, 'reciprocity' | 'developments'>,
  at: Path,
  refuse: Refuse,
): void {
  reciprocityRules(reciprocity, [...at, 'reciprocity'], refuse);
  const names = (developments ?? []).map(({ name }) => name);
  names.forEach((name, i) => {
    if (names.indexOf(name) === i) return;
    refuse(
      [...at, 'developments', i, 'name'],
      `repeats “${name}”; give each one a name of its own`,
    );
  });
}

function reciprocityRules(reciprocity: Film['reciprocity'], at: Path, refuse: Refuse): void {
  (reciprocity?.table ?? []).forEach(({ metered_s, given_s }, i) => {
    const before = reciprocity!.table![i - 1];
    if (before && metered_s <= before.metered_s) {
      refuse(
        [...at, 'table', i, 'metered_s'],
        `must be above ${before.metered_s} s: list the times from short to long`,
      );
    } else if (given_s < metered_s) {
      refuse([...at, 'table', i, 'given_s'], `must be at least the metered time, ${metered_s} s`);
    } else if (before && given_s <= before.given_s) {
      refuse([...at, 'table', i, 'given_s'], `must be above ${before.given_s} s, the one before`);
    }
  });
}

/** What the fields of an exposure owe each other. */
export function exposureRules(exposure: Exposure, refuse: Refuse): void {
  const at = 'exposure';
  const { meter, reciprocity, film, shutter, flash_power: power } = exposure;
  const given = READINGS.filter((name) => meter?.[name] !== undefined);
  if (given.length > 1) {
    refuse([at, 'meter', given[1]!], `must be left out beside ${given[0]}: one reading only`);
  }
  const placed = (meter?.spots ?? []).flatMap(({ place_stops }, i) =>
    place_stops === undefined ? [] : [i],
  );
  if (placed.length > 1) {
    refuse(
      [at, 'meter', 'spots', placed[1]!, 'place_stops'],
      'must be left out: one spot only is placed, the others fall where they fall',
    );
  }
  reciprocityRules(reciprocity, [at, 'reciprocity'], refuse);
  if (film) filmRules(film, [at, 'film'], refuse);
  if (exposure.development !== undefined) {
    const names = (film?.developments ?? []).map(({ name }) => name);
    if (!names.includes(exposure.development)) {
      refuse(
        [at, 'development'],
        names.length === 0
          ? 'needs a film that knows its developments'
          : `must be one of the film’s: ${names.map((name) => `“${name}”`).join(', ')}`,
      );
    }
  }
  const { fastest_s: fastest, slowest_s: slowest } = shutter ?? {};
  if (fastest !== undefined && slowest !== undefined && fastest > slowest) {
    refuse([at, 'shutter', 'fastest_s'], `must be at most slowest_s, ${slowest} s`);
  }
  if (power?.least !== undefined && power.least > (power.metered ?? 1)) {
    refuse(
      [at, 'flash_power', 'least'],
      `must be at most the power that was metered, ${power.metered ?? 1}`,
    );
  }
}

/** Relations between fields: what each may be depends on another. */
export function settingsFaults(station: Settings, refuse: Refuse): void {
  const { back, lens, mosaic } = station;
  rigRules(station, refuse);
  movementRules(station.movement_limits, ['movement_limits'], refuse);
  // The last stop engraved as f/22 may act as f/22.6.
  const { aperture } = station;
  if (aperture < lens.f_min * (1 - ENGRAVED) || aperture > lens.f_max * (1 + ENGRAVED)) {
    refuse(
      ['aperture'],
      `must be from f/${lens.f_min} to f/${lens.f_max} on this lens, not f/${station.aperture}`,
    );
  }
  if (station.criterion.pixels !== undefined && back.width_px === undefined) {
    refuse(['criterion', 'pixels'], 'needs back.width_px, the pixels along the back’s long side');
  }
  if (mosaic?.pattern === 'grid') gridRule(mosaic, ['mosaic'], 'frames', refuse);
  if (mosaic?.near_m !== undefined && mosaic.far_m !== undefined && mosaic.near_m > mosaic.far_m) {
    refuse(['mosaic', 'near_m'], `must be at most far_m, ${mosaic.far_m}`);
  }
  if (station.exposure) exposureRules(station.exposure, refuse);
  oneBack(station, refuse);
  nearEnough(station, refuse);
  siteRules(station, refuse);
}

/** A variant is chosen by its name: no two may share one. */
export function variantFaults({ variants }: Pick<Station, 'variants'>, refuse: Refuse): void {
  const names = [variants?.present, ...(variants?.kept ?? []).map(({ name }) => name)];
  names.forEach((name, i) => {
    if (name === undefined || names.indexOf(name) === i) return;
    refuse(
      ['variants', 'kept', i - 1, 'name'],
      `repeats “${name}”; give each variant a name of its own`,
    );
  });
}

const refusing =
  (context: z.RefinementCtx): Refuse =>
  (path, message) =>
    context.addIssue({ code: 'custom', path, message });

export const settingsRules = (station: Settings, context: z.RefinementCtx): void =>
  settingsFaults(station, refusing(context));

export function stationRules(
  station: Settings & Pick<Station, 'variants'>,
  context: z.RefinementCtx,
): void {
  settingsFaults(station, refusing(context));
  variantFaults(station, refusing(context));
}

function nearEnough(station: Settings, refuse: Refuse): void {
  const { lens } = station;
  const stance = stanceOfStation(station);
  if (stance.axis[2] < 0.05) {
    refuse(['movements'], 'lean lens and back too far apart: at most 87° between them');
    return;
  }
  leavesDraw(station, stance, refuse);
  const distance = station.focus.distance_m;
  if (typeof distance !== 'number') return;
  const nearest = leastDistanceMm(focusingLensOf(station), leanedOf(stance)) / 1000;
  if (distance < nearest * (1 - 1e-9)) {
    refuse(
      ['focus', 'distance_m'],
      `is nearer than a ${lens.focal_length_mm} mm lens can focus: at least ${nearest.toPrecision(4)} m, ` +
        'or give the magnification',
    );
  }
}

/** Leaning draws lens and back together; what is set on the bed has to leave some room. */
function leavesDraw({ focus }: Settings, stance: Stance, refuse: Refuse): void {
  const set = focus.image_distance_mm;
  if (set === undefined || imageDistanceOnBed(stance, set) >= 1 - 1e-9) return;
  refuse(
    ['focus', 'image_distance_mm'],
    `leaves no room for lens and back as they lean: at least ${bedReading(stance, 1).toPrecision(4)} mm as they lean now`,
  );
}

/** With the back as the standard that moves, its rise and shift are the plain ones. */
function oneBack({ movements, movement_limits: limits }: Settings, refuse: Refuse): void {
  if (limits.moves !== 'rear') return;
  for (const field of ['rear_rise_mm', 'rear_shift_mm'] as const) {
    if (movements[field] === undefined || movements[field] === 0) continue;
    refuse(
      ['movements', field],
      `is for a back that moves beside the front; with movement_limits.moves "rear" give ${field.slice(5)}`,
    );
  }
}
