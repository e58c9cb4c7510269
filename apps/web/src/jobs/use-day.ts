import { useMemo } from 'react';
import { keptStation, packingOf, type Packing, type Station } from '@gangway/station';
import { useAllStations } from '../records/all-stations.js';
import { useSoundKit } from '../records/sound-kit.js';

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
  const kit = useSoundKit();
  const read = useAllStations(jobId, MOST);
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
