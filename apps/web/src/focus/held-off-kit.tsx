import { useMemo } from 'react';
import {
  distance,
  heldReach,
  lensFrom,
  startHeldOff,
  withRig,
  type HeldReach,
  type KitItemOf,
  type Station,
  type Stored,
  type Units,
} from '@gangway/station';
import { useSoundKit } from '../records/sound-kit.js';
import { Group } from '../station/results.js';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';

const MOST_SHOWN = 8;

type StoredLens = Stored<KitItemOf<'lens'>>;

const lensIn = ({ document, ...stored }: Stored): StoredLens[] =>
  document.kind === 'lens' ? [{ ...stored, document }] : [];

/** The kit's lenses by how near to infinity each comes before this body; one press takes one. */
export default function HeldOffKit({
  bodyRegisterMm,
  own,
  units,
}: {
  bodyRegisterMm: number | undefined;
  /** The lens that is in hand, by its id in the kit. */
  own: string | undefined;
  units: Units;
}) {
  const kit = useSoundKit();
  const { change } = useEditing();
  const lenses = useMemo(() => (kit ?? []).flatMap(lensIn), [kit]);
  const ranked = heldReach(lenses, bodyRegisterMm);
  if (ranked.length === 0) return null;
  const take = (id: string): void => {
    const stored = lenses.find((each) => each.id === id)!;
    change(`Take ${stored.document.name}`, '/lens', (now: Station) => {
      const lens = lensFrom(stored);
      const {
        lens_register_mm: _l,
        flange_diameter_mm: _f,
        ...held
      } = now.held_off ?? startHeldOff(now);
      const next = withRig(now, { lens, chain: [], back: now.back });
      return {
        ...next,
        held_off: {
          ...held,
          ...(lens.register_mm === undefined ? {} : { lens_register_mm: lens.register_mm }),
        },
      };
    });
  };
  return (
    <Group title="Lenses in the kit, by how far they reach">
      <ul>
        {ranked.slice(0, MOST_SHOWN).map((each) => (
          <li
            key={each.id}
            className="flex min-h-9 items-center justify-between gap-3 border-t border-rule"
          >
            <span className="min-w-0 truncate">{each.name}</span>
            <span className="flex items-center gap-2 whitespace-nowrap">
              <Reach reach={each} units={units} />
              {own === each.id ? (
                <span className="w-14 text-center text-[13px] text-quiet">this one</span>
              ) : (
                <Button
                  className="min-h-8 w-14"
                  aria-label={`Try ${each.name}`}
                  onClick={() => take(each.id)}
                >
                  Try
                </Button>
              )}
            </span>
          </li>
        ))}
      </ul>
      {ranked.length > MOST_SHOWN && (
        <p className="text-[13px] text-quiet">and {ranked.length - MOST_SHOWN} more</p>
      )}
    </Group>
  );
}

function Reach({ reach: { farthestM }, units }: { reach: HeldReach; units: Units }) {
  if (farthestM === undefined) return <span className="text-[13px] text-quiet">register?</span>;
  return (
    <span className={`figure ${farthestM === null ? 'text-within' : ''}`}>
      {farthestM === null ? '∞' : distance(farthestM, units)}
    </span>
  );
}
