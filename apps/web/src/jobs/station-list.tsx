import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef } from 'react';
import { Link } from 'react-router';
import {
  coverVerdict,
  faultSentence,
  fixed,
  fStop,
  keptName,
  keptStation,
  readings,
  type Station,
} from '@gangway/station';
import {
  api,
  PAGE,
  SEEN_ANEW,
  sentence,
  useArchiveStationMutation,
  useDeleteStationMutation,
  useDuplicateStationMutation,
  useStationsQuery,
} from '../records/api.js';
import type { StoredStation } from '../records/shapes.js';
import { BrokenLine, Line } from '../ui/boundary.js';
import { RowMenu, type MenuItem } from '../ui/row-menu.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { useRested } from '../ui/use-paced.js';
import { useTries } from '../records/use-tries.js';
import { documentItems } from '../pages/document-items.js';
import { useArchiving, useTold } from '../pages/list-page.js';

const ROW_PX = 70;
const REST_MS = 80;

interface Which {
  jobId: string;
  archived: boolean;
}

/** The stations of a job, any number of them: only the lines in sight are there, and their pages. */
export function StationList({ total, ...which }: Which & { total: number }) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: total,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 6,
  });
  const items = rows.getVirtualItems();
  const pageOf = (item?: { index: number }): number => Math.floor((item?.index ?? 0) / PAGE);
  // A page that is only flown over is not asked for.
  const rested = useRested(`${pageOf(items[0])} ${pageOf(items.at(-1))}`, REST_MS);
  const [from = 0, to = 0] = rested.split(' ').map(Number);
  return (
    <div ref={box} className="min-h-40 flex-1 overflow-y-auto border-t border-rule pb-4">
      {Array.from({ length: to - from + 1 }, (_, i) => (
        <Fetched key={from + i} page={from + i} {...which} />
      ))}
      <ul aria-label="Stations" className="relative" style={{ height: rows.getTotalSize() }}>
        {items.map(({ index, start }) => (
          <li
            key={index}
            ref={rows.measureElement}
            data-index={index}
            aria-setsize={total}
            aria-posinset={index + 1}
            style={{ minHeight: ROW_PX, transform: `translateY(${start}px)` }}
            className="absolute inset-x-0 top-0 flex items-center border-b border-rule hover:bg-paper"
          >
            <Row index={index} {...which} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Keeps one page of the list, for as long as it is in sight. */
function Fetched(which: Which & { page: number }) {
  const [pollingInterval, heed] = useTries();
  const { error } = useStationsQuery(which, {
    pollingInterval,
    ...SEEN_ANEW,
    selectFromResult: (result) => ({ error: result.error }),
  });
  heed(error);
  return null;
}

/** Shows what is there of its page; the list does the asking. */
function Row({ index, ...which }: Which & { index: number }) {
  const { stored, error } = api.endpoints.stations.useQueryState(
    { ...which, page: Math.floor(index / PAGE) },
    {
      selectFromResult: (result) => ({
        stored: result.data?.items[index % PAGE],
        error: result.error,
      }),
    },
  );
  if (!stored) {
    return <span className="px-2 text-quiet">{error ? sentence(error) : 'Loading …'}</span>;
  }
  const name = keptName(stored.document);
  return (
    <>
      <Line name={name} of={stored.document}>
        <StationLine stored={stored} />
      </Line>
      <StationMenu stored={stored} name={name} />
    </>
  );
}

function StationMenu({ stored, name }: { stored: StoredStation; name: string }) {
  const [duplicate] = useDuplicateStationMutation();
  const [archive] = useArchiveStationMutation();
  const [remove] = useDeleteStationMutation();
  const told = useTold();
  const archiving = useArchiving(archive);
  const really = 'Really delete it, with its versions';
  const items = (): MenuItem[] =>
    documentItems(stored, { duplicate, archiving, remove, told, really });
  return <RowMenu label={`More for ${name}`} itemsOf={items} />;
}

const rig = ({ lens, back, aperture }: Station): string =>
  `${lens.name ?? `${fixed(lens.focal_length_mm, 0)} mm`} at ${fStop(aperture)}, ${back.width_mm} × ${back.height_mm} mm${back.orientation === 'portrait' ? ' upright' : ''}`;

function StationLine({ stored }: { stored: StoredStation }) {
  const kept = useMemo(() => keptStation(stored.document), [stored.document]);
  const to = `/jobs/${stored.jobId}/stations/${stored.id}/cover`;
  if (kept.kind === 'broken') {
    const why = kept.faults[0]
      ? faultSentence(kept.faults[0])
      : 'Nothing can be worked out from it.';
    return (
      <Link to={to} className="flex min-w-0 flex-1">
        <BrokenLine name={kept.name} why={why} />
      </Link>
    );
  }
  const { station } = kept;
  const verdict = coverVerdict(station, readings(station));
  return (
    <Link to={to} className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-6 px-2 py-3">
      <span className="min-w-0 flex-1 basis-64">
        <span className="block truncate text-[17px] font-medium">{station.name}</span>
        <span className="block truncate text-quiet">{rig(station)}</span>
      </span>
      <span className="w-64 sm:text-right">
        <span className={`figure text-[20px] ${STANDING_TEXT[verdict.standing]}`}>
          {verdict.figure}
        </span>{' '}
        <span className="text-[12px] text-quiet">{verdict.words}</span>
      </span>
    </Link>
  );
}
