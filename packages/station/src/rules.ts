import type { z } from 'zod';
import { axisFromSensor, leastDistanceMm, lensAxis, pivotTravel } from '@gangway/optics';
import { focusingLensOf, type RigParts } from './rig/stack.js';
import { siteRules, type Sited } from './site/rules.js';

/** What {@link stationRules} needs of a station whose single fields are already sound. */
interface Checked extends Sited {
  back: { width_mm: number; height_mm: number; width_px?: number };
  lens: { focal_length_mm: number; f_min: number; f_max: number; circle: { f_number: number }[] };
  chain: ({ kind: string } & Record<string, unknown>)[];
  aperture: number;
  focus: Record<string, unknown>;
  movement_limits?: { pivot_mm?: number };
  movements: {
    tilt_deg: number;
    swing_deg: number;
    rear_tilt_deg?: number;
    rear_swing_deg?: number;
  };
  criterion: Record<string, unknown>;
}

const FOCUS_WAYS = ['distance_m', 'magnification', 'image_distance_mm'];
const CRITERIA = ['coc_mm', 'diagonal_divisor', 'pixels', 'print_width_mm'];

const given = (value: Record<string, unknown>, keys: string[]): string[] =>
  keys.filter((key) => value[key] !== undefined);

export type Refuse = (path: (string | number)[], message: string) => void;

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
  nearEnough(station, refuse);
  siteRules(station, refuse);
}

function nearEnough(station: Checked, refuse: Refuse): void {
  const { movements, lens } = station;
  const axis = axisFromSensor(
    { tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg },
    { tiltDeg: movements.rear_tilt_deg ?? 0, swingDeg: movements.rear_swing_deg ?? 0 },
  );
  if (axis[2] < 0.05) {
    refuse(['movements'], 'lean lens and back too far apart: at most 87° between them');
    return;
  }
  pivotLeavesDraw(station, refuse);
  const distance = station.focus.distance_m;
  if (typeof distance !== 'number') return;
  const rig = station as unknown as RigParts;
  const nearest = leastDistanceMm(focusingLensOf(rig), axis[2]) / 1000;
  if (distance < nearest * (1 - 1e-9)) {
    refuse(
      ['focus', 'distance_m'],
      `is nearer than a ${lens.focal_length_mm} mm lens can focus: at least ${nearest.toPrecision(4)} m, ` +
        'or give the magnification',
    );
  }
}

/** A lens that leans about a pivot behind it draws back; what is set on the bed has to leave some. */
function pivotLeavesDraw({ movements, movement_limits, focus }: Checked, refuse: Refuse): void {
  const set = focus.image_distance_mm;
  const pivot = movement_limits?.pivot_mm ?? 0;
  if (typeof set !== 'number' || pivot === 0) return;
  const own = lensAxis({ tiltDeg: movements.tilt_deg, swingDeg: movements.swing_deg });
  const { backMm } = pivotTravel(own, pivot);
  if (set + backMm >= 1) return;
  refuse(
    ['focus', 'image_distance_mm'],
    `leaves no room for the lens to lean on its pivot: at least ${(1 - backMm).toPrecision(4)} mm as it leans now`,
  );
}
