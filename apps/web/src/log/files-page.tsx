import { useCallback, useEffect, useMemo, useRef, useState, type ChangeEvent } from 'react';
import { Link } from 'react-router';
import * as z from 'zod';
import type { Fixed, Logged, LogChange, Matched } from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import {
  chosenFrom,
  filesInFolder,
  onPicturesDropped,
  type Found,
} from '../files/dropped-pictures.js';
import { logKeeper, useLines } from '../store/log.js';
import { Button } from '../ui/button.js';
import { counted } from '../ui/counted.js';
import { ClockLine } from './clock-line.js';
import { LogState } from './log-bar.js';
import { LogFrame, type OpenJob } from './log-frame.js';
import { MatchDrawing } from './match-drawing.js';
import { MatchList } from './match-list.js';
import { changesFor, fixedChanges, fixedIn } from './match-changes.js';
import { ProvePart } from './prove-part.js';
import { SidecarPart } from './sidecar-part.js';
import type { StationNames } from './table-edits.js';
import { useMatch } from './use-match.js';
import { usePictures } from './use-pictures.js';

const fixedShape = z.array(z.string());
const offsetsShape = z.record(z.string(), z.number());

/** The job of the demo that has pictures to try with. */
const DEMO = { job: 'a0000000-0000-4000-8000-000000000002', zip: '/demo-pictures.zip' } as const;

type PickFolder = (options: { mode: 'readwrite' }) => Promise<FileSystemDirectoryHandle>;
const pickFolder = (): PickFolder | undefined =>
  (window as unknown as { showDirectoryPicker?: PickFolder }).showDirectoryPicker;

/** The shoot’s files beside the log. */
export function FilesPage() {
  return <LogFrame under>{(open) => <Files {...open} />}</LogFrame>;
}

function Files({ log, job, names }: OpenJob) {
  const { jobId } = log;
  const pictures = usePictures();
  const { take } = pictures;
  const [none, setNone] = useKept<string[]>(`files.none.${jobId}`, fixedShape, []);
  const [offsets, setOffsets] = useKept<Record<string, number>>(`files.clock.${jobId}`, offsetsShape, {}); // prettier-ignore
  const [failed, setFailed] = useState<string | null>(null);
  const takeFound = useCallback(
    (find: () => Promise<Found>): void => {
      setFailed(null);
      find().then(take, () => setFailed('These files could not be read. Choose them again.'));
    },
    [take],
  );
  useEffect(() => onPicturesDropped(takeFound), [takeFound]);
  // What was exposed on film has no file.
  const all = useLines(log);
  const lines = useMemo(() => all.filter(({ film }) => film === undefined), [all]);
  const fixed = useMemo(
    (): Fixed[] => fixedIn(pictures.pictures, lines, none),
    [pictures.pictures, lines, none],
  );
  const { loaded } = log;
  const ready = pictures.reading === null && pictures.pictures.length > 0 && loaded;
  const {
    matched,
    working,
    failed: stuck,
  } = useMatch(pictures.pictures, lines, fixed, offsets, { loaded, ready });

  const fix = (key: string, line: string | null | undefined): void => {
    const picture = pictures.pictures.find((each) => each.key === key);
    if (!picture) return;
    const others = none.filter((each) => each !== key);
    setNone(line === null ? [...others, key] : others);
    logKeeper.change({
      label: `Match ${picture.name}`,
      changes: fixedChanges(picture, line, lines),
    });
  };
  const changes = useMemo(
    (): readonly LogChange[] => (matched ? changesFor(pictures.pictures, lines, matched) : []),
    [pictures.pictures, lines, matched],
  );
  const demo = jobId === DEMO.job;
  return (
    <main className="flex flex-1 flex-col">
      <div className="flex flex-wrap items-center gap-3 px-5 py-3">
        <h1 className="mr-2 text-[24px] font-semibold">
          Files{' '}
          {pictures.pictures.length > 0 && (
            <span className="figure text-quiet">{pictures.pictures.length}</span>
          )}
        </h1>
        <Choosers onFound={takeFound} demo={demo} />
        <span className="flex-1" />
        {changes.length > 0 && !working && (
          <Button
            look="strong"
            onClick={() =>
              logKeeper.change({
                label: `Keep ${counted(changes.length, 'match', 'matches')}`,
                changes,
              })
            }
          >
            Keep these matches in the log
          </Button>
        )}
        {matched && changes.length === 0 && !working && (
          <span className="text-within">All of it is in the log.</span>
        )}
      </div>
      <div className="px-5 empty:hidden">
        {failed && (
          <p role="alert" className="text-outside">
            {failed}
          </p>
        )}
        <LogState log={log} />
      </div>
      {pictures.reading && <Reading {...pictures.reading} onStop={pictures.stop} />}
      {pictures.pictures.length === 0 && !pictures.reading ? (
        <Empty lines={lines.length} jobId={jobId} left={pictures.left} />
      ) : (
        <>
          {working && (
            <p role="status" className="px-5 py-2 text-quiet">
              Matching {pictures.pictures.length} pictures to {lines.length} lines …
            </p>
          )}
          {stuck && (
            <p role="alert" className="px-5 py-2 text-outside">
              These could not be matched. Choose the files again.
            </p>
          )}
          {matched && (
            <Result
              matched={matched}
              pictures={pictures.pictures}
              lines={lines}
              names={names}
              offsets={offsets}
              onOffsets={setOffsets}
              onFix={fix}
              left={pictures.left}
            />
          )}
          {matched && !working && (
            <ProvePart
              {...{ jobId, matched, lines }}
              pictures={pictures.pictures}
              files={pictures.files}
              stations={names.byId}
            />
          )}
          {matched && !working && (
            <SidecarPart
              job={job}
              lines={lines}
              names={names}
              pictures={pictures}
              pending={changes.length}
              onFound={pictures.renew}
            />
          )}
        </>
      )}
    </main>
  );
}

function Choosers({
  onFound,
  demo,
}: {
  onFound: (find: () => Promise<Found>) => void;
  demo: boolean;
}) {
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const onChange = (event: ChangeEvent<HTMLInputElement>): void => {
    const chosen = [...(event.target.files ?? [])];
    event.target.value = '';
    if (chosen.length > 0) onFound(async () => chosenFrom(chosen));
  };
  const chooseFolder = (): void => {
    const pick = pickFolder();
    if (!pick) folder.current?.click();
    else
      pick({ mode: 'readwrite' }).then(
        (chosen) => onFound(() => filesInFolder(chosen)),
        // Closed without a choice.
        () => undefined,
      );
  };
  return (
    <>
      <Button onClick={chooseFolder}>Choose a folder</Button>
      <Button onClick={() => files.current?.click()}>Choose files</Button>
      {demo && (
        <Button
          look="quiet"
          onClick={() =>
            onFound(async () => (await import('../files/demo-pictures.js')).demoPictures(DEMO.zip))
          }
        >
          Use the demo’s pictures
        </Button>
      )}
      <input
        ref={files}
        type="file"
        multiple
        aria-label="Pictures and sidecars"
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
      />
      <input
        ref={folder}
        type="file"
        multiple
        aria-label="Folder of pictures"
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
        {...{ webkitdirectory: '' }}
      />
    </>
  );
}

function Reading({ done, of, onStop }: { done: number; of: number; onStop: () => void }) {
  return (
    <div className="flex items-center gap-4 px-5 py-2">
      <progress value={done} max={of} aria-label="Reading the files" className="h-2 flex-1" />
      <span className="figure" role="status">
        {done} of {of} read
      </span>
      <Button onClick={onStop}>Stop</Button>
    </div>
  );
}

function Empty({ lines, jobId, left }: { lines: number; jobId: string; left: number }) {
  return (
    <div className="mx-5 my-4 flex flex-1 flex-col items-center justify-center border-2 border-dashed border-rule-strong px-6 py-16 text-center">
      <p className="text-[22px] font-semibold">Drop the shoot’s files or their folder here</p>
      <p className="mt-2 max-w-xl text-quiet">
        Raw files, JPEG, TIFF and HEIC are read here, on this machine; nothing is sent anywhere.
        Sidecars that lie beside them are merged, so take them along.
      </p>
      {left > 0 && (
        <p className="mt-2 text-costs">
          {left === 1
            ? 'This file is no picture.'
            : `There is no picture among these ${left} files.`}
        </p>
      )}
      <p className="mt-4">
        {lines === 0 ? (
          <>
            The log has no lines yet.{' '}
            <Link to={`/jobs/${jobId}/log`} className="underline underline-offset-4">
              Fill it first
            </Link>
            .
          </>
        ) : (
          `${counted(lines, 'line')} of the log ${lines === 1 ? 'waits for its file' : 'wait for their files'}.`
        )}
      </p>
    </div>
  );
}

interface ResultProps {
  readonly matched: Matched;
  readonly pictures: ReturnType<typeof usePictures>['pictures'];
  readonly lines: readonly Logged[];
  readonly names: StationNames;
  readonly offsets: Readonly<Record<string, number>>;
  readonly onOffsets: (next: Record<string, number>) => void;
  readonly onFix: (key: string, line: string | null | undefined) => void;
  readonly left: number;
}

function Result({ matched, pictures, lines, names, offsets, onOffsets, onFix, left }: ResultProps) {
  const cameras = Object.keys(matched.offsets);
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-8 gap-y-2 px-5 pb-2">
        {cameras.map((camera) => (
          <ClockLine
            key={camera}
            name={cameras.length > 1 || camera !== '' ? camera || 'Camera' : 'Camera'}
            offset={matched.offsets[camera]!}
            onGive={(seconds) => {
              const { [camera]: _, ...others } = offsets;
              onOffsets(seconds === null ? others : { ...others, [camera]: seconds });
            }}
          />
        ))}
        <Counts matched={matched} lines={lines} left={left} />
      </div>
      <MatchDrawing pictures={pictures} lines={lines} matched={matched} />
      <MatchList {...{ matched, pictures, lines, names, onFix }} />
    </>
  );
}

function Counts({
  matched: { pairs, stopped },
  lines,
  left,
}: {
  matched: Matched;
  lines: readonly Logged[];
  left: number;
}) {
  const paired = pairs.filter(({ line }) => line !== null);
  const sure = paired.filter((each) => each.sure).length;
  const [alone, free] = [pairs.length - paired.length, lines.length - paired.length];
  const figures = [
    [sure, 'sure', 'text-within'],
    [paired.length - sure, 'unsure', 'text-costs'],
    [alone, `${alone === 1 ? 'file' : 'files'} without a line`, 'text-outside'],
    [free, `${free === 1 ? 'line' : 'lines'} without a file`, 'text-quiet'],
  ] as const;
  return (
    <ul className="flex flex-wrap items-baseline gap-x-6" aria-label="Matched">
      {figures.map(([count, words, tone]) => (
        <li key={words}>
          <span className={`figure text-[26px] ${count > 0 ? tone : 'text-quiet'}`}>{count}</span>{' '}
          <span className="text-[13px] text-quiet">{words}</span>
        </li>
      ))}
      {left > 0 && (
        <li className="text-[13px] text-quiet">{counted(left, 'other file')} left aside</li>
      )}
      {stopped && (
        <li role="status" className="text-[13px] text-costs">
          So many files and lines that not every clock was tried: nothing here is sure. Take fewer
          at a time, or set the camera’s clock.
        </li>
      )}
    </ul>
  );
}
