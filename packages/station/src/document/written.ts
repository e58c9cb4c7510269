import type * as z from 'zod';

/**
 * A document as text that is the same bytes each time: members in the schema’s order, those it does
 * not know after them by name, two spaces, LF, numbers in their shortest form (RFC 8259; the
 * shortest form is ECMAScript’s). A change of one figure is a change of one line.
 */

interface Def {
  readonly type: string;
  readonly shape?: Readonly<Record<string, z.ZodType>>;
  readonly element?: z.ZodType;
  readonly items?: readonly z.ZodType[];
  readonly innerType?: z.ZodType;
  readonly options?: readonly z.ZodType[];
  readonly values?: readonly unknown[];
}

const defOf = (schema: z.ZodType): Def => (schema as unknown as { _zod: { def: Def } })._zod.def;

/** The schema under what makes it optional or nullable. */
function bare(schema: z.ZodType): z.ZodType {
  const { innerType } = defOf(schema);
  return innerType ? bare(innerType) : schema;
}

type Members = ReadonlyMap<string, z.ZodType | null>;

const NO_MEMBERS: Members = new Map();

const literalOf = (schema: z.ZodType | undefined): readonly unknown[] | null => {
  const def = schema && defOf(bare(schema));
  return def?.type === 'literal' ? (def.values ?? null) : null;
};

/** What a value’s members are, by the branches of a union that its literals allow. */
function membersOf(schema: z.ZodType, value: Readonly<Record<string, unknown>>): Members {
  const { shape, options } = defOf(schema);
  if (shape) return shapeMembers(shape);
  if (!options) return NO_MEMBERS;
  const found = new Map<string, z.ZodType | null>();
  for (const option of options) {
    const own = defOf(bare(option)).shape;
    if (!own) continue;
    const other = Object.entries(own).some(([name, of]) => {
      const literal = literalOf(of);
      return literal && !literal.includes(value[name]);
    });
    if (other) continue;
    for (const [name, of] of shapeMembers(own)) if (!found.has(name)) found.set(name, of);
  }
  return found;
}

const known = new WeakMap<object, Members>();

function shapeMembers(shape: NonNullable<Def['shape']>): Members {
  const before = known.get(shape);
  if (before) return before;
  const made = new Map(Object.entries(shape).map(([name, of]) => [name, bare(of)]));
  known.set(shape, made);
  return made;
}

const byName = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

function itemSchema(schema: z.ZodType | null, index: number): z.ZodType | null {
  if (!schema) return null;
  const { element, items } = defOf(schema);
  const found = element ?? items?.[index];
  return found ? bare(found) : null;
}

function write(schema: z.ZodType | null, value: unknown, indent: string): string {
  if (typeof value !== 'object' || value === null) return JSON.stringify(value) ?? 'null';
  const inner = `${indent}  `;
  if (Array.isArray(value)) {
    if (value.length === 0) return '[]';
    const items = value.map((each, i) => `${inner}${write(itemSchema(schema, i), each, inner)}`);
    return `[\n${items.join(',\n')}\n${indent}]`;
  }
  const from = value as Record<string, unknown>;
  const members = schema ? membersOf(schema, from) : NO_MEMBERS;
  const lines: string[] = [];
  const add = (name: string, of: z.ZodType | null): void => {
    if (from[name] === undefined) return;
    lines.push(`${inner}${JSON.stringify(name)}: ${write(of, from[name], inner)}`);
  };
  for (const [name, of] of members) if (Object.hasOwn(from, name)) add(name, of);
  const others = Object.keys(from).filter((name) => !members.has(name));
  for (const name of others.sort(byName)) add(name, null);
  return lines.length === 0 ? '{}' : `{\n${lines.join(',\n')}\n${indent}}`;
}

/**
 * @param schema null: nothing is known of it
 * @param indent spaces that stand before the value’s own line already
 */
export const written = (schema: z.ZodType | null, value: unknown, indent = ''): string =>
  write(schema && bare(schema), value, indent);

/** Names of an object that a schema does not know, in order. */
export const unknownIn = (schema: z.ZodType, value: object): string[] =>
  Object.keys(value)
    .filter((name) => !membersOf(bare(schema), value as Record<string, unknown>).has(name))
    .sort(byName);
