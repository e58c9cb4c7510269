import { lazy, Suspense, useState } from 'react';
import type { Scale, Units } from '@gangway/station';
import { Assumed } from '../assumed.js';
import { SCALE_WORDS } from './look.js';
import { RESTS_OF } from './stretches.js';
import { allowedWords } from './words.js';

const ScalePopover = lazy(() => import('./scale-popover.js'));

/** What a scale allows, in a few words; pressed, it opens to what its lines mean. */
export function ScaleHelp({ scale, units }: { scale: Scale; units: Units }) {
  const [asked, setAsked] = useState(false);
  const words = allowedWords(scale, units);
  const closed = (
    <button
      type="button"
      aria-haspopup="dialog"
      title="What the lines of the scale mean"
      className={SCALE_WORDS}
      onClick={() => setAsked(true)}
    >
      {words}
    </button>
  );
  return (
    <>
      {asked ? (
        <Suspense fallback={closed}>
          <ScalePopover {...{ scale, units, words }} />
        </Suspense>
      ) : (
        closed
      )}
      <Assumed rests={RESTS_OF[scale.id]} of={`${scale.id} scale`} className="-my-1.5" />
    </>
  );
}
