import {
  distance,
  elevationDrawing,
  fixed,
  followed,
  raised,
  withBox,
  withFacade,
  withSite,
  type Station,
  type Units,
} from '@gangway/station';
import { selectReport } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { useStation } from '../fields/fields.js';
import { MarkHandle } from '../drawing/mark-handle.js';
import { SiteDrawing } from './site-drawing.js';
import { Handle } from '../drawing/handle.js';
import { cm } from '../drawing/site-sheet.js';
import type { Sheet } from '../drawing/sheet.js';

/** The site from the side, to scale, the camera on the left. */
export function ElevationView() {
  const station = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const drawing = elevationDrawing(station);
  const { facade, site, marks, camera } = station;
  const eye = { x: 0, y: camera.height_m };
  return (
    <SiteDrawing
      label="The site from the side"
      {...drawing}
      eye={eye}
      under={(sheet, width) => <Ground station={station} sheet={sheet} width={width} />}
    >
      {(sheet, shared, width) => {
        const [x0, y0] = [sheet.x(eye.x), sheet.y(eye.y)];
        return (
          <>
            {drawing.boxes.map(({ name, from, to, base, top }, i) => (
              <Handle
                key={i}
                {...shared}
                label={`${name || `Box ${i + 1}`}, from the side`}
                value={base}
                valueText={`stands ${fixed(base, 2)} m high`}
                write={(start, dx, dy) => {
                  const each = start.site!.boxes![i]!;
                  return withBox(start, i, {
                    z_m: cm(each.z_m + dx),
                    ...(dy === 0 && each.base_m === undefined
                      ? {}
                      : { base_m: cm((each.base_m ?? 0) + dy) }),
                  });
                }}
              >
                <rect
                  x={sheet.x(from)}
                  y={sheet.y(top)}
                  width={(to - from) * sheet.scaleX}
                  height={(top - base) * sheet.scaleX}
                  className="fill-paper stroke-ink"
                  strokeWidth={1.25}
                />
              </Handle>
            ))}
            {(site?.levels ?? []).map((level, i) => (
              <Handle
                key={`l${i}`}
                {...shared}
                label={level.name || `Level line ${i + 1}`}
                value={level.height_m}
                valueText={distance(level.height_m, units)}
                write={(from, _, dy) =>
                  withSite(from, {
                    levels: from.site!.levels!.map((each, j) =>
                      i === j ? { ...each, height_m: cm(each.height_m + dy) } : each,
                    ),
                  })
                }
              >
                <path
                  d={`M${x0},${sheet.y(level.height_m)}H${width}`}
                  stroke="transparent"
                  strokeWidth={16}
                />
                <path
                  d={`M${x0},${sheet.y(level.height_m)}H${width}`}
                  className="stroke-within"
                  strokeDasharray="7 3"
                  strokeWidth={1.5}
                />
              </Handle>
            ))}
            {facade && (
              <FacadeSide
                station={station}
                sheet={sheet}
                units={units}
                seen={drawing.seen}
                {...shared}
              />
            )}
            {(marks ?? []).map((mark, i) => (
              <MarkHandle
                key={`m${i}`}
                {...shared}
                mark={mark}
                index={i}
                upward="y_m"
                across="z_m"
                x={sheet.x(mark.z_m)}
                y={sheet.y(mark.y_m)}
                valueText={`${distance(mark.y_m, units)} high`}
              />
            ))}
            <Handle
              {...shared}
              label="Camera, from the side"
              value={camera.height_m}
              valueText={`${distance(camera.height_m, units)} high`}
              write={(from, _, dy) => followed(raised(from, cm(dy)) ?? from)}
            >
              <circle cx={x0} cy={y0} r={22} fill="transparent" />
              <path
                d={`M${x0},${y0 + 6}L${x0 - 7},${sheet.y(0)}M${x0},${y0 + 6}L${x0 + 7},${sheet.y(0)}`}
                className="stroke-ink"
                strokeWidth={1.5}
              />
              <g transform={`translate(${x0} ${y0}) rotate(${-camera.pitch_deg})`}>
                <rect x={-7} y={-7} width={14} height={14} className="fill-ink" />
                <rect x={7} y={-4} width={7} height={8} className="fill-ink" />
              </g>
            </Handle>
            <text x={x0 + 18} y={sheet.y(0) - 5} className="halo figure text-quiet">
              {distance(camera.height_m, units)} high
            </text>
          </>
        );
      }}
    </SiteDrawing>
  );
}

function Ground({ station, sheet, width }: { station: Station; sheet: Sheet; width: number }) {
  const room = station.site?.room;
  return (
    <>
      <line
        x1={0}
        x2={width}
        y1={sheet.y(0)}
        y2={sheet.y(0)}
        className="stroke-rule-strong"
        strokeWidth={1.5}
      />
      {room && (
        <rect
          x={sheet.x(-room.behind_m)}
          y={sheet.y(room.ceiling_m)}
          width={room.length_m * sheet.scaleX}
          height={room.ceiling_m * sheet.scaleX}
          className="fill-glass stroke-ink"
          strokeWidth={2.5}
        />
      )}
    </>
  );
}

function FacadeSide({
  station,
  sheet,
  units,
  seen,
  ...shared
}: {
  station: Station;
  sheet: Sheet;
  units: Units;
  seen: readonly [number, number] | null;
  scale: number;
  onHold: (held: boolean) => void;
}) {
  const { top_m, base_m, distance_m, headroom_m = 0, footroom_m = 0 } = station.facade!;
  const report = useAppSelector(selectReport).facade;
  const x = sheet.x(distance_m);
  const base = base_m ?? 0;
  const tone = report?.framed ? 'text-within' : 'text-costs';
  return (
    <>
      <rect
        x={x}
        y={sheet.y(top_m)}
        width={Math.max(6, 0.02 * distance_m * sheet.scaleX)}
        height={(top_m - base) * sheet.scaleX}
        className="fill-ink"
      />
      {seen && (
        <g className={tone} aria-hidden>
          <line
            x1={x - 6}
            x2={x - 6}
            y1={sheet.y(seen[0])}
            y2={sheet.y(seen[1])}
            stroke="currentColor"
            strokeWidth={4}
          />
          <text x={x - 14} y={sheet.y(seen[1]) + 4} textAnchor="end" className="halo figure">
            {distance(seen[1], units)}
          </text>
        </g>
      )}
      {headroom_m + footroom_m > 0 && (
        <path
          d={`M${x},${sheet.y(top_m + headroom_m)}h10M${x},${sheet.y(base - footroom_m)}h10`}
          className="stroke-quiet"
          strokeDasharray="3 3"
        />
      )}
      <Handle
        {...shared}
        label="Top of the façade"
        value={top_m}
        valueText={distance(top_m, units)}
        write={(from, _, dy) => withFacade(from, { top_m: cm(from.facade!.top_m + dy) })}
      >
        <circle cx={x + 4} cy={sheet.y(top_m)} r={16} fill="transparent" />
        <circle
          cx={x + 4}
          cy={sheet.y(top_m)}
          r={6}
          className="fill-paper stroke-ink"
          strokeWidth={2.5}
        />
      </Handle>
      <text x={x - 14} y={sheet.y(top_m) - 8} textAnchor="end" className="halo">
        top {distance(top_m, units)}
      </text>
      {base_m !== undefined && (
        <Handle
          {...shared}
          label="Foot of the façade"
          value={base_m}
          valueText={distance(base_m, units)}
          write={(from, _, dy) => withFacade(from, { base_m: cm((from.facade!.base_m ?? 0) + dy) })}
        >
          <circle cx={x + 4} cy={sheet.y(base_m)} r={16} fill="transparent" />
          <circle
            cx={x + 4}
            cy={sheet.y(base_m)}
            r={6}
            className="fill-paper stroke-ink"
            strokeWidth={2.5}
          />
        </Handle>
      )}
    </>
  );
}
