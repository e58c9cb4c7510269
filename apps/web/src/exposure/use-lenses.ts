import { useMemo, useState } from 'react';
import { lensSwaps, type KitItemOf, type Station, type Stored } from '@gangway/station';
import { useSoundKit } from '../records/sound-kit.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';

export interface LensChoice {
  readonly name: string;
  readonly station: Station;
}

/** This lens and every other of the kit that goes on this camera; and which of them is looked at. */
export function useLenses(): {
  readonly lenses: readonly LensChoice[];
  readonly chosen: LensChoice;
  readonly choose: (name: string) => void;
} {
  const station = useAppSelector(selectStation);
  const kit = useSoundKit();
  const [wanted, choose] = useState<string | null>(null);
  const lenses = useMemo(() => {
    const own = station.lens.name ?? `${station.lens.focal_length_mm} mm`;
    const all = (kit ?? []).filter(({ document }) => document.kind === 'lens');
    const focused = { ...station, focus: { distance_m: null } };
    return [
      { name: own, station },
      ...lensSwaps(focused, all as unknown as Stored<KitItemOf<'lens'>>[]).filter(
        ({ name }) => name !== own,
      ),
    ];
  }, [station, kit]);
  return { lenses, chosen: lenses.find(({ name }) => name === wanted) ?? lenses[0]!, choose };
}
