import { useVirtualizer } from '@tanstack/react-virtual';
import { circlePicture, finderPicture, type SheetShape } from '@gangway/paper';
import { useDeferredValue, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import {
  faultSentence,
  framesAsked,
  fixed,
  fStop,
  keptName,
  keptStation,
  STATUSES,
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
  useSetStatusMutation,
  useStationsQuery,
} from '../records/api.js';
import type { StoredStation } from '../records/shapes.js';
import { ShapesView } from '../drawing/shapes-view.js';
import { BrokenLine, Line } from '../ui/boundary.js';
import { RowMenu, type MenuItem } from '../ui/row-menu.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { useRested } from '../ui/use-paced.js';
import { useTries } from '../records/use-tries.js';
import { WaitingLine } from '../pages/waiting-line.js';
import { documentItems } from '../pages/document-items.js';
import { useArchiving, useTold } from '../pages/list-page.js';
import { Grip, ROW_PX, usePlacing } from './placing.js';

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
  const place = usePlacing({ ...which, total });
  return (
    <div ref={box} className="min-h-40 flex-1 overflow-y-auto border-t border-rule pb-4">
      {Array.from({ length: to - from + 1 }, (_, i) => (
        <Fetched key={from + i} page={from + i} {...which} />
      ))}
      <p role="status" className="sr-only">
        {place.said}
      </p>
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
            {!which.archived && (
              <Grip
                index={index}
                total={total}
                top={() => box.current?.querySelector('ul')?.getBoundingClientRect().top ?? 0}
                focused={place.focused === index}
                onMove={place.move}
              />
            )}
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
        <StationLine stored={stored} number={index + 1} />
      </Line>
      <WaitingLine kind="station" id={stored.id} />
      {!stored.archived && <StatusChoice stored={stored} name={name} />}
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

const STATUS_TONE = {
  planned: 'text-quiet',
  ready: 'text-within',
  shot: 'text-ink',
  again: 'text-costs',
} as const;

/** How far a station has come. */
function StatusChoice({ stored, name }: { stored: StoredStation; name: string }) {
  const [setStatus] = useSetStatusMutation();
  const told = useTold();
  return (
    <select
      aria-label={`Status of ${name}`}
      value={stored.status}
      onChange={(event) =>
        void told(
          setStatus({ id: stored.id, status: event.target.value as StoredStation['status'] }),
        )
      }
      className={`min-h-11 shrink-0 bg-transparent font-medium ${STATUS_TONE[stored.status]}`}
    >
      {STATUSES.map((status) => (
        <option key={status} className="bg-paper text-ink">
          {status}
        </option>
      ))}
    </select>
  );
}

const PICTURE = { x: 0, y: 0, width: 66, height: 42 };

/** More frames than this are no drawing at this size, and a list has hundreds of lines. */
const MOST_DRAWN = 100;

const pictureOf = (station: Station): readonly SheetShape[] =>
  station.held_off || station.mosaic
    ? finderPicture(station, PICTURE)
    : circlePicture(station, PICTURE);

/** What may come after a line’s name and verdict, so that a list that is scrolled does not wait for it. */
const useLater = (station: Station): Station | null =>
  useDeferredValue<Station | null>(station, null);

/** A station’s own small drawing: its circle with the frame in it, or the frames laid out. */
function Thumb({ station }: { station: Station }) {
  const drawn = useLater(station);
  const count = station.mosaic ? framesAsked(station.mosaic) : 1;
  const shapes = useMemo(
    () => (drawn && count <= MOST_DRAWN ? pictureOf(drawn) : []),
    [drawn, count],
  );
  if (count > MOST_DRAWN) {
    return (
      <span className="flex h-[60px] w-[94px] shrink-0 flex-col items-center justify-center bg-stage text-[12px] text-quiet max-sm:h-11 max-sm:w-[70px]">
        <span className="figure text-[16px]">{count}</span> frames
      </span>
    );
  }
  return (
    <ShapesView
      shapes={shapes}
      width={PICTURE.width}
      height={PICTURE.height}
      className="h-[60px] w-[94px] shrink-0 bg-stage max-sm:h-11 max-sm:w-[70px]"
    />
  );
}

function StationLine({ stored, number }: { stored: StoredStation; number: number }) {
  const kept = useMemo(() => keptStation(stored.document), [stored.document]);
  const to = `/jobs/${stored.jobId}/stations/${stored.id}/cover`;
  const { digest } = stored;
  if (kept.kind === 'broken') {
    const why = kept.faults[0]
      ? faultSentence(kept.faults[0])
      : 'Nothing can be worked out from it.';
    return (
      <Link to={to} className="flex min-w-0 flex-1">
        <BrokenLine name={keptName(stored.document)} why={why} />
      </Link>
    );
  }
  const { station } = kept;
  return (
    <Link to={to} className="flex min-w-0 flex-1 items-center gap-x-4 py-2 pr-2">
      <Thumb station={station} />
      <span className="flex min-w-0 flex-1 flex-wrap items-center gap-x-6">
        <span className="min-w-0 flex-1 basis-56">
          <span className="block truncate text-[17px] font-medium">
            <span aria-hidden className="figure mr-2 text-quiet">
              {number}
            </span>
            {station.name}
          </span>
          <span className="block truncate text-quiet">{rig(station)}</span>
        </span>
        <span className="w-72 min-w-0 sm:text-right">
          {digest ? (
            <>
              <span className={`figure text-[20px] ${STANDING_TEXT[digest.standing]}`}>
                {digest.figure}
              </span>{' '}
              <span className="text-[12px] text-quiet">{digest.words}</span>
              <span className="block min-h-[18px] truncate text-[12px] text-quiet max-sm:hidden">
                {digest.rest}
              </span>
            </>
          ) : (
            <span className="text-[12px] text-quiet">Open it to see how it stands</span>
          )}
        </span>
      </span>
    </Link>
  );
}
