export interface Difference {
  /** The field in plain words: “movements rise mm”. */
  readonly name: string;
  readonly mine: string;
  readonly theirs: string;
}

type Flat = Map<string, string>;

function flatten(value: unknown, name: string, into: Flat): Flat {
  if (typeof value === 'object' && value !== null) {
    for (const [key, inner] of Object.entries(value)) {
      const part = /^\d+$/.test(key) ? String(Number(key) + 1) : key.replaceAll('_', ' ');
      flatten(inner, name ? `${name} ${part}` : part, into);
    }
  } else into.set(name, value === null ? '∞' : String(value));
  return into;
}

const ABSENT = '—';

/** Every single field in which two documents part. */
export function differences(mine: unknown, theirs: unknown): Difference[] {
  const [a, b] = [flatten(mine, '', new Map()), flatten(theirs, '', new Map())];
  return [...new Set([...a.keys(), ...b.keys()])]
    .map((name) => ({ name, mine: a.get(name) ?? ABSENT, theirs: b.get(name) ?? ABSENT }))
    .filter((each) => each.mine !== each.theirs);
}
