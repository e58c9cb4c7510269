/// <reference lib="webworker" />
import { mergeSidecar, sidecarPlan, sidecarText, Unreadable } from '@gangway/sidecar';
import type { Logged, Station } from '@gangway/station';
import type { Picture } from './picture-files.js';
import type { Preparation, Prepared } from './sidecars.js';
import type { Pictures } from './use-pictures.js';

/** Reads and merges sidecars away from the page: one may be long, and a shoot has thousands. */

declare const self: DedicatedWorkerGlobalScope;

export interface SidecarsAsked {
  readonly job: string;
  readonly lines: readonly Logged[];
  readonly stations: ReadonlyMap<string, Station>;
  readonly pictures: Pick<Pictures, 'pictures' | 'sidecars'>;
}

export type SidecarsTold =
  | { readonly kind: 'progress'; readonly done: number; readonly of: number }
  | { readonly kind: 'done'; readonly found: Preparation };

/** What would be written for lines whose pictures are here. */
async function prepare(
  job: string,
  lines: readonly Logged[],
  stations: ReadonlyMap<string, Station>,
  { pictures, sidecars }: Pick<Pictures, 'pictures' | 'sidecars'>,
  onEach: (done: number, of: number) => void,
): Promise<Preparation> {
  const byName = new Map<string, Picture[]>();
  for (const picture of pictures) {
    for (const name of picture.names) byName.set(name, [...(byName.get(name) ?? []), picture]);
  }
  const here = lines.filter(({ file }) => file !== undefined && byName.has(file));
  const { sidecars: planned, without } = sidecarPlan(job, here, stations);
  const ready: Prepared[] = [];
  const refused = without.map(({ line, why }) => ({ name: line.file!, why }));
  for (const [done, { name, line, wanted }] of planned.entries()) {
    onEach(done, planned.length);
    const own = byName.get(line.file!)!;
    const [picture] = own;
    if (own.length > 1 || !picture) {
      refused.push({
        name,
        why: 'Pictures in several folders have this name; take one folder at a time.',
      });
      continue;
    }
    const there = sidecars.get(picture.key);
    try {
      const existing = there ? sidecarText(new Uint8Array(await there.file.arrayBuffer())) : null;
      const result = mergeSidecar(existing, wanted);
      if (!result.ok) throw new Unreadable(result.message);
      const { text, changed, written, stays } = result.merged;
      ready.push({
        path: there?.path ?? `${picture.folder}${name}`,
        existing,
        text,
        kind: existing === null ? 'new' : changed ? 'changed' : 'same',
        written,
        stays,
      });
    } catch (error) {
      const why = error instanceof Unreadable ? error.message : 'It cannot be read any more.';
      refused.push({ name: there?.path ?? name, why: `${why} It is left as it is.` });
    }
  }
  return { ready, refused };
}

/** Told this many times a second, however many there are. */
const EVERY_MS = 120;

self.onmessage = ({ data }: MessageEvent<SidecarsAsked>) => {
  let told = performance.now();
  const onEach = (done: number, of: number): void => {
    if (performance.now() - told < EVERY_MS) return;
    told = performance.now();
    self.postMessage({ kind: 'progress', done, of } satisfies SidecarsTold);
  };
  void prepare(data.job, data.lines, data.stations, data.pictures, onEach).then((found) =>
    self.postMessage({ kind: 'done', found } satisfies SidecarsTold),
  );
};
