import type { z } from 'zod';
import { bedReading, imageDistanceOnBed, leastDistanceMm, type Stance } from '@gangway/optics';
import { focusingLensOf, type RigParts } from './chain.js';
import type { Station } from './station.js';
import { leanedOf, stanceOfStation } from './standards.js';
import type { Refuse } from './refuse.js';
import { siteRules, type Sited } from './site-rules.js';

/** What {@link stationRules} needs of a station whose single fields are already sound. */
interface Checked extends Sited {
  back: { width_mm: number; height_mm: number; width_px?: number };
  lens: { focal_length_mm: number; f_min: number; f_max: number; circle: { f_number: number }[] };
  chain: ({ kind: string } & Record<string, unknown>)[];
  aperture: number;
  focus: Record<string, unknown>;
  movement_limits?: { pivot_mm?: number; moves?: string };
  movements: {
    tilt_deg: number;
    swing_deg: number;
    rear_tilt_deg?: number;
    rear_swing_deg?: number;
    rear_rise_mm?: number;
    rear_shift_mm?: number;
  };
  criterion: Record<string, unknown>;
}

const FOCUS_WAYS = ['distance_m', 'magnification', 'image_distance_mm'];
const CRITERIA = ['coc_mm', 'diagonal_divisor', 'pixels', 'print_width_mm'];

const given = (value: Record<string, unknown>, keys: string[]): string[] =>
  keys.filter((key) => value[key] !== undefined);

/** What the fields of a back owe each other, in a station as in the kit. */
export function backRules(back: Checked['back'], at: string[], refuse: Refuse): void {
  if (back.height_mm > back.width_mm) {
    refuse(
      [...at, 'height_mm'],
      `must be at most width_mm (${back.width_mm}): give the back as built, orientation turns it`,
    );
  }
}

export function lensRules(lens: Checked['lens'], at: string[], refuse: Refuse): void {
  if (lens.f_max < lens.f_min) {
    refuse([...at, 'f_max'], `must be at least f_min, ${lens.f_min}`);
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
}

/** Relations between fields: what each may be depends on another. */
export function stationRules(station: Checked, context: z.RefinementCtx): void {
  const refuse: Refuse = (path, message) => context.addIssue({ code: 'custom', path, message });
  const { back, lens } = station;
  backRules(back, ['back'], refuse);
  lensRules(lens, ['lens'], refuse);
  if (station.aperture < lens.f_min * (1 - 1e-9) || station.aperture > lens.f_max * (1 + 1e-9)) {
    refuse(
      ['aperture'],
      `must be from f/${lens.f_min} to f/${lens.f_max} on this lens, not f/${station.aperture}`,
    );
  }
  station.chain.forEach((part, i) => {
    if (part.kind === 'view_camera' && Number(part.bellows_max_mm) < Number(part.bellows_min_mm)) {
      refuse(
        ['chain', i, 'bellows_max_mm'],
        `must be at least bellows_min_mm, ${String(part.bellows_min_mm)}`,
      );
    }
  });
  if (station.chain.filter((part) => part.kind === 'view_camera').length > 1) {
    refuse(['chain'], 'must hold at most one "view_camera"');
  }
  if (given(station.focus, FOCUS_WAYS).length > 1) {
    refuse(['focus'], `must hold only one of ${FOCUS_WAYS.join(', ')}`);
  }
  if (given(station.criterion, CRITERIA).length > 1) {
    refuse(['criterion'], 'must hold one standard of sharpness only');
  }
  if (station.criterion.pixels !== undefined && back.width_px === undefined) {
    refuse(['criterion', 'pixels'], 'needs back.width_px, the pixels along the back’s long side');
  }
  oneBack(station, refuse);
  nearEnough(station, refuse);
  siteRules(station, refuse);
}

function nearEnough(station: Checked, refuse: Refuse): void {
  const { lens } = station;
  // Single fields are sound; what follows reads no others.
  const stance = stanceOfStation(station as unknown as Station);
  if (stance.axis[2] < 0.05) {
    refuse(['movements'], 'lean lens and back too far apart: at most 87° between them');
    return;
  }
  leavesDraw(station, stance, refuse);
  const distance = station.focus.distance_m;
  if (typeof distance !== 'number') return;
  const rig = station as unknown as RigParts;
  const nearest = leastDistanceMm(focusingLensOf(rig), leanedOf(stance)) / 1000;
  if (distance < nearest * (1 - 1e-9)) {
    refuse(
      ['focus', 'distance_m'],
      `is nearer than a ${lens.focal_length_mm} mm lens can focus: at least ${nearest.toPrecision(4)} m, ` +
        'or give the magnification',
    );
  }
}

/** Leaning draws lens and back together; what is set on the bed has to leave some room. */
function leavesDraw({ focus }: Checked, stance: Stance, refuse: Refuse): void {
  const set = focus.image_distance_mm;
  if (typeof set !== 'number' || imageDistanceOnBed(stance, set) >= 1 - 1e-9) return;
  refuse(
    ['focus', 'image_distance_mm'],
    `leaves no room for lens and back as they lean: at least ${bedReading(stance, 1).toPrecision(4)} mm as they lean now`,
  );
}

/** With the back as the standard that moves, its rise and shift are the plain ones. */
function oneBack({ movements, movement_limits: limits }: Checked, refuse: Refuse): void {
  if (limits?.moves !== 'rear') return;
  for (const field of ['rear_rise_mm', 'rear_shift_mm'] as const) {
    if (movements[field] === undefined || movements[field] === 0) continue;
    refuse(
      ['movements', field],
      `is for a back that moves beside the front; with movement_limits.moves "rear" give ${field.slice(5)}`,
    );
  }
}
