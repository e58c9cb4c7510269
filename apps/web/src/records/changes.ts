import * as z from 'zod';

/**
 * What was changed on the server, by whichever tab, person or process. One tab of a browser holds
 * the stream and passes on what it hears; when that tab is closed another takes over.
 */
const changeShape = z.object({
  table: z.enum(['jobs', 'stations', 'rigs', 'kit_items', 'logs']),
  id: z.string(),
  /** Null: it was taken away, or has no revisions. */
  revision: z.number().nullable(),
});
const changesShape = z.array(changeShape);

type Changed = z.infer<typeof changeShape>;
/** `anew`: something may have been missed; look at all that is shown. */
export type Changes = readonly Changed[] | 'anew';

const ADDRESS = '/api/changes';
const LOCK = 'gangway.changes';
const CHANNEL = 'gangway.changes';

/** Listens for as long as the page lives. */
export function onChanges(tell: (changes: Changes) => void): void {
  if (typeof EventSource === 'undefined') return;
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);
  channel?.addEventListener('message', ({ data }) => {
    const read = changesShape.safeParse(data);
    tell(read.success ? read.data : 'anew');
  });

  /** Until the page goes; the browser connects anew by itself where the stream is cut. */
  const hold = (): Promise<void> =>
    new Promise(() => {
      const open = (): void => {
        const stream = new EventSource(ADDRESS);
        const pass = (changes: Changes): void => {
          tell(changes);
          channel?.postMessage(changes);
        };
        stream.addEventListener('anew', () => pass('anew'));
        stream.addEventListener('message', ({ data }) => {
          const read = changesShape.safeParse(JSON.parse(String(data)));
          pass(read.success ? read.data : 'anew');
        });
        stream.addEventListener('error', () => {
          // An error after which the browser does not try again by itself, as while the server starts.
          if (stream.readyState !== EventSource.CLOSED) return;
          setTimeout(open, AGAIN_MS);
        });
      };
      open();
    });
  // Where tabs cannot agree each has a stream of its own.
  if (navigator.locks && channel) void navigator.locks.request(LOCK, hold);
  else void hold();
}

const AGAIN_MS = 3000;
