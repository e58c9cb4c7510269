import clsx from 'clsx';
import { useId } from 'react';
import { isWhole, rigNameOf, type Rig, type WholeRig } from '@gangway/station';
import { OWN } from './own.js';

interface Props {
  rigs: readonly { readonly id: string; readonly rig: WholeRig }[];
  chosen: string | null;
  /** It was gone on from without a choice. */
  unchosen: boolean;
  onChoose: (id: string) => void;
}

const partsOf = (rig: Rig): string =>
  isWhole(rig) && rigNameOf(rig) !== rig.name ? rigNameOf(rig) : '';

/** Which rig a station begins with: one there is, or a lens that is in none yet. */
export function RigList({ rigs, chosen, unchosen, onChoose }: Props) {
  const name = useId();
  const rows = [
    ...rigs.map(({ id, rig }) => ({ id, title: rig.name, words: partsOf(rig) })),
    { id: OWN, title: 'Another lens', words: 'by three figures; it goes into the kit' },
  ];
  return (
    <fieldset>
      <legend className="mb-1 text-quiet">With which rig?</legend>
      {unchosen && (
        <p role="alert" className="mb-1 text-[13px] text-outside">
          Choose a rig, or another lens.
        </p>
      )}
      <div className="max-h-[32vh] overflow-y-auto border-y border-rule">
        {rows.map(({ id, title, words }) => (
          <label
            key={id}
            className={clsx(
              'flex min-h-11 cursor-pointer items-center gap-3 border-b border-rule px-2 py-1 last:border-b-0',
              chosen === id ? 'bg-stage' : 'hover:bg-stage',
            )}
          >
            <input
              type="radio"
              {...{ name }}
              checked={chosen === id}
              onChange={() => onChoose(id)}
              className="size-4 shrink-0 accent-(--ink)"
            />
            <span className="min-w-0">
              <span className="block truncate font-medium">{title}</span>
              {words !== '' && (
                <span className="block truncate text-[13px] text-quiet">{words}</span>
              )}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
