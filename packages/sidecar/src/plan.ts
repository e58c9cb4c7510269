import { isFileName, type Job, type Logged, type Station } from '@gangway/station';
import { wantedFor, type Wanted } from './wanted.js';

/** Which sidecars a log asks for. */

/** Names no file system of any kind is asked to make. */
const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d)$/i;

/** A picture’s name without its extension; null where no sidecar can be named by it. */
export function stemOf(file: string): string | null {
  if (!isFileName(file) || /[<>"|?*\u0000-\u001f]/.test(file)) return null;
  const stem = file.replace(/\.[^.]*$/, '');
  return stem.trim() === '' || /[. ]$/.test(stem) || RESERVED.test(stem) ? null : stem;
}

export interface PlannedSidecar {
  /** `IMG_1.xmp` */
  readonly name: string;
  readonly line: Logged;
  readonly wanted: readonly Wanted[];
}

export interface SidecarPlan {
  readonly sidecars: readonly PlannedSidecar[];
  /** Lines with a file that get none, and why. */
  readonly without: readonly { readonly line: Logged; readonly why: string }[];
}

/** One sidecar for every line with a file of its own. Pictures of one name are one exposure. */
export function sidecarPlan(
  job: string,
  lines: readonly Logged[],
  stations: ReadonlyMap<string, Station>,
): SidecarPlan {
  const named = lines.filter(({ file }) => file !== undefined);
  const byStem = new Map<string, number>();
  const keyOf = (stem: string): string => stem.toLowerCase();
  for (const { file } of named) {
    const stem = stemOf(file!);
    if (stem !== null) byStem.set(keyOf(stem), (byStem.get(keyOf(stem)) ?? 0) + 1);
  }
  const sidecars: PlannedSidecar[] = [];
  const without: { line: Logged; why: string }[] = [];
  for (const line of named) {
    const stem = stemOf(line.file!);
    if (stem === null) without.push({ line, why: `No sidecar can be named after “${line.file}”.` });
    else if (byStem.get(keyOf(stem))! > 1) {
      without.push({
        line,
        why: `Several lines name ${stem}: only one of them can be that picture.`,
      });
    } else {
      const station = line.station === undefined ? undefined : stations.get(line.station);
      sidecars.push({ name: `${stem}.xmp`, line, wanted: wantedFor({ line, job, station }) });
    }
  }
  return { sidecars, without };
}

/** {@link sidecarPlan} of a whole job. */
export const sidecarsOfJob = ({ name, exposures, stations }: Job): SidecarPlan =>
  sidecarPlan(name, exposures, new Map(stations.map(({ id, document }) => [id, document])));
