import { useCallback, useMemo } from 'react';
import * as z from 'zod';
import { coverDrawing, lensFrom, newStation, withRig, backFrom, type CoverDrawing, type KitItemOf, type Station, type Stored } from '@gangway/station'; // prettier-ignore
import { useKept } from '../browser/use-kept.js';
import { isMissing, sentence } from '../records/api.js';
import { useItemQuery, useSaveItemMutation } from '../records/kit-api.js';
import { itemOf, type StoredItem } from '../records/read-kit.js';
import { useSoundKit } from '../records/sound-kit.js';
import { useTries } from '../records/use-tries.js';
import { useNotice } from '../ui/notices.js';

export type LensItem = KitItemOf<'lens'>;
export type Measured = NonNullable<LensItem['measured']>;
export type StoredLens = StoredItem & { readonly document: LensItem };

export const isLens = (item: StoredItem): item is StoredLens => item.document.kind === 'lens';

/** A lens of the kit as it is stored; null when it is none, undefined until it is here. */
export function useLens(id: string): { lens: StoredLens | null | undefined; error: unknown } {
  const [pollingInterval, heed] = useTries();
  const { currentData, error } = useItemQuery(id, { pollingInterval });
  heed(error);
  const lens = useMemo(() => {
    if (!currentData) return isMissing(error) ? null : undefined;
    const item = itemOf(currentData);
    return item && isLens(item) ? item : null;
  }, [currentData, error]);
  return { lens, error };
}

const withMeasured = (
  { measured: _, ...lens }: LensItem,
  measured: Measured | undefined,
): LensItem => (measured === undefined ? lens : { ...lens, measured });

/** Keeps what was measured with the lens, and takes it back again. */
export function useKeeping(lens: StoredLens): (measured: Measured | undefined, said: string) => Promise<boolean> {
  const [save] = useSaveItemMutation();
  const notice = useNotice();
  return useCallback(
    async (measured, said) => {
      const before = lens.document.measured;
      const made = await save({ id: lens.id, baseRevision: lens.revision, document: withMeasured(lens.document, measured) });
      if (made.error) {
        notice([sentence(made.error)]);
        return false;
      }
      const { revision } = made.data;
      notice([said], {
        label: 'Undo',
        onSelect: () =>
          void save({ id: lens.id, baseRevision: revision, document: withMeasured(lens.document, before) }).then(({ error }) => {
            if (error) notice([sentence(error)]);
          }),
      });
      return true;
    },
    [lens, save, notice],
  );
} // prettier-ignore

type BackItem = KitItemOf<'back'>;
export type StoredBack = Stored<BackItem>;

/** The back it is measured on, of those in the kit; kept from page to page. */
export function useBack(): {
  readonly backs: readonly StoredBack[];
  readonly back: StoredBack | null;
  readonly choose: (id: string) => void;
} {
  const kit = useSoundKit();
  const [id, choose] = useKept('lens.back', z.string(), '');
  const backs = useMemo(() => (kit ?? []).filter((item): item is typeof item & { document: BackItem } => item.document.kind === 'back'), [kit]); // prettier-ignore
  return { backs, back: backs.find((each) => each.id === id) ?? backs[0] ?? null, choose };
}

/** The lens by itself before a back: straight, at infinity. */
export function benchOf(lens: StoredLens, back: StoredBack | null, measured?: Measured): Station {
  const plain = newStation(lens.document.name);
  const station = withRig(plain, {
    lens: lensFrom({ ...lens, document: withMeasured(lens.document, measured) }),
    chain: [],
    back: back ? backFrom(back, 'landscape') : plain.back,
  });
  return { ...station, focus: { distance_m: null } };
}

export const atStop = (station: Station, aperture: number): CoverDrawing => coverDrawing({ ...station, aperture }); // prettier-ignore
