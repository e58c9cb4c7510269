import { lazy, Suspense, useState } from 'react';
import { criterionWords, fixed, sharpnessMeans } from '@gangway/station';
import { useStation } from '../fields/fields.js';
import { Assumed } from './assumed.js';

// The note stands on many pages and is seldom opened: its fields come when it is.
const SharpnessFields = lazy(async () => ({
  default: (await import('./sharpness-fields.js')).SharpnessFields,
}));

/** What counts as sharp, where figures rest on it: what it means, and the way to change it. */
export function SharpnessNote() {
  const station = useStation();
  const { cocUm } = sharpnessMeans(station);
  const [opened, setOpened] = useState(false);
  return (
    <div className="flex items-start">
      <details className="min-w-0 flex-1" onToggle={() => setOpened(true)}>
        <summary className="min-h-8 cursor-pointer py-1 text-[13px] text-quiet pointer-coarse:min-h-11">
          Sharp is {criterionWords(station.criterion)},{' '}
          <span className="figure whitespace-nowrap">{fixed(cocUm, cocUm < 10 ? 1 : 0)} µm</span>
        </summary>
        <Suspense>{opened && <SharpnessFields />}</Suspense>
      </details>
      <Assumed rests={['criterion']} of="what counts as sharp" className="mt-1.5" />
    </div>
  );
}
