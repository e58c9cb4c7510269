import type { ReactNode } from 'react';
import { assumedFor, fStop, trimmed, type RigFigures } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { AssumedMark } from '../ui/assumed-mark.js';
import { Word } from '../words/word.js';
import { rigRows } from './rig-rows.js';

/** What a rig becomes and can do, the figure people look for first the largest. */
export function RigFiguresList({
  figures,
  children,
}: {
  figures: RigFigures;
  children?: ReactNode;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  return (
    <section>
      <p className="mb-2">
        <span className="figure text-[34px] leading-none">{trimmed(figures.focalLengthMm, 1)}</span>{' '}
        <span className="text-quiet">mm on this back, {fStop(figures.fNumber)}</span>
      </p>
      {children}
      <dl className="mt-1">
        {rigRows(units, '24 × 36 mm').map(({ label, write, term, rests }) => (
          <div
            key={label}
            className="flex items-baseline justify-between gap-4 border-b border-rule py-1"
          >
            <dt className="text-quiet">{term ? <Word id={term}>{label}</Word> : label}</dt>
            <dd className="figure flex items-center text-right">
              {write(figures)}
              {rests && <AssumedMark found={assumedFor(figures.assumed, rests)} of={label} />}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
