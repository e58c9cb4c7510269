import { CONTROLS, type ControlId, type Scale, type Units } from '@gangway/station';
import { Beside } from '../../ui/beside.js';
import { Explained } from '../../words/explained.js';
import type { TermId } from '../../words/terms.js';
import { AssumedLines } from '../../ui/assumed-popover.js';
import { useAssumed } from '../assumed.js';
import { SCALE_WORDS } from './look.js';
import { RESTS_OF, stretchWords } from './stretches.js';

const TERM_OF: Readonly<Record<ControlId, TermId>> = {
  rise: 'rise',
  shift: 'shift',
  tilt: 'tilt',
  swing: 'swing',
  aperture: 'stop',
  distance: 'plane',
};

const LINES = [
  ['solid', 'within reach: covered, and sharp to the corners'],
  ['dotted', 'costs something: covered, but a corner leaves the sharp core'],
  ['crossed', 'outside: a corner is dark'],
  ['slanted', 'past the end of the mechanism'],
] as const;

/** What the lines of a scale mean, and where they lie on this one. */
export default function ScalePopover({
  scale,
  words,
}: {
  scale: Scale;
  units: Units;
  words: string;
}) {
  const assumed = useAssumed([...RESTS_OF[scale.id], 'core']);
  return (
    <Beside label={undefined} mark={words} className={SCALE_WORDS}>
      <Explained id={TERM_OF[scale.id]} />
      <ul className="mt-3 border-t border-rule pt-2">
        {LINES.map(([look, meaning]) => (
          <li key={look} className="flex items-center gap-3 py-0.5">
            <Sample look={look} />
            <span>
              <span className="font-semibold">{look}</span> {meaning}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-2 border-t border-rule pt-2 font-semibold">
        {CONTROLS[scale.id].label}, as the others are set
      </p>
      <ul className="text-[13px]">
        {scale.segments.map((segment, i) => (
          <li key={i}>{stretchWords(segment)}</li>
        ))}
      </ul>
      {assumed.length > 0 && (
        <div className="mt-2 border-t border-rule pt-2">
          <p className="mb-1 font-semibold">Assumed, not given</p>
          <AssumedLines found={assumed} />
        </div>
      )}
    </Beside>
  );
}

function Sample({ look }: { look: (typeof LINES)[number][0] }) {
  return (
    <svg width={44} height={12} aria-hidden className="shrink-0">
      {look === 'solid' && <path d="M0,6H44" strokeWidth={5} className="stroke-within" />}
      {look === 'dotted' && (
        <path d="M0,6H44" strokeWidth={5} strokeDasharray="2 3" className="stroke-costs" />
      )}
      {look === 'crossed' && <rect y={1} width={44} height={10} fill="url(#hatch)" />}
      {look === 'slanted' && <rect y={1} width={44} height={10} fill="url(#hatch-beyond)" />}
    </svg>
  );
}
