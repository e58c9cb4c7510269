import { lazy, Suspense, useState, type ReactNode } from 'react';
import type { TermId } from './terms.js';
import { WORD } from './word-look.js';

// What words mean is asked for now and then: it is not needed before.
const WordPopover = lazy(() => import('./word-popover.js'));

/** A word of the trade where it stands; pressed, it opens to its drawing. */
export function Word({ id, children }: { id: TermId; children: ReactNode }) {
  const [asked, setAsked] = useState(false);
  const closed = (
    <button type="button" aria-haspopup="dialog" className={WORD} onClick={() => setAsked(true)}>
      {children}
    </button>
  );
  return asked ? (
    <Suspense fallback={closed}>
      <WordPopover id={id}>{children}</WordPopover>
    </Suspense>
  ) : (
    closed
  );
}
