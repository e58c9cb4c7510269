import {
  distance,
  followed,
  movedBox,
  planDrawing,
  stepped,
  withFacade,
  type Station,
  type Units,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { useStation } from '../fields/fields.js';
import { MarkHandle } from '../drawing/mark-handle.js';
import { SiteDrawing } from './site-drawing.js';
import { Handle } from '../drawing/handle.js';
import { cm, tenthMm } from '../drawing/site-sheet.js';
import type { Sheet } from '../drawing/sheet.js';

/** The site from above, to scale, the camera looking up the sheet. */
export function PlanView() {
  const station = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const drawing = planDrawing(station);
  const { facade, site, marks } = station;
  return (
    <SiteDrawing
      label="Plan of the site"
      {...drawing}
      eye={CAMERA}
      under={(sheet) => site?.room && <RoomPlan station={station} sheet={sheet} />}
    >
      {(sheet, shared) => (
        <>
          {drawing.boxes.map(({ name, corners }, i) => {
            const each = site!.boxes![i]!;
            return (
              <Handle
                key={i}
                {...shared}
                label={name || `Box ${i + 1}`}
                value={each.z_m}
                valueText={`${distance(each.z_m, units)} ahead, ${aside(each.x_m, units)}`}
                write={(from, dx, dy) => {
                  const start = from.site!.boxes![i]!;
                  return movedBox(from, i, cm(start.x_m + dx), cm(start.z_m + dy));
                }}
              >
                <polygon
                  points={corners.map(sheet.at).join(' ')}
                  className="fill-paper stroke-ink"
                  strokeWidth={1.25}
                />
                <text
                  x={sheet.x(each.x_m)}
                  y={sheet.y(each.z_m) + 4}
                  textAnchor="middle"
                  className="halo text-[11px]"
                >
                  {sheet.scaleX * each.width_m > 7 * name.length ? name : ''}
                </text>
              </Handle>
            );
          })}
          {facade && <FacadePlan station={station} sheet={sheet} units={units} {...shared} />}
          {drawing.seen && (
            <line
              x1={sheet.x(drawing.seen[0].x)}
              x2={sheet.x(drawing.seen[1].x)}
              y1={sheet.y(drawing.seen[0].y) + 7}
              y2={sheet.y(drawing.seen[0].y) + 7}
              className="stroke-within"
              strokeWidth={4}
            />
          )}
          {(marks ?? []).map((mark, i) => (
            <MarkHandle
              key={`m${i}`}
              {...shared}
              mark={mark}
              index={i}
              upward="z_m"
              across="x_m"
              x={sheet.x(mark.x_m)}
              y={sheet.y(mark.z_m)}
              valueText={`${distance(mark.z_m, units)} ahead, ${aside(mark.x_m, units)}`}
            />
          ))}
          <Handle
            {...shared}
            label="Camera, from above"
            value={facade?.distance_m ?? 0}
            valueText={
              facade ? `${distance(facade.distance_m, units)} from the façade` : 'at the origin'
            }
            write={(from, dx, dy) => stepped(movedAside(from, dx), -dy) ?? from}
          >
            <circle cx={sheet.x(0)} cy={sheet.y(0)} r={22} fill="transparent" />
            <g
              transform={`translate(${sheet.x(0)} ${sheet.y(0)}) rotate(${station.camera.yaw_deg})`}
            >
              <rect x={-9} y={-7} width={18} height={14} className="fill-ink" />
              <rect x={-5} y={-13} width={10} height={6} className="fill-ink" />
            </g>
          </Handle>
        </>
      )}
    </SiteDrawing>
  );
}

/** A plan is drawn round the camera. */
const CAMERA = { x: 0, y: 0 };

const aside = (x: number, units: Units): string =>
  Math.abs(x) < 0.005
    ? 'straight ahead'
    : `${distance(Math.abs(x), units)} to the ${x < 0 ? 'left' : 'right'}`;

/** The camera taken aside: everything else goes the other way. */
function movedAside(station: Station, dx: number): Station {
  const { facade, site, marks } = station;
  const room = site?.room;
  return followed({
    ...station,
    ...(facade ? { facade: { ...facade, x_m: cm((facade.x_m ?? 0) - dx) } } : {}),
    ...(site
      ? {
          site: {
            ...site,
            ...(room ? { room: { ...room, left_m: cm(room.left_m + dx) } } : {}),
            ...(site.boxes
              ? { boxes: site.boxes.map((box) => ({ ...box, x_m: cm(box.x_m - dx) })) }
              : {}),
          },
        }
      : {}),
    ...(marks ? { marks: marks.map((mark) => ({ ...mark, x_m: tenthMm(mark.x_m - dx) })) } : {}),
  });
}

function RoomPlan({ station, sheet }: { station: Station; sheet: Sheet }) {
  const room = station.site!.room!;
  const [x, y] = [sheet.x(-room.left_m), sheet.y(room.length_m - room.behind_m)];
  return (
    <rect
      x={x}
      y={y}
      width={room.width_m * sheet.scaleX}
      height={room.length_m * sheet.scaleX}
      className="fill-glass stroke-ink"
      strokeWidth={2.5}
    />
  );
}

function FacadePlan({
  station,
  sheet,
  units,
  ...shared
}: {
  station: Station;
  sheet: Sheet;
  units: Units;
  scale: number;
  onHold: (held: boolean) => void;
}) {
  const facade = station.facade!;
  const x = facade.x_m ?? 0;
  const [left, right] = [sheet.x(x - facade.width_m / 2), sheet.x(x + facade.width_m / 2)];
  const y = sheet.y(facade.distance_m);
  const line = sheet.x(x) + Math.min(60, (right - left) / 3);
  return (
    <>
      <g className="text-quiet" aria-hidden>
        <path
          d={`M${line},${sheet.y(0)}V${y + 10}m-4,0h8M${line - 4},${sheet.y(0)}h8`}
          fill="none"
          stroke="currentColor"
        />
        <text x={line + 6} y={(sheet.y(0) + y) / 2} className="halo figure">
          {distance(facade.distance_m, units)}
        </text>
      </g>
      <Handle
        {...shared}
        label="Façade, from above"
        value={facade.distance_m}
        valueText={`${distance(facade.distance_m, units)} away, ${aside(x, units)}`}
        write={(from, dx, dy) =>
          withFacade(from, {
            distance_m: cm(from.facade!.distance_m + dy),
            ...(cm((from.facade!.x_m ?? 0) + dx) === (from.facade!.x_m ?? 0)
              ? {}
              : { x_m: cm((from.facade!.x_m ?? 0) + dx) }),
          })
        }
      >
        <rect x={left} y={y - 20} width={right - left} height={28} fill="transparent" />
        <rect x={left} y={y - 8} width={right - left} height={9} className="fill-ink" />
        <text x={(left + right) / 2} y={y - 13} textAnchor="middle" className="halo">
          Façade, {distance(facade.width_m, units)} wide
        </text>
      </Handle>
    </>
  );
}
