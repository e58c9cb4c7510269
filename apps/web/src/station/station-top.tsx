import { lightFormat } from 'date-fns';
import { lazy, Suspense, useState } from 'react';
import { Link } from 'react-router';
import { exportStation } from '../records/export.js';
import { useStorageTrouble } from '../browser/use-storage.js';
import { useJobQuery } from '../records/api.js';
import { useEditing } from '../store/editing.js';
import { selectOpen } from '../store/selectors.js';
import { redone, undone, type SaveState } from '../store/station.js';
import { useTypedText } from '../store/typed-text.js';
import { saver, useAppDispatch, useAppSelector } from '../store/store.js';
import { PageTop, TOP_BUTTON } from '../pages/page-top.js';
import { useKeyboard } from './keyboard.js';

const RevisionsDialog = lazy(() => import('./revisions-dialog.js'));

export function StationTop() {
  const dispatch = useAppDispatch();
  const open = useAppSelector(selectOpen);
  const job = useJobQuery(open.jobId);
  const { showKeys } = useKeyboard();
  const [history, setHistory] = useState(false);
  const back = open.past.at(-1);
  const forth = open.future.at(-1);
  return (
    <>
      <PageTop
        trail={
          <>
            <Link
              to={`/jobs/${open.jobId}`}
              className="max-w-40 truncate text-quiet hover:text-ink max-sm:hidden"
            >
              {job.data?.name ?? 'Job'}
            </Link>
            <StationName name={open.present.name} />
          </>
        }
      >
        <button
          type="button"
          className={TOP_BUTTON}
          disabled={!back}
          title={back ? `Undo: ${back.label}` : undefined}
          onClick={() => dispatch(undone())}
        >
          Undo
        </button>
        <button
          type="button"
          className={TOP_BUTTON}
          disabled={!forth}
          title={forth ? `Redo: ${forth.label}` : undefined}
          onClick={() => dispatch(redone())}
        >
          Redo
        </button>
        <SaveLine save={open.save} onHistory={() => setHistory(true)} />
        <button type="button" className={TOP_BUTTON} onClick={() => exportStation(open.present)}>
          Export
        </button>
        <button
          type="button"
          className={`${TOP_BUTTON} pointer-coarse:hidden`}
          onClick={showKeys}
          aria-label="Show the keys"
        >
          Keys
        </button>
      </PageTop>
      <SaveNotice save={open.save} />
      <Suspense>{history && <RevisionsDialog onClose={() => setHistory(false)} />}</Suspense>
    </>
  );
}

function StationName({ name }: { name: string }) {
  const pointer = '/name';
  const { change } = useEditing();
  const { message, props } = useTypedText(pointer, name, (text) =>
    text.trim() === ''
      ? 'Give the station a name.'
      : change('Rename', pointer, (station) => ({ ...station, name: text.trim() })),
  );
  return (
    <span className="flex min-w-0 flex-1 flex-col">
      <input
        aria-label="Name of the station"
        {...props}
        aria-describedby={message === null ? undefined : 'station-name-why'}
        className="min-h-9 w-full min-w-32 truncate bg-transparent font-semibold"
      />
      {message !== null && (
        <span id="station-name-why" role="alert" className="pb-1 text-[13px] text-outside">
          {message}
        </span>
      )}
    </span>
  );
}

function SaveLine({ save, onHistory }: { save: SaveState; onHistory: () => void }) {
  const words: Record<SaveState['kind'], string> = {
    saved: save.kind === 'saved' ? `Saved ${lightFormat(save.at, 'HH:mm')}` : '',
    pending: 'Saving …',
    saving: 'Saving …',
    offline: 'Not saved yet',
    refused: 'Not saved',
    conflict: 'Changed elsewhere',
  };
  const troubled = save.kind === 'offline' || save.kind === 'refused' || save.kind === 'conflict';
  return (
    <button
      type="button"
      onClick={onHistory}
      aria-label={`${words[save.kind]}; show earlier versions`}
      className={`${TOP_BUTTON} text-left sm:min-w-24 ${troubled ? 'font-semibold text-outside!' : ''}`}
    >
      <span role="status">{words[save.kind]}</span>
    </button>
  );
}

const NO_ROOM = 'This browser cannot keep edits; leave the page open until they are saved.';

function SaveNotice({ save }: { save: SaveState }) {
  const unkept = useStorageTrouble() !== null;
  if (save.kind !== 'offline' && save.kind !== 'refused') return null;
  const words = save.kind === 'offline' && unkept ? NO_ROOM : save.message;
  return (
    <p
      role="status"
      // Over the free end of the strip of steps, so that nothing moves under the hand.
      className="z-10 flex flex-wrap items-center gap-3 border-b border-rule bg-paper px-5 py-1.5 lg:absolute lg:top-11 lg:right-0 lg:max-w-[40%] lg:border-l"
    >
      <span className="size-2.5 rotate-45 bg-outside" aria-hidden />
      {words}
      {save.kind === 'offline' && (
        <button
          type="button"
          className="underline underline-offset-4"
          onClick={() => saver.tryNow()}
        >
          Try now
        </button>
      )}
    </p>
  );
}
