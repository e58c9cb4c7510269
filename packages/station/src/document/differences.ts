export interface Difference {
  /** The field in plain words: “movements rise mm”. */
  readonly name: string;
  readonly mine: string;
  readonly theirs: string;
}

interface Said {
  readonly said: string;
  /** All of it, where only the gist is said. */
  readonly whole: string;
}

type Flat = Map<string, Said>;

interface AtStop {
  readonly f_number?: unknown;
}

/** Lists that nobody reads figure by figure: what is in them is said by their stops, or their number. */
const GISTS: Readonly<Record<string, (list: readonly unknown[]) => string>> = {
  falloff: stopsSaid,
  sharpness: stopsSaid,
  detail: stopsSaid,
  files: (list) => `${list.length} pictures`,
};

function stopsSaid(list: readonly unknown[]): string {
  const stops = list.map((each) => `f/${String((each as AtStop | null)?.f_number ?? '?')}`);
  return list.length > 2 ? `at ${list.length} stops, ${stops[0]!} to ${stops.at(-1)!}` : `at ${stops.join(' and ')}`; // prettier-ignore
}

function flatten(value: unknown, name: string, into: Flat): Flat {
  if (typeof value !== 'object' || value === null) {
    const said = value === null ? '∞' : String(value);
    return into.set(name, { said, whole: said });
  }
  for (const [key, inner] of Object.entries(value)) {
    const part = /^\d+$/.test(key) ? String(Number(key) + 1) : key.replaceAll('_', ' ');
    const own = name ? `${name} ${part}` : part;
    const gist = /(?:^| )measured$/.test(name) && Array.isArray(inner) ? GISTS[key] : undefined;
    if (gist) into.set(own, { said: gist(inner as unknown[]), whole: JSON.stringify(inner) });
    else flatten(inner, own, into);
  }
  return into;
}

const ABSENT: Said = { said: '—', whole: '\0' };

/** Every single field in which two documents part; of long lists of measurements the gist. */
export function differences(mine: unknown, theirs: unknown): Difference[] {
  const [a, b] = [flatten(mine, '', new Map()), flatten(theirs, '', new Map())];
  return [...new Set([...a.keys(), ...b.keys()])]
    .map((name) => ({ name, mine: a.get(name) ?? ABSENT, theirs: b.get(name) ?? ABSENT }))
    .filter((each) => each.mine.whole !== each.theirs.whole)
    .map(({ name, mine: own, theirs: other }) => ({
      name,
      mine: own.said,
      theirs: own.said === other.said ? `${other.said}, other figures` : other.said,
    }));
}
