import { useMemo, useState } from 'react';
import { isDoubtful, type Logged } from '@gangway/station';
import { saveBlob } from '../browser/save-file.js';
import { fileName } from '../files/paper-choice.js';
import { filesInFolder, type Found } from '../files/dropped-pictures.js';
import { Button } from '../ui/button.js';
import { mayWrite, writeInto, zipOf, type Prepared, type WrittenOut } from './sidecars.js';
import type { StationNames } from './table-edits.js';
import type { Pictures } from './use-pictures.js';
import { useSidecars } from './use-sidecars.js';

interface Props {
  readonly job: string;
  readonly lines: readonly Logged[];
  readonly names: StationNames;
  readonly pictures: Pictures;
  readonly onFound: (found: Found) => void;
}

const FRAME = 'mt-6 border-t border-rule px-5 py-4';
const HEAD = 'text-[20px] font-semibold';

/** What the files lack, beside them. `pending`: matches that are not kept in the log yet. */
export function SidecarPart({ pending, ...rest }: Props & { readonly pending: number }) {
  if (pending === 0) return <Sidecars {...rest} />;
  return (
    <section aria-label="Sidecars" className={FRAME}>
      <h2 className={HEAD}>Sidecars</h2>
      <p className="pt-1">They are written from the log: keep the matches in it first.</p>
    </section>
  );
}

/** Looked at first, then written. */
function Sidecars({ job, lines, names, pictures, onFound }: Props) {
  const [unsure, setUnsure] = useState(false);
  const [done, setDone] = useState<WrittenOut | null>(null);
  const [barred, setBarred] = useState(false);
  const [working, setWorking] = useState(false);
  const wanted = useMemo(
    () => lines.filter((line) => unsure || !isDoubtful(line)),
    [lines, unsure],
  );
  const { found, progress, stopped, stop } = useSidecars({
    job,
    lines: wanted,
    stations: names.byId,
    pictures,
  });
  if (!found) {
    return (
      <section aria-label="Sidecars" className={FRAME}>
        <h2 className={HEAD}>Sidecars</h2>
        {stopped && <p className="pt-1">Stopped: nothing was read or written.</p>}
        {progress && (
          <p role="status" className="flex items-center gap-3 pt-1 text-quiet">
            Reading sidecars, {progress.done} of {progress.of}
            <Button onClick={stop}>Stop</Button>
          </p>
        )}
      </section>
    );
  }
  const fresh = found.ready.filter(({ kind }) => kind !== 'same');
  const { folder } = pictures;
  const write = async (): Promise<void> => {
    if (!folder) return;
    const may = await mayWrite(folder);
    setBarred(!may);
    if (!may) return;
    setWorking(true);
    setDone(await writeInto(folder, found.ready));
    // What lies there now is read anew, so that a second run finds nothing to do.
    onFound(await filesInFolder(folder));
    setWorking(false);
  };
  const save = async (): Promise<void> => {
    setWorking(true);
    saveBlob(`${fileName(job)}, sidecars.zip`, await zipOf(found.ready));
    setWorking(false);
  };
  const count = (kind: Prepared['kind']): number =>
    found.ready.filter((each) => each.kind === kind).length;
  return (
    <section aria-label="Sidecars" className={FRAME}>
      <div className="flex flex-wrap items-center gap-3">
        <h2 className={HEAD}>Sidecars</h2>
        <p className="text-quiet">
          <span className="figure text-ink">{count('new')}</span> new,{' '}
          <span className="figure text-ink">{count('changed')}</span> merged,{' '}
          <span className="figure text-ink">{count('same')}</span> stay as they are
        </p>
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={unsure}
            onChange={(event) => setUnsure(event.target.checked)}
            className="size-5 accent-current"
          />
          For unsure matches, too
        </label>
        <span className="flex-1" />
        {folder && (
          <Button
            look="strong"
            disabled={working || fresh.length === 0}
            onClick={() => void write()}
          >
            Write {fresh.length} beside the pictures
          </Button>
        )}
        <Button
          look={folder ? 'plain' : 'strong'}
          disabled={working || fresh.length === 0}
          onClick={() => void save()}
        >
          Save {fresh.length} as a zip
        </Button>
      </div>
      {!folder && (
        <p className="pt-1 text-[13px] text-quiet">
          Unpack the zip beside the pictures. Sidecars that lie there already are merged only if you
          took them along; others would be written over by unpacking.
        </p>
      )}
      {barred && (
        <p role="alert" className="pt-1 text-outside">
          The browser does not let this page write into the folder. Allow it and try again, or save
          the zip.
        </p>
      )}
      {done && (
        <p role="status" className="pt-1 text-within">
          {done.written} written.
        </p>
      )}
      {[...found.refused, ...(done?.refused ?? [])].map(({ name, why }, i) => (
        <p key={i} role="alert" className="pt-1 text-outside">
          {name}: {why}
        </p>
      ))}
      <ul className="mt-3 border-t border-rule empty:hidden">
        {fresh.slice(0, MOST_SHOWN).map((each) => (
          <li key={each.path} className="border-b border-rule">
            <details>
              <summary className="flex min-h-9 cursor-pointer items-center gap-3 pointer-coarse:min-h-11">
                <span className="font-medium">{each.path}</span>
                <span className="text-[13px] text-quiet">
                  {each.kind === 'new' ? 'new' : 'merged'}, {each.written.length} properties
                  {each.stays.length > 0 ? `, ${each.stays.length} stay` : ''}
                </span>
              </summary>
              <table className="mb-3 text-[14px]">
                <tbody>
                  {each.written.map(({ name, before, after }) => (
                    <tr key={name}>
                      <th scope="row" className="pr-4 text-left font-normal text-quiet">
                        {name}
                      </th>
                      <td className="figure pr-4 text-quiet">{before ?? '—'}</td>
                      <td className="figure">{after === '' ? 'taken away' : valueSaid(after)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              {each.stays.length > 0 && (
                <p className="pb-3 text-[14px] text-quiet">
                  Stay as they are: {each.stays.join(', ')}
                </p>
              )}
            </details>
          </li>
        ))}
      </ul>
      {fresh.length > MOST_SHOWN && (
        <p className="pt-2 text-quiet">and {fresh.length - MOST_SHOWN} more</p>
      )}
    </section>
  );
}

/** How Exif writes a distance without end. */
const INFINITY = '4294967295/1';
const valueSaid = (value: string): string => (value === INFINITY ? `infinity (${value})` : value);

/** As many as a person looks through. */
const MOST_SHOWN = 200;
