import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Logged, Matched, Station } from '@gangway/station';
import { handPictures } from '../files/handed-pictures.js';
import { baseOf, stemKey, type Picture } from './picture-files.js';
import type { FoundFile } from '../files/dropped-pictures.js';
import { Button } from '../ui/button.js';
import { counted } from '../ui/counted.js';

interface Props {
  readonly jobId: string;
  readonly matched: Matched;
  readonly lines: readonly Logged[];
  readonly pictures: readonly Picture[];
  readonly files: readonly FoundFile[];
  readonly stations: ReadonlyMap<string, Station>;
}

/** What a browser shows best stands first: a raw file is looked at by its small preview only. */
const RANKS = [/\.tiff?$/i, /\.(?:png|webp)$/i, /\.jpe?g$/i];
const rankOf = ({ path }: FoundFile): number => {
  const rank = RANKS.findIndex((each) => each.test(path));
  return rank < 0 ? RANKS.length : rank;
};

export interface ToProve {
  readonly station: string;
  readonly name: string;
  readonly files: readonly FoundFile[];
}

/** Stations with a mosaic of which two files or more were matched, each with one file a picture. */
export function toProve({ matched, lines, pictures, files, stations }: Omit<Props, 'jobId'>): ToProve[] {
  const stationOf = new Map(lines.map(({ id, station }) => [id, station]));
  const byStem = new Map<string, FoundFile[]>();
  for (const each of files) {
    const key = stemKey(each.path);
    byStem.set(key, [...(byStem.get(key) ?? []), each]);
  }
  const known = new Map(pictures.map((each) => [each.key, each]));
  const found = new Map<string, FoundFile[]>();
  for (const { file, line } of matched.pairs) {
    const station = line === null ? undefined : stationOf.get(line);
    const names = known.get(file)?.names ?? [];
    const [best] = (byStem.get(file) ?? [])
      .filter(({ path }) => names.includes(baseOf(path)))
      .sort((a, b) => rankOf(a) - rankOf(b));
    if (station === undefined || !best || !stations.get(station)?.mosaic) continue;
    found.set(station, [...(found.get(station) ?? []), best]);
  }
  return [...found]
    .filter(([, own]) => own.length > 1)
    .map(([station, own]) => ({ station, name: stations.get(station)!.name, files: own }));
} // prettier-ignore

/** Mosaics among what was matched: from here their frames go straight to be proved. */
export function ProvePart(props: Props) {
  const { jobId, matched, lines, pictures, files, stations } = props;
  const navigate = useNavigate();
  const found = useMemo(
    () => toProve({ matched, lines, pictures, files, stations }),
    [matched, lines, pictures, files, stations],
  );
  if (found.length === 0) return null;
  return (
    <section aria-label="Mosaics" className="mt-6 border-t border-rule px-5 py-4">
      <h2 className="text-[20px] font-semibold">Mosaics</h2>
      <p className="pt-1 text-quiet">Whether their frames fit, found in the files themselves.</p>
      <ul className="pt-2">
        {found.map(({ station, name, files: own }) => (
          <li
            key={station}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-2"
          >
            <span className="min-w-0 flex-1 break-words">
              <span className="font-medium">{name}</span>{' '}
              <span className="text-quiet">{counted(own.length, 'frame')}</span>
            </span>
            <Button
              aria-label={`Prove ${name}`}
              onClick={() => {
                handPictures(own);
                void navigate(`/jobs/${jobId}/stations/${station}/mosaic/prove`);
              }}
            >
              Prove
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
