import { useMemo, useState } from 'react';
import {
  blanksOf,
  blankSentence,
  curesFor,
  rigStation,
  type Blank,
  type Cure,
  type Rig,
  rigProblemSaid,
  type RigProblem,
  type Stored,
  type WholeRig,
} from '@gangway/station';
import { useSoundKit } from '../records/sound-kit.js';

const WORDS = { stop: 'Stops it', warn: 'Mind' } as const;

/** What is wrong with a rig, each with its cure, and what one press could do about it. */
export function ProblemList({
  rig,
  problems,
  onTry,
}: {
  rig: WholeRig;
  problems: readonly RigProblem[];
  onTry: (after: Rig) => void;
}) {
  const data = useSoundKit();
  const blanks = useMemo(() => blanksOf(rigStation(rig)), [rig]);
  if (problems.length === 0) {
    return blanks.length === 0 ? (
      <p className="text-within">Nothing is wrong with this rig.</p>
    ) : (
      <>
        <p>Nothing that is known is wrong.</p>
        <Blanks blanks={blanks} />
      </>
    );
  }
  return (
    <>
      <ol className="space-y-3">
        {problems.map((problem, index) => (
          <li key={`${problem.code}-${problem.joint}`}>
            <p>
              <span
                className={
                  problem.severity === 'stop'
                    ? 'font-semibold text-outside'
                    : 'font-semibold text-costs'
                }
              >
                {index + 1} {WORDS[problem.severity]}.
              </span>{' '}
              {rigProblemSaid(problem).message}
            </p>
            <p className="text-quiet">{rigProblemSaid(problem).cure}</p>
            <Cures rig={rig} problem={problem} kit={data ?? NONE} onTry={onTry} />
          </li>
        ))}
      </ol>
      <Blanks blanks={blanks} />
    </>
  );
}

/** What is not known, and what each of it would decide. */
function Blanks({ blanks }: { blanks: readonly Blank[] }) {
  if (blanks.length === 0) return null;
  return (
    <section aria-label="Not known" className="mt-4">
      <h3 className="font-semibold text-costs">Not known: the rig may work</h3>
      <ul className="mt-1 space-y-1">
        {blanks.map((blank) => (
          <li key={blank.pointer} className="border-t border-rule pt-1">
            {blankSentence(blank)}
          </li>
        ))}
      </ul>
    </section>
  );
}

const NONE: readonly Stored[] = [];

function Cures({
  rig,
  problem,
  kit,
  onTry,
}: {
  rig: WholeRig;
  problem: RigProblem;
  kit: readonly Stored[];
  onTry: (after: Rig) => void;
}) {
  const [all, setAll] = useState(false);
  const cures = useMemo<Cure[]>(() => curesFor(rig, problem, kit), [rig, problem, kit]);
  if (cures.length === 0) return null;
  return (
    <div className="mt-1 flex flex-col items-start gap-1">
      {(all ? cures : cures.slice(0, 2)).map((cure) => (
        <button
          key={cure.title}
          type="button"
          onClick={() => onTry(cure.after)}
          className="min-h-8 border-l-2 border-within py-0.5 pl-2 text-left hover:bg-paper pointer-coarse:min-h-11"
        >
          <span className="font-medium">{cure.title}</span>
          <span className="text-quiet">; {cure.detail}</span>
        </button>
      ))}
      {cures.length > 2 && !all && (
        <button
          type="button"
          className="min-h-8 text-[13px] text-quiet hover:text-ink"
          onClick={() => setAll(true)}
        >
          {cures.length - 2} more
        </button>
      )}
    </div>
  );
}
