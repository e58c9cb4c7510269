import type { z } from 'zod';
import { migrate } from './migrations.js';
import { FORMAT, stationSchema, VERSION, type Station } from './schema.js';
import { shown } from './fields.js';

/** One thing wrong with a document: where (a JSON pointer, RFC 6901) and a sentence. */
export interface Problem {
  readonly pointer: string;
  readonly message: string;
}

export type Result<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** Largest station file read, in bytes. A real one holds a few thousand. */
export const LARGEST_FILE_BYTES = 2_000_000;

const fail = (pointer: string, message: string): Result<never> => ({
  ok: false,
  problems: [{ pointer, message }],
});

export const pointerTo = (path: readonly PropertyKey[]): string =>
  path.map((key) => `/${String(key).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

/** Reads a document of any known version into the present one. Unknown fields are kept. */
export function parseStation(document: unknown): Result<Station> {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) {
    return fail('', `must be a JSON object with "format": "${FORMAT}", not ${shown(document)}`);
  }
  const { format, version } = document as Record<string, unknown>;
  if (format !== FORMAT) {
    return fail('/format', `must be "${FORMAT}" for a Gangway station, not ${shown(format)}`);
  }
  const migrated = migrate(document as Record<string, unknown>);
  if (!migrated) {
    const newer = typeof version === 'number' && version > VERSION;
    return fail(
      '/version',
      newer
        ? `${version} was written by a newer Gangway; this one understands version ${VERSION}`
        : `must be ${VERSION}, the version understood here, not ${shown(version)}`,
    );
  }
  const found = unstorable(migrated);
  if (found) return { ok: false, problems: [found] };
  const parsed = stationSchema.safeParse(migrated);
  if (parsed.success) return { ok: true, value: parsed.data as Station };
  return { ok: false, problems: problemsOf(parsed.error) };
}

/** {@link parseStation} of a file's text, with its own sentences for what is no JSON at all. */
export function parseStationText(text: string): Result<Station> {
  if (text.length > LARGEST_FILE_BYTES) return tooLarge(text.length);
  if (text.trim() === '') return fail('', 'the file is empty; a station file is a JSON object');
  let document: unknown;
  try {
    document = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return fail('', 'is not JSON; a station file is one JSON object in UTF-8');
  }
  return parseStation(document);
}

export function tooLarge(bytes: number): Result<never> {
  const megabytes = (n: number): string => (n / 1e6).toFixed(n < 1e7 ? 1 : 0);
  return fail(
    '',
    `is ${megabytes(bytes)} MB; a station file is at most ${megabytes(LARGEST_FILE_BYTES)} MB`,
  );
}

/** Every problem of a refused document, each where it is. */
export const problemsOf = (error: z.ZodError): Problem[] =>
  error.issues.flatMap((issue) => flatten(issue, []));

/** What could not be stored or said again in JSON, if anything. */
export const unstorable = (document: unknown): Problem | null => findUnstorable(document, '', 0);

const DEEPEST = 40;

/** Numbers beyond what JSON can say again, NUL in text, or nesting without end: kept fields too. */
function findUnstorable(value: unknown, pointer: string, depth: number): Problem | null {
  if (depth > DEEPEST) return { pointer, message: `is nested deeper than ${DEEPEST} levels` };
  if (typeof value === 'number' && !Number.isFinite(value)) {
    return { pointer, message: 'is too large to be a number; write one below 1e308' };
  }
  if (typeof value === 'string' && value.includes('\u0000')) {
    return { pointer, message: 'must not hold control characters' };
  }
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    if (key.includes('\u0000')) return { pointer, message: 'must not hold control characters' };
    const found = findUnstorable(inner, pointer + pointerTo([key]), depth + 1);
    if (found) return found;
  }
  return null;
}

/** A union's issue says only that nothing matched; show the branch that came nearest. */
function flatten(issue: z.core.$ZodIssue, above: PropertyKey[]): Problem[] {
  const path = [...above, ...issue.path];
  if (issue.code !== 'invalid_union' || issue.errors.length === 0) {
    return [{ pointer: pointerTo(path), message: issue.message }];
  }
  const missing = (branch: z.core.$ZodIssue[]): number =>
    branch.filter((inner) => inner.message.startsWith('is missing')).length;
  const near = issue.errors.filter((branch) => missing(branch) === 0);
  if (near.length > 0) return near[0]!.flatMap((inner) => flatten(inner, path));
  const partly = issue.errors.filter((branch) => missing(branch) < 2 && branch.length === 1);
  const names = partly.flatMap((branch) => branch.map((inner) => String(inner.path[0])));
  return [{ pointer: pointerTo(path), message: `must hold one of ${names.join(', ')}` }];
}
