import * as z from 'zod';
import {
  fNumber,
  list,
  record,
  text,
  versionFault,
  versionField,
  type Known,
} from '../document/fields.js';
import { newStation } from '../document/new-station.js';
import { withOrigins } from '../document/migrations.js';
import { checked, type Result } from '../document/parse.js';
import { backSchema, chainPartSchema, lensSchema } from '../document/parts.js';
import { rigRules } from '../document/rules.js';
import type { Refuse } from '../document/refuse.js';
import type { Station } from '../document/station.js';
import { withRig } from './assemble.js';
import { heldStop } from '../document/stop.js';
import { contactsReach } from '../document/contacts.js';

const VERSION = 1;

/** Gear put together under a name: copies of kit items, in order from the lens to the back. */
export const rigSchema = record({
  format: z.literal('gangway.rig', { error: 'must be "gangway.rig"' }),
  version: versionField(VERSION),
  name: text().min(1, { error: 'must not be empty; give it a name' }),
  lens: lensSchema.optional(),
  chain: list(chainPartSchema, 32),
  back: backSchema.optional(),
  /** Stop at which it is looked at. */
  aperture: fNumber().optional(),
}).superRefine((rig, context) => {
  const refuse: Refuse = (path, message) => context.addIssue({ code: 'custom', path, message });
  rigRules(rig, refuse);
});

export type Rig = Known<z.infer<typeof rigSchema>>;
export type WholeRig = Rig & Required<Pick<Rig, 'lens' | 'back'>>;

export function parseRig(document: unknown): Result<Rig> {
  // Of another version nothing else can be told.
  const { format, version } = (document ?? {}) as Record<string, unknown>;
  if (format === 'gangway.rig' && version !== VERSION) {
    return {
      ok: false,
      problems: [{ pointer: '/version', message: versionFault(version, VERSION) }],
    };
  }
  return checked<Rig>(rigSchema, isRecord(document) ? withOrigins(document) : document);
}

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export const newRig = (name: string): Rig => ({
  format: 'gangway.rig',
  version: VERSION,
  name,
  chain: [],
});

export const isWhole = (rig: Rig): rig is WholeRig =>
  rig.lens !== undefined && rig.back !== undefined;

/** Stop a rig is looked at when none was chosen: f/8, where shift lenses are sharpest, held to what it can do. */
export function stopOf({ lens, chain, back, aperture }: WholeRig): number {
  if (lens.iris === 'none') return lens.f_min;
  if (
    aperture === undefined &&
    lens.iris === 'electronic' &&
    !contactsReach({ lens, chain, back })
  ) {
    return lens.f_min;
  }
  return heldStop(lens, aperture ?? 8);
}

/** A rig as a station looks at it: level, movements at zero, focused as far as it goes. */
export function rigStation(rig: WholeRig): Station {
  const { lens, chain, back } = rig;
  const station = withRig(
    { ...newStation(rig.name), aperture: stopOf(rig), focus: { distance_m: null } },
    { lens, chain, back },
  );
  return { ...station, back: { ...back }, aperture: stopOf(rig) };
}
