import type * as z from 'zod';
import { parseEdited, parseStation, SOUND, unstorable, type Result } from './parse.js';
import { criterionInStep } from './criterion.js';
import { settingsFaults, variantFaults } from './rules.js';
import { stationShape, type Station } from './station.js';

/**
 * A changed station, held to every rule; a fault that was there before is accepted. A standard of
 * sharpness nobody chose goes with the back. A step of a hand changes one figure: holding all of the
 * station to the schema again would cost more than everything that is drawn from it.
 */
export function editedStation(changed: Station, before: Station): Result<Station> {
  const after = criterionInStep(changed, before);
  if (!SOUND.has(before)) {
    if (!parseStation(before).ok) return parseEdited(parseStation, after, before);
  }
  if (!changedPartsSound(after, before)) {
    const read = parseStation(after);
    if (!read.ok) return read;
  }
  SOUND.add(after);
  return { ok: true, value: after };
}

/**
 * Whether a change of a station holds to every rule: {@link parseStation} of it, at the cost of what
 * changed where the station itself is sound.
 */
export function changeParses(after: Station, before: Station): boolean {
  if (!SOUND.has(before)) {
    if (!parseStation(before).ok) return parseStation(after).ok;
  }
  return changedPartsSound(after, before) || parseStation(after).ok;
}

/** Whether all that is new in a station is as the schema has it, and the whole holds to the rules. */
function changedPartsSound(after: Station, before: Station): boolean {
  const fields = new Set([...Object.keys(after), ...Object.keys(before)]);
  for (const field of fields) {
    if (!fieldSound(field, after, before)) return false;
  }
  let faults = 0;
  const refuse = (): void => void faults++;
  settingsFaults(after, refuse);
  variantFaults(after, refuse);
  return faults === 0;
}

type Loose = Readonly<Record<string, unknown>>;

function fieldSound(field: string, after: Loose, before: Loose): boolean {
  const [now, was] = [after[field], before[field]];
  if (now === was) return true;
  const schema = (stationShape.shape as Record<string, z.ZodType | undefined>)[field];
  // Variants hold settings with rules of their own; they are seldom touched.
  if (!schema || field === 'variants') return false;
  const fresh = field === 'site' ? sitePart(now, was) : newEntries(now, was);
  return unstorable(fresh) === null && schema.safeParse(fresh).success;
}

/** The new entries of a list that has not grown; anything else as it is. */
const newEntries = (now: unknown, was: unknown): unknown => {
  if (!Array.isArray(now) || !Array.isArray(was) || now.length > was.length) return now;
  const known = new Set<unknown>(was);
  return now.filter((entry) => !known.has(entry));
};

/** A site with only those of its boxes that are new. */
function sitePart(now: unknown, was: unknown): unknown {
  if (typeof now !== 'object' || typeof was !== 'object' || !now || !was) return now;
  const site = now as Loose;
  return { ...site, boxes: newEntries(site.boxes, (was as Loose).boxes) };
}
