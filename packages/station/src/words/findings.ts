/**
 * What is found wrong, or worth a look, is data: a code and its values. The sentence is made of them
 * where it is shown, by one table for each subject.
 */

/** `stop`: it cannot be done like this. `warn`: it can, at a price that is named. */
export type Severity = 'stop' | 'warn';

/** A subject's sentences by code, each made of its values. */
// The values differ from code to code; each table says its own.
export type Sayings = Readonly<Record<string, (values: never) => unknown>>;

export type ValuesOf<Says extends Sayings, Code extends keyof Says> = Parameters<Says[Code]>[0];

/** Something found by one subject's looks. `More` is what it carries beside its values. */
export type Found<Says extends Sayings, More = unknown> = {
  [Code in keyof Says & string]: {
    readonly code: Code;
    readonly severity: Severity;
    readonly values: ValuesOf<Says, Code>;
  } & More;
}[keyof Says & string];

/** One look: what it finds in what it is given. */
export type Look<Asked, Finding> = (asked: Asked) => readonly Finding[];

/** Makes findings of a subject; the values of each code are held to its sentence. */
export function findingsOf<Says extends Sayings>() {
  const made =
    (severity: Severity) =>
    <Code extends keyof Says & string>(code: Code, values: ValuesOf<Says, Code>): Found<Says>[] => [
      // The table of types cannot be followed through one code of many.
      { code, severity, values } as unknown as Found<Says>,
    ];
  return { stop: made('stop'), warn: made('warn') };
}

/** What a finding says. */
export const saidOf = <Said>(
  says: Readonly<Record<string, (values: never) => Said>>,
  { code, values }: { readonly code: string; readonly values: unknown },
): Said => says[code]!(values as never);

/** All that a subject's looks find, in their order. */
export const lookedOver = <Asked, Finding>(
  looks: readonly Look<Asked, Finding>[],
  asked: Asked,
): Finding[] => looks.flatMap((look) => look(asked));

/** What stops goes before what is only to be known; else the order stays. */
export const worstFirst = <Finding extends { readonly severity: Severity }>(
  found: readonly Finding[],
): Finding[] => [
  ...found.filter(({ severity }) => severity === 'stop'),
  ...found.filter(({ severity }) => severity === 'warn'),
];
