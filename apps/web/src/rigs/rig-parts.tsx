import { partTitle, type Rig } from '@gangway/station';
import { Button } from '../ui/button.js';
import type { Asking } from './asking.js';

/** The chain as a row of parts: what the bench shows, to be dropped in, swapped, moved, taken out. */
export function RigParts({
  rig,
  picked,
  onPick,
  onAsk,
  onMove,
  onChange,
}: {
  rig: Rig;
  picked: number | null;
  onPick: (index: number | null) => void;
  onAsk: (asking: Asking) => void;
  onMove: (from: number, to: number) => void;
  onChange: (rig: Rig) => void;
}) {
  const { lens, chain, back } = rig;
  const part = picked !== null && picked >= 0 && picked < chain.length ? chain[picked] : null;
  const insert = (at: number) => (
    <button
      type="button"
      aria-label={`Put a part in at place ${at + 1}`}
      onClick={() => onAsk({ place: 'chain', at, swap: false })}
      className="flex min-h-10 min-w-8 items-center justify-center text-[18px] text-quiet hover:text-ink pointer-coarse:min-h-11 pointer-coarse:min-w-11"
    >
      +
    </button>
  );
  const chip = (index: number, label: string) => (
    <button
      type="button"
      aria-pressed={picked === index}
      onClick={() => onPick(picked === index ? null : index)}
      className={`min-h-10 max-w-52 truncate border px-3 pointer-coarse:min-h-11 ${picked === index ? 'border-ink bg-ink text-on-strong' : 'border-rule-strong bg-paper hover:border-ink'}`}
    >
      {label}
    </button>
  );
  return (
    <section
      aria-label="Parts, from the lens to the back"
      className="border-t border-rule px-5 py-3"
    >
      <div className="flex flex-wrap items-center gap-y-2">
        {lens ? (
          chip(-1, lens.name?.trim() || 'Lens')
        ) : (
          <Button look="strong" onClick={() => onAsk({ place: 'lens' })}>
            Choose the lens
          </Button>
        )}
        {insert(0)}
        {chain.map((each, index) => (
          <span key={index} className="contents">
            {chip(index, partTitle(each))}
            {insert(index + 1)}
          </span>
        ))}
        {back ? (
          chip(chain.length, back.name?.trim() || 'Back')
        ) : (
          <Button look="strong" onClick={() => onAsk({ place: 'back' })}>
            Choose the back
          </Button>
        )}
      </div>
      <div className="mt-2 flex min-h-9 flex-wrap items-center gap-2">
        {picked === null && (
          <p className="text-[13px] text-quiet">
            Press a part to swap, move or take it out; + puts one in between.
          </p>
        )}
        {picked === -1 && lens && (
          <>
            <Button onClick={() => onAsk({ place: 'lens' })}>Swap the lens</Button>
            <Button onClick={() => onAsk({ place: 'filter' })}>Put a filter on</Button>
            {lens.filter && (
              <Button
                onClick={() => {
                  const { filter: _, ...rest } = lens;
                  onChange({ ...rig, lens: rest });
                }}
              >
                Take the filter off
              </Button>
            )}
          </>
        )}
        {picked === chain.length && back && (
          <>
            <Button onClick={() => onAsk({ place: 'back' })}>Swap the back</Button>
            <Button
              onClick={() =>
                onChange({
                  ...rig,
                  back: {
                    ...back,
                    orientation: back.orientation === 'landscape' ? 'portrait' : 'landscape',
                  },
                })
              }
            >
              {back.orientation === 'landscape' ? 'Turn upright' : 'Turn level'}
            </Button>
          </>
        )}
        {part && picked !== null && (
          <>
            <Button onClick={() => onAsk({ place: 'chain', at: picked, swap: true })}>Swap</Button>
            <Button disabled={picked === 0} onClick={() => onMove(picked, picked - 1)}>
              Towards the lens
            </Button>
            <Button
              disabled={picked === chain.length - 1}
              onClick={() => onMove(picked, picked + 1)}
            >
              Towards the back
            </Button>
            <Button
              onClick={() => {
                onChange({ ...rig, chain: chain.filter((_, index) => index !== picked) });
                onPick(null);
              }}
            >
              Take out
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
