import { useMemo } from 'react';
import { keptStation, type Station } from '@gangway/station';
import { useAllStations } from '../records/all-stations.js';
import { stationNames, type StationNames } from './table-edits.js';

const MOST = 10_000;

export type ReadNames = StationNames & { readonly error: string | null };

/** The job’s stations by id and by name, those that can be read; empty until they are here. */
export function useStationNames(jobId: string): ReadNames {
  const read = useAllStations(jobId, MOST);
  return useMemo(() => {
    const byId = new Map<string, Station>();
    for (const { id, document } of read && typeof read !== 'string' ? read.items : []) {
      const kept = keptStation(document);
      if (kept.kind !== 'broken') byId.set(id, kept.station);
    }
    return { ...stationNames(byId), error: typeof read === 'string' ? read : null };
  }, [read]);
}
