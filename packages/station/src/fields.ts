import './jitless.js';
import * as z from 'zod';

/**
 * Building blocks of the schema. Every refusal is one sentence that says what is allowed,
 * so that the same words serve a field on screen, the server and the command line.
 */

interface Range {
  above?: number;
  min?: number;
  max?: number;
  whole?: boolean;
}

function allowed(unit: string, { above, min, max, whole }: Range): string {
  const kind = `${whole ? 'a whole number' : 'a number'}${unit ? ` of ${unit}` : ''}`;
  if (above !== undefined)
    return `${kind} above ${above}${max === undefined ? '' : `, up to ${max}`}`;
  if (min !== undefined && max !== undefined) return `${kind} from ${min} to ${max}`;
  if (min !== undefined) return `${kind}, at least ${min}`;
  return kind;
}

/** A value as a person would recognise it in a message: short, never a dump. */
export function shown(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (typeof value === 'number') return String(value);
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}

export function quantity(unit: string, range: Range = {}) {
  const error = (issue: { input?: unknown }): string =>
    issue.input === undefined
      ? `is missing; give ${allowed(unit, range)}`
      : `must be ${allowed(unit, range)}, not ${shown(issue.input)}`;
  let schema = z.number({ error });
  if (range.whole) schema = schema.int({ error });
  if (range.above !== undefined) schema = schema.gt(range.above, { error });
  if (range.min !== undefined) schema = schema.gte(range.min, { error });
  if (range.max !== undefined) schema = schema.lte(range.max, { error });
  return schema;
}

/** Longest length the document takes, mm: a kilometre. Past it something is mistyped. */
const LONGEST_MM = 1e6;

export const lengthMm = () => quantity('mm', { above: 0, max: LONGEST_MM });
export const offsetMm = () => quantity('mm', { min: -LONGEST_MM, max: LONGEST_MM });
export const thicknessMm = () => quantity('mm', { min: 0, max: LONGEST_MM });
export const distanceM = () => quantity('m', { above: 0, max: 1e7 });
export const roomM = () => quantity('m', { min: 0, max: 1e5 });
export const placeM = () => quantity('m', { min: -1e7, max: 1e7 });
/** Leaning and turning of lens, back and camera; at 90° the sensor sees nothing. */
export const leanDeg = () => quantity('degrees', { min: -80, max: 80 });
export const turnDeg = () => quantity('degrees', { min: -360, max: 360 });
export const fNumber = () => quantity('', { above: 0, max: 1024 });

const CONTROL = /[\u0000-\u0008\u000b-\u001f\u007f]/;

export const text = (most = 200) =>
  z
    .string({
      error: (issue) =>
        issue.input === undefined
          ? 'is missing; give text'
          : `must be text, not ${shown(issue.input)}`,
    })
    .max(most, { error: `must be at most ${most} characters long` })
    .refine((value) => !CONTROL.test(value), { error: 'must not hold control characters' });

export const oneOf = <const T extends readonly [string, ...string[]]>(values: T) =>
  z.enum(values, {
    error: (issue) =>
      `must be ${values.map((value) => `"${value}"`).join(' or ')}, not ${shown(issue.input)}`,
  });

export const yesOrNo = () =>
  z.boolean({ error: (issue) => `must be true or false, not ${shown(issue.input)}` });

/** An object whose unknown fields are kept. */
export const record = <T extends z.ZodRawShape>(shape: T) =>
  z.looseObject(shape, {
    error: (issue) =>
      issue.input === undefined
        ? `is missing; give an object with ${Object.keys(shape).join(', ')}`
        : `must be an object, not ${shown(issue.input)}`,
  });

export const list = <T extends z.ZodType>(item: T, most: number) =>
  z
    .array(item, { error: (issue) => `must be a list, not ${shown(issue.input)}` })
    .max(most, { error: `must hold at most ${most} entries` });

export const range = (item: z.ZodNumber) =>
  z
    .tuple([item, item], { error: 'must be a pair of numbers: [least, greatest]' })
    .refine(([least, most]) => least <= most, {
      error: 'must run from the least to the greatest value',
    });
