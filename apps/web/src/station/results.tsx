import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { Rests } from '@gangway/station';
import type { TermId } from '../words/terms.js';
import { Word } from '../words/word.js';
import { Assumed } from './assumed.js';

/** A heading over a few lines of figures. */
export function Group({ title, children }: { title: ReactNode; children: ReactNode }) {
  return (
    <section className="mb-4">
      <h2 className="mb-1 flex items-center justify-between text-[13px] font-semibold text-quiet">
        {title}
      </h2>
      {children}
    </section>
  );
}

/** One figure: what it is, the figure, its unit in small. */
export function Line({
  name,
  figure,
  unit,
  tone,
  why,
  rests,
  term,
  ring,
}: {
  name: ReactNode;
  figure: string;
  unit?: string;
  tone?: string;
  why?: ReactNode;
  /** What the figure would move with, where that is assumed. */
  rests?: readonly Rests[];
  /** The ring itself, where the figure is not the open station’s as it stands. */
  ring?: ReactNode;
  /** The word that its name opens to. */
  term?: TermId;
}) {
  return (
    <div className="flex items-baseline justify-between gap-3 py-px">
      <span className="flex items-center gap-1">
        {term ? <Word id={term}>{name}</Word> : name}
        {why}
      </span>
      <span className="whitespace-nowrap">
        <span className={clsx('figure', tone)}>{figure}</span>
        {unit && <span className="ml-1 text-[12px] text-quiet">{unit}</span>}
        {ring}
        {rests && <Assumed rests={rests} of={typeof name === 'string' ? name : 'this figure'} />}
      </span>
    </div>
  );
}
