import { useMemo } from 'react';
import { parseRig, readKept } from '@gangway/station';
import { useTries } from './use-tries.js';
import { useKitQuery, useRigsQuery, type StoredItem, type StoredRig } from './kit-api.js';
import { itemText } from './item-text.js';

/** The kit but for what cannot be read, which the page of the kit shows as such. */
export function useSoundKit(): readonly StoredItem[] | undefined {
  const { data } = useKitQuery({ archived: false });
  return useMemo(() => data?.filter(({ document }) => itemText(document) !== null), [data]);
}

/** The rigs but for what cannot be read. */
export function useSoundRigs(): { data: readonly StoredRig[] | undefined; error: unknown } {
  const [pollingInterval, heed] = useTries();
  const { data, error } = useRigsQuery({ archived: false }, { pollingInterval });
  heed(error);
  const sound = useMemo(
    () => data?.filter(({ document }) => readKept(parseRig, document).value !== null),
    [data],
  );
  return { data: sound, error };
}
