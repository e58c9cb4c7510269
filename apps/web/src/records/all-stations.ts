import { useEffect, useState } from 'react';
import { useDispatch } from 'react-redux';
import type { Action, ThunkDispatch } from '@reduxjs/toolkit';
import { answered } from './answered.js';
import { api, PAGE, sentence } from './api.js';
import type { StoredStation } from './shapes.js';

// Records know no store: only that queries can be sent.
type Dispatch = ThunkDispatch<never, unknown, Action>;

export interface AllStations {
  readonly items: readonly StoredStation[];
  readonly total: number;
}

/** A job’s stations in their order, up to so many; or why they cannot be had. */
export function useAllStations(jobId: string, most: number): AllStations | string | null {
  const dispatch = useDispatch<Dispatch>();
  const [read, setRead] = useState<AllStations | string | null>(null);
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
        for (const each of some) items.push(each);
        if (items.length >= Math.min(total, most) || some.length < PAGE) {
          return setRead({ items, total });
        }
      }
    };
    readAll().catch((error: unknown) => !left && setRead(sentence(error)));
    return () => {
      left = true;
    };
  }, [dispatch, jobId, most]);
  return read;
}
