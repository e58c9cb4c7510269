import type { Fixed, Logged, LogChange, Matched, Pair } from '@gangway/station';
import type { Picture } from './picture-files.js';

/** What matching makes of the log. */

const setOf = (
  line: Logged,
  to: Partial<Record<'file' | 'file_sure' | 'file_fixed', unknown>>,
): LogChange[] => {
  const now = line as unknown as Record<string, unknown>;
  const set = Object.fromEntries(
    Object.entries(to)
      .filter(([name, value]) => now[name] !== value)
      .map(([name, value]) => [name, { was: now[name], to: value }]),
  );
  return Object.keys(set).length === 0 ? [] : [{ id: line.id, set }];
};

const NO_FILE = { file: undefined, file_sure: undefined, file_fixed: undefined };

/** The pictures each line’s file may be: of one name in several folders none is meant for certain. */
function pictureOf(line: Logged, byName: ReadonlyMap<string, readonly Picture[]>): Picture | null {
  const found = line.file === undefined ? [] : (byName.get(line.file) ?? []);
  return found.length === 1 ? found[0]! : null;
}

function namesOf(pictures: readonly Picture[]): Map<string, Picture[]> {
  const byName = new Map<string, Picture[]>();
  for (const picture of pictures) {
    for (const name of picture.names) byName.set(name, [...(byName.get(name) ?? []), picture]);
  }
  return byName;
}

/** What was fixed by hand, in the log or here. */
export function fixedIn(
  pictures: readonly Picture[],
  lines: readonly Logged[],
  none: readonly string[],
): Fixed[] {
  const byName = namesOf(pictures);
  const here = new Set(pictures.map(({ key }) => key));
  const taken = new Set<string>();
  const inLog = lines.flatMap((line): Fixed[] => {
    const picture = line.file_fixed ? pictureOf(line, byName) : null;
    if (!picture || taken.has(picture.key)) return [];
    taken.add(picture.key);
    return [{ file: picture.key, line: line.id }];
  });
  const left = none.filter((key) => here.has(key) && !taken.has(key));
  return [...inLog, ...left.map((file) => ({ file, line: null }))];
}

/** A picture given to a line by hand, to none (null), or back to the data (undefined). */
export function fixedChanges(
  picture: Picture,
  line: string | null | undefined,
  lines: readonly Logged[],
): LogChange[] {
  const holding = lines.filter(
    ({ id, file }) => file !== undefined && picture.names.includes(file) && id !== line,
  );
  const target = lines.find(({ id }) => id === line);
  return [
    ...holding.flatMap((each) => setOf(each, NO_FILE)),
    ...(target ? setOf(target, { file: picture.name, file_sure: true, file_fixed: true }) : []),
  ];
}

/** What has to be changed in the log so that it holds what was found. */
export function changesFor(
  pictures: readonly Picture[],
  lines: readonly Logged[],
  { pairs }: Matched,
): LogChange[] {
  const byKey = new Map(pictures.map((each) => [each.key, each]));
  const byName = namesOf(pictures);
  const byLine = new Map<string, Pair>();
  for (const pair of pairs) if (pair.line !== null) byLine.set(pair.line, pair);
  return lines.flatMap((line) => {
    const pair = byLine.get(line.id);
    if (pair) {
      if (pair.by === 'hand') return [];
      return setOf(line, { file: byKey.get(pair.file)!.name, file_sure: pair.sure });
    }
    // It was said of one of these pictures, and is no longer.
    return line.file !== undefined && byName.has(line.file) ? setOf(line, NO_FILE) : [];
  });
}
