import { Drawn } from './strokes.js';
import { TERMS, type TermId } from './terms.js';

/** A term, its drawing and what it means. */
export function Explained({ id }: { id: TermId }) {
  const { term, words, drawing } = TERMS[id];
  return (
    <div className="flex flex-wrap gap-4">
      <Drawn>{drawing}</Drawn>
      <div className="min-w-40 flex-1">
        <h2 className="text-[17px] font-semibold">{term}</h2>
        <p className="mt-1">{words}</p>
      </div>
    </div>
  );
}
