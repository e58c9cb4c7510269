import { useDeferredValue, useMemo } from 'react';
import type { Logged, Station } from '@gangway/station';
import { counted } from '../ui/counted.js';
import { wallS } from './now.js';
import { AXIS_WIDTH, daysSaid, MarkLines, MarkWords, timeAxis } from './time-axis.js';

/** When each station was exposed: a lane for each, along the time of the day. */

const [LANE, FOOT] = [24, 18] as const;
/** More lanes nobody tells apart. */
const MOST_LANES = 8;
const LABELS = 8;

interface Lane {
  readonly id: string | undefined;
  readonly name: string;
  readonly lines: readonly Logged[];
}

function lanesOf(lines: readonly Logged[], stations: ReadonlyMap<string, Station>): Lane[] {
  const byStation = new Map<string | undefined, Logged[]>();
  for (const line of lines) {
    const own = byStation.get(line.station);
    if (own) own.push(line);
    else byStation.set(line.station, [line]);
  }
  const lanes = [...byStation].map(([id, own]) => ({
    id,
    name: (id && stations.get(id)?.name) || 'No station',
    lines: own,
  }));
  if (lanes.length <= MOST_LANES) return lanes;
  const [shown, rest] = [lanes.slice(0, MOST_LANES - 1), lanes.slice(MOST_LANES - 1)];
  return [...shown, { id: undefined, name: `${rest.length} more`, lines: rest.flatMap((each) => each.lines) }]; // prettier-ignore
}

export function DayStrip({
  lines: given,
  stations,
  chosen,
  onChoose,
}: {
  lines: readonly Logged[];
  stations: ReadonlyMap<string, Station>;
  chosen: string | null;
  onChoose: (station: string | null) => void;
}) {
  // The table answers first; the drawing follows.
  const lines = useDeferredValue(given);
  const drawn = useMemo(() => {
    const axis = timeAxis(
      lines.map(({ at }) => wallS(at)),
      LABELS,
    );
    if (!axis) return null;
    const { xOf } = axis;
    const lanes = lanesOf(lines, stations).map((lane) => ({
      ...lane,
      kept: ticksOf(
        lane.lines.filter(({ kept }) => kept !== false),
        xOf,
      ),
      spoilt: ticksOf(
        lane.lines.filter(({ kept }) => kept === false),
        xOf,
      ),
    }));
    return { lanes, axis };
  }, [lines, stations]);
  if (!drawn) return null;
  const height = drawn.lanes.length * LANE + FOOT;
  return (
    <div
      className="flex border-b border-rule bg-stage"
      role="group"
      aria-label="The day, station by station"
    >
      <div className="w-56 shrink-0 max-sm:w-36">
        <ul>
          {drawn.lanes.map(({ id, name, lines: own }) => (
            <li
              key={`${id} ${name}`}
              style={{ height: LANE }}
              className="px-2 text-[13px] leading-6"
            >
              <button
                type="button"
                disabled={id === undefined}
                aria-pressed={id !== undefined && chosen === id}
                onClick={() => onChoose(chosen === id ? null : (id ?? null))}
                className={`flex w-full justify-between gap-2 text-left ${chosen !== null && chosen === id ? 'font-semibold underline underline-offset-2' : chosen === null ? '' : 'text-quiet'}`}
              >
                <span className="truncate">{name}</span>
                <span className="figure shrink-0 text-quiet">{own.length}</span>
              </button>
            </li>
          ))}
        </ul>
        <p style={{ height: FOOT }} className="figure truncate px-2 text-[12px] text-quiet">
          {daysSaid(drawn.axis)}
        </p>
      </div>
      <div className="relative min-w-0 flex-1" style={{ height }}>
        <svg
          viewBox={`0 0 ${AXIS_WIDTH} ${height}`}
          preserveAspectRatio="none"
          className="absolute inset-0 size-full"
          role="img"
          aria-label={drawn.lanes
            .map(
              ({ name, lines: own }) =>
                `${name}: ${counted(own.length, 'exposure')} from ${own[0]!.at.slice(11, 16)} to ${own.at(-1)!.at.slice(11, 16)}`,
            )
            .join('; ')}
        >
          <MarkLines axis={drawn.axis} height={height - FOOT} />
          {drawn.lanes.map(({ id, name, kept, spoilt }, i) => (
            <g
              key={`${id} ${name}`}
              transform={`translate(0 ${i * LANE})`}
              opacity={chosen === null || chosen === id ? 1 : 0.35}
            >
              <path
                d={`M0 ${LANE - 2}H${AXIS_WIDTH}`}
                stroke="var(--rule)"
                vectorEffect="non-scaling-stroke"
              />
              <path
                d={kept}
                stroke="var(--ink)"
                strokeWidth={2}
                vectorEffect="non-scaling-stroke"
              />
              <path
                d={spoilt}
                stroke="var(--outside)"
                strokeWidth={2}
                strokeDasharray="2 2"
                vectorEffect="non-scaling-stroke"
              />
            </g>
          ))}
        </svg>
        <MarkWords axis={drawn.axis} />
      </div>
    </div>
  );
}

/** Ticks as one path: as many as can be told apart. */
function ticksOf(lines: readonly Logged[], xOf: (seconds: number) => number): string {
  const places = new Set(lines.map((line) => Math.round(xOf(wallS(line.at)) * 2) / 2));
  return [...places].map((x) => `M${x} 4V${LANE - 3}`).join('');
}
