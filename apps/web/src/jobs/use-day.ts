import { useEffect, useMemo, useState } from 'react';
import { keptStation, packingOf, type Packing, type Station } from '@gangway/station';
import { answered } from '../records/answered.js';
import { api, PAGE, sentence } from '../records/api.js';
import { useSoundKit } from '../records/sound-kit.js';
import type { StoredStation } from '../records/shapes.js';
import { useAppDispatch } from '../store/store.js';

/** Sheets for more stations than this nobody carries. */
const MOST = 400;

export interface Day {
  readonly stations: readonly Station[];
  /** Those that cannot be read, by name: no card is made of them. */
  readonly unread: readonly string[];
  readonly packing: Packing;
  /** There are more than sheets are made of. */
  readonly more: boolean;
}

/** Every station of a job, in order, with what to pack for them; or why they cannot be had. */
export function useDay(jobId: string): { day: Day | null; error: string | null } {
  const dispatch = useAppDispatch();
  const kit = useSoundKit();
  const [read, setRead] = useState<{ items: StoredStation[]; total: number } | string | null>(null);
  useEffect(() => {
    let left = false;
    const readAll = async (): Promise<void> => {
      const items: StoredStation[] = [];
      for (let page = 0; ; page++) {
        const { total, items: some } = await answered(() =>
          dispatch(
            api.endpoints.stations.initiate(
              { jobId, archived: false, page },
              { subscribe: false, forceRefetch: true },
            ),
          ),
        );
        if (left) return;
        items.push(...some);
        if (items.length >= Math.min(total, MOST) || some.length < PAGE) {
          return setRead({ items, total });
        }
      }
    };
    readAll().catch((error: unknown) => !left && setRead(sentence(error)));
    return () => {
      left = true;
    };
  }, [dispatch, jobId]);
  const day = useMemo((): Day | null => {
    if (read === null || typeof read === 'string' || !kit) return null;
    const kept = read.items.map(({ document }) => keptStation(document));
    const stations = kept.flatMap((each) => (each.kind === 'broken' ? [] : [each.station]));
    return {
      stations,
      unread: kept.flatMap((each) => (each.kind === 'broken' ? [each.name] : [])),
      packing: packingOf(stations, kit),
      more: read.total > read.items.length,
    };
  }, [read, kit]);
  return { day, error: typeof read === 'string' ? read : null };
}
