import type { ReactNode } from 'react';
import * as z from 'zod';
import { useKept } from '../browser/use-kept.js';
import { useStorageTrouble } from '../browser/use-storage.js';

/** Set by the server into the page it sends. */
const listensBeyond = (): boolean =>
  document.querySelector<HTMLMetaElement>('meta[name="listens"]')?.content === 'beyond';

const OPEN =
  'Whoever can reach this address may read and change everything here. Use it on a network you trust only.';

const UNKEPT = {
  forbidden:
    'This browser keeps nothing for Gangway: unsaved edits and your choice of light and units last until this page is closed. Leave it open until “Saved” shows.',
  full: 'This browser’s storage is full: unsaved edits last until this page is closed. Leave it open until “Saved” shows, and make room.',
} as const;

/** What holds for every page stands at its top; the page has the rest of the height. */
export function Standing({ children }: { children: ReactNode }) {
  const [seen, setSeen] = useKept('open-seen', z.boolean(), false);
  const trouble = useStorageTrouble();
  const open = listensBeyond() && !seen;
  const some = open || trouble !== null;
  // The same elements either way, so that a bar that comes or goes leaves the page as it is.
  return (
    <div className={some ? 'flex h-full flex-col' : 'contents'}>
      {open && (
        <Bar words={OPEN}>
          <button
            type="button"
            className="min-h-8 underline underline-offset-4 pointer-coarse:min-h-11"
            onClick={() => setSeen(true)}
          >
            Understood
          </button>
        </Bar>
      )}
      {trouble && <Bar words={UNKEPT[trouble]} />}
      <div key="page" className={some ? 'min-h-0 flex-1 overflow-y-auto' : 'contents'}>
        {children}
      </div>
    </div>
  );
}

const Bar = ({ words, children }: { words: string; children?: ReactNode }) => (
  <div
    role="status"
    className="flex flex-wrap items-center gap-x-4 border-b border-rule bg-paper px-5 py-1"
  >
    <span className="size-2.5 shrink-0 rotate-45 bg-costs" aria-hidden />
    <p className="min-w-0 flex-1 basis-64">{words}</p>
    {children}
  </div>
);
