import * as z from 'zod';
import { parseLogged } from '../job/document.js';
import type { Logged } from '../document/logged.js';
import { written } from '../document/written.js';

/** Changes of a log, as they are kept, sent and carried out: a field at a time, so that two hands do not undo each other’s work. */

/** What a field was when it was changed and what it is to be; left out: not there. */
export interface FieldChange {
  readonly was?: unknown;
  readonly to?: unknown;
}

export type FieldChanges = Readonly<Record<string, FieldChange>>;

export type LogChange =
  | { readonly id: string; readonly add: Logged }
  | { readonly id: string; readonly set: FieldChanges }
  | { readonly id: string; readonly remove: true }
  | { readonly id: string; readonly restore: true }
  /** What is loaded; the id is the job’s. */
  | { readonly id: string; readonly films: FieldChange };

/** Most changes in one request. */
export const LOG_CHANGES_AT_ONCE = 500;

const field = z.looseObject({ was: z.unknown().optional(), to: z.unknown().optional() });
const change = z.union(
  [
    z.strictObject({ id: z.uuid(), add: z.looseObject({ id: z.uuid() }) }),
    z.strictObject({ id: z.uuid(), set: z.record(z.string(), field) }),
    z.strictObject({ id: z.uuid(), remove: z.literal(true) }),
    z.strictObject({ id: z.uuid(), restore: z.literal(true) }),
    z.strictObject({ id: z.uuid(), films: field }),
  ],
  { error: 'must hold id and one of add, set, remove, restore, films' },
);

export const logChangesSchema = z
  .array(change, { error: 'must be a list of changes' })
  .max(LOG_CHANGES_AT_ONCE, { error: `must hold at most ${LOG_CHANGES_AT_ONCE} changes` });

const text = (value: unknown): string => (value === undefined ? '' : written(null, value));
export const sameField = (a: unknown, b: unknown): boolean => text(a) === text(b);

export type Applied =
  | { readonly kind: 'done'; readonly line: Logged }
  /** Fields that were changed elsewhere meanwhile to something else. */
  | { readonly kind: 'clash'; readonly fields: readonly string[] }
  | { readonly kind: 'refused'; readonly message: string };

const FIXED = new Set(['id']);

/** A line with its fields changed. All of it or nothing. */
export function withFields(line: Logged, set: FieldChanges): Applied {
  const now = line as unknown as Record<string, unknown>;
  const own = (name: string): unknown => (Object.hasOwn(now, name) ? now[name] : undefined);
  const fields = Object.entries(set).filter(([name]) => !FIXED.has(name));
  const clash = fields.filter(
    ([name, { was, to }]) => !sameField(own(name), was) && !sameField(own(name), to),
  );
  if (clash.length > 0) return { kind: 'clash', fields: clash.map(([name]) => name) };
  return checked(line, Object.fromEntries(fields.map(([name, { to }]) => [name, to])));
}

function checked(line: Logged, to: Readonly<Record<string, unknown>>): Applied {
  const kept = Object.entries(line).filter(([name]) => !Object.hasOwn(to, name));
  const given = Object.entries(to).filter(([, value]) => value !== undefined);
  const read = parseLogged(Object.fromEntries([...kept, ...given]));
  if (read.ok) return { kind: 'done', line: read.value };
  const [first] = read.problems;
  const name = first!.pointer.slice(1).replaceAll('/', ' ').replaceAll('_', ' ');
  return { kind: 'refused', message: `${name} ${first!.message}.` };
}

/** What leads from a line to another of the same id; null where nothing does. */
export function fieldsBetween(before: Logged, after: Logged): FieldChanges | null {
  const [a, b] = [before, after] as unknown as Record<string, unknown>[];
  const names = new Set([...Object.keys(a!), ...Object.keys(b!)]);
  const found = [...names].filter((name) => !sameField(a![name], b![name]));
  if (found.length === 0) return null;
  return Object.fromEntries(found.map((name) => [name, { was: a![name], to: b![name] }]));
}
