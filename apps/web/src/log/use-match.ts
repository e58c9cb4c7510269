import { useEffect, useMemo, useState } from 'react';
import type { Fixed, Logged, LogLine, Matched, PictureFile } from '@gangway/station';
import type { MatchAsked } from './match-worker.js';
import { wallS } from './now.js';
import type { Picture } from './picture-files.js';

const QUIET_MS = 150;

const fileOf = ({ key, name, facts }: Picture): PictureFile => ({
  key,
  name,
  clockS: facts.clockS,
  camera: facts.camera,
  timeS: facts.timeS,
  iso: facts.iso,
});

const lineOf = ({ id, at, bracket, time_s, iso, flash }: Logged): LogLine => ({
  id,
  clockS: wallS(at),
  bracket: bracket ?? null,
  // With flash a file’s time is that of the shutter, which nobody logs.
  timeS: flash ? null : (time_s ?? null),
  iso: iso ?? null,
});

/**
 * Which picture belongs to which line, found anew when anything about it changes.
 * `loaded`: the log is here; `ready`: so are all the files.
 */
export function useMatch(
  pictures: readonly Picture[],
  lines: readonly Logged[],
  fixed: readonly Fixed[],
  offsetsS: Readonly<Record<string, number>>,
  { loaded, ready }: { readonly loaded: boolean; readonly ready: boolean },
): { matched: Matched | null; working: boolean; failed: boolean } {
  // Of a long log this takes a while: it is done before the files are there.
  const told = useMemo(() => (loaded ? JSON.stringify(lines.map(lineOf)) : '[]'), [loaded, lines]);
  const key = useMemo((): string | null => {
    // While files are still being read nothing is asked.
    if (!ready) return null;
    const rest = { files: pictures.map(fileOf), options: { fixed, offsetsS } };
    return `{"lines":${told},${JSON.stringify(rest satisfies Omit<MatchAsked, 'lines'>).slice(1)}`;
  }, [ready, pictures, told, fixed, offsetsS]);
  const [answer, setAnswer] = useState<{ key: string; matched: Matched | null } | null>(null);
  useEffect(() => {
    if (key === null) return;
    let worker: Worker | null = null;
    const timer = setTimeout(() => {
      worker = new Worker(new URL('./match-worker.ts', import.meta.url), { type: 'module' });
      worker.addEventListener('message', ({ data }: MessageEvent<Matched>) =>
        setAnswer({ key, matched: data }),
      );
      worker.addEventListener('error', () => setAnswer({ key, matched: null }));
      worker.postMessage(key);
    }, QUIET_MS);
    return () => {
      clearTimeout(timer);
      worker?.terminate();
    };
  }, [key]);
  return {
    matched: answer?.matched ?? null,
    working: ready && answer?.key !== key,
    failed: answer !== null && answer.matched === null,
  };
}
