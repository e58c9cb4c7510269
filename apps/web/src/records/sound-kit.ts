import { useMemo } from 'react';
import type { Rig } from '@gangway/station';
import { useKitQuery, useRigsQuery } from './kit-api.js';
import { readRig, soundItems, type StoredItem } from './read-kit.js';
import { useTries } from './use-tries.js';

/** The kit but for what cannot be read, which the page of the kit shows as such. */
export function useSoundKit(): readonly StoredItem[] | undefined {
  const { data } = useKitQuery({ archived: false });
  return useMemo(() => data && soundItems(data), [data]);
}

export interface SoundRig {
  readonly id: string;
  readonly document: Rig;
}

/** The rigs but for what cannot be read. */
export function useSoundRigs(): { data: readonly SoundRig[] | undefined; error: unknown } {
  const [pollingInterval, heed] = useTries();
  const { data, error } = useRigsQuery({ archived: false }, { pollingInterval });
  heed(error);
  const sound = useMemo(
    () =>
      data?.flatMap(({ id, document }) => {
        const { value } = readRig(document);
        return value ? [{ id, document: value }] : [];
      }),
    [data],
  );
  return { data: sound, error };
}
