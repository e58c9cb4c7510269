import {
  coverDrawing,
  finderOf,
  layoutOf,
  leastOf,
  mostOf,
  planDrawing,
  type CoverDrawing,
  type Ellipse,
  type Finder,
  type Look,
  type Station,
} from '@gangway/station';
import { cutTo, type Box } from './clip.js';
import type { SheetShape } from './sheet.js';

/** A station’s own drawings, small: what the sensor sees, the circle with the frame, the ground plan. */

type At = readonly [number, number];

/** From a drawing’s own units, y up, into a box on the sheet, y down. */
interface Fit {
  readonly box: Box;
  readonly scale: number;
  readonly to: (x: number, y: number) => At;
}

function fitted(box: Box, left: number, right: number, bottom: number, top: number): Fit {
  const scale = Math.min(box.width / (right - left), box.height / (top - bottom));
  const [cx, cy] = [(left + right) / 2, (bottom + top) / 2];
  return {
    box,
    scale,
    to: (x, y) => [
      box.x + box.width / 2 + (x - cx) * scale,
      box.y + box.height / 2 - (y - cy) * scale,
    ],
  };
}

const STROKES: Record<Look, { strokeMm: number; grey: number; dashMm?: number }> = {
  wall: { strokeMm: 0.22, grey: 0.1 },
  side: { strokeMm: 0.22, grey: 0.1 },
  detail: { strokeMm: 0.14, grey: 0.35 },
  ground: { strokeMm: 0.12, grey: 0.5 },
  level: { strokeMm: 0.18, grey: 0.35, dashMm: 1.2 },
};

const FILLS: Partial<Record<Look, number>> = { wall: 1, side: 0.94, ground: 0.97 };

function rectangle({ x, y, width, height }: Box): At[] {
  return [
    [x, y],
    [x + width, y],
    [x + width, y + height],
    [x, y + height],
  ];
}

const pairs = (points: readonly number[], to: Fit['to']): At[] =>
  Array.from({ length: points.length / 2 }, (_, i) => to(points[2 * i]!, points[2 * i + 1]!));

/** What lies before the sensor, cut to a box. */
function sceneIn({ shapes }: Finder, { box, to }: Fit): SheetShape[] {
  return shapes.flatMap(({ points, look, filled }) =>
    cutTo(box, {
      points: pairs(points, to),
      closed: filled,
      ...STROKES[look],
      ...(filled && FILLS[look] !== undefined ? { fill: FILLS[look] } : {}),
    }),
  );
}

/** Places of the marks, as small crosses. */
function marksIn({ marks }: Finder, { box, to }: Fit): SheetShape[] {
  return marks.flatMap(({ at }) => {
    const [x, y] = to(at.x, at.y);
    const size = 1.1;
    return [
      [
        [x - size, y],
        [x + size, y],
      ],
      [
        [x, y - size],
        [x, y + size],
      ],
    ].flatMap((points) =>
      cutTo(box, { points: points as unknown as At[], strokeMm: 0.3, grey: 0 }),
    );
  });
}

const ROUND = 72;

const ellipsePoints = (
  { centre, semiMajorMm, semiMinorMm, turnDeg }: Ellipse,
  to: Fit['to'],
): At[] =>
  Array.from({ length: ROUND }, (_, i) => {
    const t = (2 * Math.PI * i) / ROUND;
    const [a, b] = [semiMajorMm * Math.cos(t), semiMinorMm * Math.sin(t)];
    const turn = (turnDeg * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    return to(centre.x + a * cos - b * sin, centre.y + a * sin + b * cos);
  });

/**
 * The picture the sensor gets; of a mosaic the whole, with its frames.
 * @param looked the frame that is drawn strong, counted from 0
 */
export function finderPicture(station: Station, box: Box, looked?: number): SheetShape[] {
  const { frame } = coverDrawing(station);
  const finder = finderOf(station);
  const laid = station.mosaic && !station.held_off ? layoutOf(station) : null;
  if (laid && laid.frames.length > 0 && !laid.turn) {
    const corners = laid.frames.flatMap((each) => each.corners);
    const [xs, ys] = [corners.map(({ x }) => x), corners.map(({ y }) => y)];
    const fit = fitted(box, leastOf(xs), mostOf(xs), leastOf(ys), mostOf(ys));
    return [
      ...sceneIn(finder, fit),
      ...laid.frames.map((each, i) => ({
        points: each.corners.map(({ x, y }) => fit.to(x, y)),
        closed: true,
        strokeMm: i === looked ? 1.1 : 0.35,
        grey: looked === undefined || i === looked ? 0 : 0.4,
      })),
      ...marksIn(finder, fit),
    ];
  }
  const { centre, widthMm, heightMm } = frame;
  const fit = fitted(
    box,
    centre.x - widthMm / 2,
    centre.x + widthMm / 2,
    centre.y - heightMm / 2,
    centre.y + heightMm / 2,
  );
  const [x, y] = fit.to(centre.x - widthMm / 2, centre.y + heightMm / 2);
  const kept = { x, y, width: widthMm * fit.scale, height: heightMm * fit.scale };
  return [
    ...sceneIn(finder, { ...fit, box: kept }),
    ...marksIn(finder, { ...fit, box: kept }),
    { points: rectangle(kept), closed: true, strokeMm: 0.4, grey: 0 },
  ];
}

const reach = ({ circle, frame, open }: CoverDrawing): number =>
  Math.max(
    circle ? Math.abs(circle.centre.x) + circle.semiMajorMm : 0,
    circle ? Math.abs(circle.centre.y) + circle.semiMajorMm : 0,
    open ? 2 * Math.hypot(frame.widthMm, frame.heightMm) : 0,
    Math.abs(frame.centre.x) + frame.widthMm / 2,
    Math.abs(frame.centre.y) + frame.heightMm / 2,
  ) * 1.04;

/** The circle on the glass, its core, the frame in it, and what the frame holds. */
export function circlePicture(station: Station, box: Box): SheetShape[] {
  const drawing = coverDrawing(station);
  const { circle, core, frame } = drawing;
  const most = reach(drawing);
  const fit = fitted(box, -most, most, -most, most);
  const { to, scale } = fit;
  const laid = station.mosaic && !station.held_off ? layoutOf(station) : null;
  const { centre, widthMm, heightMm } = frame;
  const [x, y] = to(centre.x - widthMm / 2, centre.y + heightMm / 2);
  const kept = { x, y, width: widthMm * scale, height: heightMm * scale };
  const inside = laid
    ? []
    : sceneIn(finderOf(station), { ...fit, box: kept }).flatMap((each) => cutTo(box, each));
  return [
    ...(circle
      ? cutTo(box, {
          points: ellipsePoints(circle, to),
          closed: true,
          strokeMm: 0.3,
          grey: 0,
          fill: 0.98,
        })
      : []),
    ...(core
      ? cutTo(box, {
          points: ellipsePoints(core, to),
          closed: true,
          strokeMm: 0.18,
          grey: 0.4,
          dashMm: 0.8,
        })
      : []),
    ...inside,
    ...(laid && !laid.turn
      ? laid.frames.flatMap((each) =>
          cutTo(box, {
            points: each.corners.map((at) => to(at.x, at.y)),
            closed: true,
            strokeMm: 0.3,
            grey: 0,
          }),
        )
      : cutTo(box, { points: rectangle(kept), closed: true, strokeMm: 0.4, grey: 0 })),
  ];
}

/** The site from above, the tripod at the foot, and what the frame takes in. */
export function planPicture(station: Station, box: Box): SheetShape[] {
  const { bounds, rays, boxes } = planDrawing(station);
  const { facade, site } = station;
  const fit = fitted(box, bounds.left, bounds.right, bounds.bottom, bounds.top);
  const { to } = fit;
  const line = (points: At[], look: Partial<SheetShape>): SheetShape[] =>
    cutTo(box, { points, strokeMm: 0.2, ...look });
  const room = site?.room;
  const shapes: SheetShape[] = [
    ...rays.flatMap(({ x, y }) => line([to(0, 0), to(x, y)], { grey: 0.3, dashMm: 0.9 })),
    ...(room
      ? line(
          [
            to(-room.left_m, -room.behind_m),
            to(room.width_m - room.left_m, -room.behind_m),
            to(room.width_m - room.left_m, room.length_m - room.behind_m),
            to(-room.left_m, room.length_m - room.behind_m),
          ],
          { closed: true, strokeMm: 0.35 },
        )
      : []),
    ...boxes.flatMap(({ corners }) =>
      line(
        corners.map(({ x, y }) => to(x, y)),
        { closed: true, fill: 0.93 },
      ),
    ),
    ...(facade
      ? line(
          [
            to((facade.x_m ?? 0) - facade.width_m / 2, facade.distance_m),
            to((facade.x_m ?? 0) + facade.width_m / 2, facade.distance_m),
          ],
          { strokeMm: 0.7 },
        )
      : []),
    ...(station.marks ?? []).flatMap(({ x_m: x, z_m: z, infinite }) => {
      if (infinite) return [];
      const [px, py] = to(x, z);
      return cutTo(box, {
        points: [
          [px - 0.7, py],
          [px, py - 0.7],
          [px + 0.7, py],
          [px, py + 0.7],
        ],
        closed: true,
        strokeMm: 0.2,
        fill: 0,
      });
    }),
  ];
  const [tx, ty] = to(0, 0);
  // The tripod, larger than to scale: it is what is looked for.
  const tripod = cutTo(box, {
    points: [
      [tx - 1.6, ty + 1.4],
      [tx, ty - 1.8],
      [tx + 1.6, ty + 1.4],
    ],
    closed: true,
    strokeMm: 0.2,
    fill: 0,
  });
  return [...shapes, ...tripod];
}
