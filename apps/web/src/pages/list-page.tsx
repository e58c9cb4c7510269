import clsx from 'clsx';
import { useCallback, useState, type ReactNode } from 'react';
import { isAway, sentence } from '../records/api.js';
import { useTries } from '../records/use-tries.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { PageTop } from './page-top.js';

/** What every list has: its archive, another try while the server is away, and word of what failed. */
export function useListing() {
  const [archived, setArchived] = useState(false);
  const [pollingInterval, heed] = useTries();
  return { archived, setArchived, pollingInterval, heed };
}

/** Waits for work on a row and says when it failed. */
export function useTold(): (work: Promise<{ error?: unknown }>) => Promise<void> {
  const notice = useNotice();
  return useCallback(
    async (work) => {
      const { error } = await work;
      if (error) notice([sentence(error)]);
    },
    [notice],
  );
}

type Change = Promise<{ error?: unknown }>;

/** Puts a thing into the archive and offers at once to take it out again; or takes it out. */
export function useArchiving(change: (to: { id: string; archived: boolean }) => Change) {
  const notice = useNotice();
  const told = useTold();
  return useCallback(
    async (id: string, name: string, archived: boolean): Promise<void> => {
      const { error } = await change({ id, archived });
      if (error) notice([sentence(error)]);
      else if (archived) {
        notice([`“${name}” is in the archive.`], {
          label: 'Undo',
          onSelect: () => void told(change({ id, archived: false })),
        });
      }
    },
    [change, notice, told],
  );
}

interface Props {
  /** What stands beside the lists in the top line. */
  trail?: ReactNode;
  title: string;
  /** What is listed, as the way back from the archive names it. */
  things: string;
  archived: boolean;
  onArchive: (archived: boolean) => void;
  /** What can be begun. */
  actions: ReactNode;
  error: unknown;
  loading: boolean;
  /** What to say when there is nothing; null while there is something. */
  empty: string | null;
  /** What is said of all of it, under the head. */
  note?: ReactNode;
  /** It scrolls within itself: only what is in sight is drawn. */
  long?: boolean;
  children: ReactNode;
}

/** A list: its head, the way to its archive and back, what is in it or why nothing is. */
export function ListPage({ trail, title, things, archived, onArchive, actions, ...list }: Props) {
  const { error, loading, empty, long = false } = list;
  return (
    <div className={clsx(long && 'flex h-full flex-col')}>
      <PageTop {...(trail === undefined ? {} : { trail })} />
      <main
        className={clsx(
          'mx-auto w-full max-w-5xl px-5',
          long ? 'flex min-h-0 flex-1 flex-col pt-6' : 'py-6',
        )}
      >
        <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
          <h1 className="min-w-0 text-2xl font-semibold break-words">{title}</h1>
          <div className="flex flex-wrap gap-2">
            <Button look="quiet" onClick={() => onArchive(!archived)}>
              {archived ? `Show current ${things}` : 'Show archive'}
            </Button>
            {actions}
          </div>
        </div>
        {list.note}
        {error ? (
          <p role="status" className="mb-4 border-l-4 border-outside px-3 py-1">
            {sentence(error)} {isAway(error) && 'Trying again.'}
          </p>
        ) : loading ? (
          <p className="py-6 text-quiet">Loading …</p>
        ) : (
          empty !== null && <p className="py-6 text-quiet">{empty}</p>
        )}
        {list.children}
      </main>
    </div>
  );
}
