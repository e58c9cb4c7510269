import { lazy, Suspense } from 'react';
import { CircleTable } from './circle-table.js';
import { chainWords } from '@gangway/station';
import { BackFields } from './back-fields.js';
import { Section, useStation } from '../fields/fields.js';
import { FocusFields } from './focus-fields.js';
import { LensFields } from './lens-fields.js';
import { MovementFields } from './movement-fields.js';
import { SharpnessFields } from '../station/sharpness-fields.js';

// The kit is not needed to open a station, only to change its rig.
const RigBar = lazy(() => import('./rig-bar.js'));

/** The rig and how it stands: everything the other steps take as given. */
export function RigStep() {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper">
      <Suspense fallback={<div className="min-h-14 border-b border-rule" />}>
        <RigBar />
      </Suspense>
      <div className="grid max-w-6xl gap-x-12 gap-y-8 px-5 py-6 md:grid-cols-2 xl:grid-cols-3">
        <div className="space-y-8">
          <LensFields />
          <CircleTable />
        </div>
        <div className="space-y-8">
          <BackFields />
          <SharpnessFields />
        </div>
        <div className="space-y-8">
          <MovementFields />
          <FocusFields />
          <Between />
        </div>
      </div>
    </div>
  );
}

/** What a file brought along between lens and back; it counts in every figure, so it is shown. */
function Between() {
  const words = chainWords(useStation());
  if (words.length === 0) return null;
  return (
    <Section title="Between lens and back">
      <ol>
        {words.map((each, i) => (
          <li key={i} className="py-0.5">
            {each}
          </li>
        ))}
      </ol>
    </Section>
  );
}
