import { useMemo } from 'react';
import { keptStation, type Station } from '@gangway/station';
import { useAllStations } from '../records/all-stations.js';
import type { StationNames } from './table-edits.js';

const MOST = 10_000;

/** The job’s stations by id and by name, those that can be read; empty until they are here. */
export function useStationNames(jobId: string): StationNames & { readonly error: string | null } {
  const read = useAllStations(jobId, MOST);
  return useMemo(() => {
    const byId = new Map<string, Station>();
    const idByName = new Map<string, string>();
    for (const { id, document } of read && typeof read !== 'string' ? read.items : []) {
      const kept = keptStation(document);
      if (kept.kind === 'broken') continue;
      byId.set(id, kept.station);
      if (!idByName.has(kept.station.name.toLowerCase())) idByName.set(kept.station.name.toLowerCase(), id); // prettier-ignore
    }
    return { byId, idByName, error: typeof read === 'string' ? read : null };
  }, [read]);
}
