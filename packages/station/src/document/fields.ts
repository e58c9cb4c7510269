import './jitless.js';
import * as z from 'zod';
import { cutText, isWellFormed } from './text.js';

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

/** As people write it: 1,000,000. */
const grouped = (value: number): string => value.toLocaleString('en', { maximumFractionDigits: 6 });

function allowed(unit: string, { above, min, max, whole }: Range): string {
  const kind = `${whole ? 'a whole number' : 'a number'}${unit ? ` of ${unit}` : ''}`;
  if (above !== undefined)
    return `${kind} above ${grouped(above)}${max === undefined ? '' : `, up to ${grouped(max)}`}`;
  if (min !== undefined && max !== undefined) {
    return `${kind} from ${grouped(min)} to ${grouped(max)}`;
  }
  if (min !== undefined) return `${kind}, at least ${grouped(min)}`;
  return kind;
}

/** A value as a person would recognise it in a message: short, never a dump. */
export function shown(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (typeof value === 'number') return String(value);
  const text = JSON.stringify(value) ?? typeof value;
  return text.length > 40 ? `${cutText(text, 37)}…` : text;
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

/**
 * What a camera can be, with room to spare. Every figure has a least and a greatest value, so that
 * every figure worked out from them is a finite number.
 */

/** Register, thickness, draw, free depth: zero is allowed. */
export const thicknessMm = () => quantity('mm', { min: 0, max: 20_000 });
/** A draw, or another length that cannot be zero. */
export const lengthMm = () => quantity('mm', { min: 1, max: 20_000 });
/** Of a board, a pivot, a place on the bed scale. */
export const offsetMm = () => quantity('mm', { min: -20_000, max: 20_000 });
/** Circles, and openings a barrel or its light goes through. */
export const diameterMm = () => quantity('mm', { min: 1, max: 20_000 });
export const backMm = () => quantity('mm', { min: 1, max: 5_000 });
export const pixels = () => quantity('pixels', { min: 1, max: 1_000_000, whole: true });
export const focalLengthMm = () => quantity('mm', { min: 1, max: 10_000 });
export const imageDistanceMm = () => quantity('mm', { min: 1, max: 20_000 });
export const movementMm = () => quantity('mm', { min: -5_000, max: 5_000 });
export const travelMm = () => quantity('mm', { min: 0, max: 5_000 });
export const magnification = () => quantity('', { min: 0.0001, max: 100 });
export const multiplierFactor = () => quantity('', { min: 0.1, max: 20 });
export const pupilRatio = () => quantity('', { min: 0.05, max: 20 });
export const confusionMm = () => quantity('mm', { min: 0.0001, max: 100 });
export const confusionUm = () => quantity('µm', { min: 0.1, max: 100_000 });
export const distanceM = () => quantity('m', { min: 0.001, max: 1_000_000 });
export const distanceMm = () => quantity('mm', { min: 1, max: 1_000_000_000 });
export const heightM = () => quantity('m', { min: -100_000, max: 100_000 });
/** Sideways or ahead of the camera. */
export const placeM = () => quantity('m', { min: -1_000_000, max: 1_000_000 });
/** Room above or below a thing. */
export const roomM = () => quantity('m', { min: 0, max: 100_000 });
/** Leaning of lens, back and camera; at 90° the sensor sees nothing. */
export const leanDeg = () => quantity('degrees', { min: -80, max: 80 });
export const turnDeg = () => quantity('degrees', { min: -360, max: 360 });
export const fNumber = () => quantity('', { min: 0.5, max: 1024 });
/** Of a frame or a step: less than all of it. */
export const share = () => quantity('', { min: 0, max: 0.95 });
/** Of frames, columns, rows. */
export const count = () => quantity('', { min: 1, max: 400, whole: true });
/** A microsecond to thirty days. */
export const timeS = () => quantity('s', { min: 0.000001, max: 2_592_000 });

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
    .refine((value) => !CONTROL.test(value), { error: 'must not hold control characters' })
    .refine(isWellFormed, { error: 'holds half of a character; type it again' });

export const oneOf = <const T extends readonly [string, ...string[]]>(values: T) =>
  z.enum(values, {
    error: (issue) =>
      `must be ${values.map((value) => `"${value}"`).join(' or ')}, not ${shown(issue.input)}`,
  });

/** What is wrong with a thing that is to be of one of several kinds. */
export const kindFault =
  (key: string, kinds: readonly string[]) =>
  ({ code, input }: { code?: string; input?: unknown }): string =>
    code === 'invalid_union'
      ? `must be one of ${kinds.map((kind) => `"${kind}"`).join(', ')}`
      : input === undefined
        ? `is missing; give an object with ${key}`
        : `must be an object, not ${shown(input)}`;

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

type KeysOf<T> = T extends unknown ? keyof T : never;
/** One of several shapes, without the fields of the others: an impossible pair is a type error. */
type OneOf<T, All = T> = T extends unknown
  ? T & { [K in Exclude<KeysOf<All>, keyof T>]?: never }
  : never;

/**
 * Exactly one of several ways to say a thing. Two at once break a rule, not the shape, so that a
 * stored document with both can still be read.
 */
export const exactlyOne = <const Shapes extends readonly [z.ZodRawShape, ...z.ZodRawShape[]]>(
  shapes: Shapes,
  message: string,
) => {
  const ways = shapes.map((shape) => Object.keys(shape));
  const union = z.union(shapes.map((shape) => record(shape)) as unknown as [z.ZodType]);
  return union.superRefine((value, context) => {
    const given = ways.filter((keys) => keys.some((key) => (value as never)[key] !== undefined));
    if (given.length > 1) context.addIssue({ code: 'custom', message });
  }) as unknown as z.ZodType<OneOf<Known<z.infer<ReturnType<typeof record<Shapes[number]>>>>>>;
};

export const list = <T extends z.ZodType>(item: T, most: number) =>
  z
    .array(item, {
      error: (issue) =>
        issue.input === undefined
          ? 'is missing; give a list'
          : `must be a list, not ${shown(issue.input)}`,
    })
    .max(most, { error: `must hold at most ${most} entries` });

export const range = (item: z.ZodNumber) =>
  z
    .tuple([item, item], { error: 'must be a pair of numbers: [least, greatest]' })
    .refine(([least, most]) => least <= most, {
      error: 'must run from the least to the greatest value',
    });

/** What is wrong with a version that is not the one known. */
export const versionFault = (version: unknown, known: number): string =>
  typeof version === 'number' && version > known
    ? `${version} was written by a newer Gangway; this one understands version ${known}`
    : `must be ${known}, the version understood here, not ${shown(version)}`;

export const versionField = <N extends number>(known: N) =>
  z.literal(known, { error: ({ input }) => versionFault(input, known) });

/** Drops the index signatures that kept unknown fields add, so that a misspelt field is a type error. */
export type Known<T> = T extends readonly [infer A, infer B]
  ? [Known<A>, Known<B>]
  : T extends readonly (infer Item)[]
    ? Known<Item>[]
    : T extends object
      ? { [K in keyof T as string extends K ? never : K]: Known<T[K]> }
      : T;
