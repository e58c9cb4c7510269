import { useEffect, useRef, useState } from 'react';
import type { FramingWay, KitItemOf, Station, Stored, Units } from '@gangway/station';
import { useSoundKit } from '../records/sound-kit.js';
import { selectReport, selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Group } from '../station/results.js';
import type { FramingAnswer, FramingAsk } from '../workers/framing-worker.js';
import { WayList } from '../station/way-list.js';

/** A search begins once the hand rests for this long. */
const RESTED_MS = 200;

interface Found {
  readonly station: Station;
  readonly ways: readonly FramingWay[];
}

/** Ways to bring the whole façade into the picture, searched for beside the page. */
function useFramingWays(station: Station, units: Units): Found | null {
  const kit = useSoundKit();
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [found, setFound] = useState<Found | null>(null);

  useEffect(() => {
    const made = new Worker(new URL('../workers/framing-worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current = made;
    return () => {
      made.terminate();
      worker.current = null;
    };
  }, []);

  useEffect(() => {
    if (!kit) return undefined;
    const lenses = kit.flatMap((stored) =>
      stored.document.kind === 'lens' ? [stored as Stored<KitItemOf<'lens'>>] : [],
    );
    worker.current?.postMessage({ kind: 'lenses', lenses } satisfies FramingAsk);
    return undefined;
  }, [kit]);

  useEffect(() => {
    const at = worker.current;
    if (!at) return undefined;
    const ask = ++asked.current;
    const hear = ({ data }: MessageEvent<FramingAnswer>): void => {
      if (data.ask === ask) setFound({ station, ways: data.ways });
    };
    at.addEventListener('message', hear);
    const wait = setTimeout(() => {
      at.postMessage({ kind: 'ways', ask, station, units } satisfies FramingAsk);
    }, RESTED_MS);
    return () => {
      clearTimeout(wait);
      at.removeEventListener('message', hear);
    };
    // The kit's lenses change what is found.
  }, [station, kit, units]);
  return found;
}

export default function FramingWays() {
  const station = useAppSelector(selectStation);
  const { facade } = useAppSelector(selectReport);
  const found = useFramingWays(
    station,
    useAppSelector((state) => state.preferences.units),
  );
  if (!facade) return null;
  // An older answer stays in sight, faintly, while the hand moves.
  const fresh = found?.station === station;
  if (found === null || (fresh && found.ways.length === 0)) {
    return facade.framed || !fresh ? null : (
      <Group title="Ways to get it all in">
        <p className="border-t border-rule py-2">
          No single change frames it from here. Combine them: a shorter lens, further back, more
          frames.
        </p>
      </Group>
    );
  }
  if (facade.framed && !fresh) return null;
  return (
    <Group title="Ways to get it all in">
      <div className={fresh ? '' : 'opacity-50'}>
        <WayList ways={found.ways} />
      </div>
    </Group>
  );
}
