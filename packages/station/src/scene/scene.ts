import type { Box, Facade, Mark, Room, Site } from '../document/station.js';
import { turnedBox } from '../document/turned-box.js';
import { leastOf } from '@gangway/optics';

/** A place in the station frame, m: x right, y up, z level ahead. */
type Place = readonly [number, number, number];

/** How a thing is drawn. */
export type Look = 'ground' | 'wall' | 'side' | 'detail' | 'level';

/** A flat thing of the scene: filled when it is a face, a line when not. */
export interface Shape {
  readonly places: readonly Place[];
  readonly look: Look;
  readonly filled: boolean;
}

/** What of a station the scene goes by. */
export interface Sited {
  readonly facade?: Facade | undefined;
  readonly site?: Site | undefined;
  readonly camera: { readonly height_m: number };
  /** Where nothing else stands in front, they are drawn on a ground before a backdrop. */
  readonly marks?: readonly Mark[] | undefined;
}

/** Shapes in the order they are painted: what is nearer covers what is farther. */
export function sceneOf(station: Sited): Shape[] {
  const { facade, site, camera } = station;
  const shapes: Shape[] = [];
  if (site?.room) shapes.push(...roomShapes(site.room));
  else if (facade || site?.boxes?.length) shapes.push(...groundLines(station));
  else shapes.push(...bareShapes(station.marks ?? []));
  if (facade) shapes.push(...facadeShapes(facade));
  const boxes = [...(site?.boxes ?? [])].sort(
    (a, b) => Math.hypot(b.x_m, b.z_m) - Math.hypot(a.x_m, a.z_m),
  );
  for (const box of boxes) shapes.push(...boxShapes(box, camera.height_m));
  for (const each of levelShapes(station)) shapes.push(each);
  return shapes;
}

/** Whether nothing stands in front but what is marked. */
export const isBare = ({ facade, site }: Sited): boolean =>
  !site?.room && !facade && !site?.boxes?.length;

/** Nearer than this marks lie on a table, farther on the ground, m. */
const TABLE_M = 3;
/** Where nothing is marked the backdrop stands so far off, m. */
const BACKDROP_M = 20;

/** What marks alone stand on and before: nobody gave it, it only says which way is up and how far. */
function bareShapes(marks: readonly Mark[]): Shape[] {
  const near = marks.filter(({ infinite, z_m }) => !infinite && z_m > 0);
  const reach = Math.max(0, ...near.map(({ z_m }) => z_m));
  const far = reach === 0 ? BACKDROP_M : 1.5 * reach;
  const ground = reach > 0 && reach < TABLE_M ? leastOf(near.map(({ y_m }) => y_m)) : 0;
  const half = 2 * far;
  const lines = 16;
  return [
    face(upright(-half, half, ground, ground + 2 * far, far), 'side'),
    ...Array.from({ length: lines + 1 }, (_, i) => {
      const x = half * (-1 + (2 * i) / lines);
      return line(
        [
          [x, ground, 0.02 * far],
          [x, ground, far],
        ],
        'ground',
      );
    }),
    ...[0.2, 0.4, 0.6, 0.8, 1].map((share) =>
      line(
        [
          [-half, ground, share * far],
          [half, ground, share * far],
        ],
        'ground',
      ),
    ),
    ...near
      .filter(({ y_m }) => y_m > ground)
      .map(({ x_m, y_m, z_m }) =>
        line(
          [
            [x_m, ground, z_m],
            [x_m, y_m, z_m],
          ],
          'detail',
        ),
      ),
  ];
}

const line = (places: readonly Place[], look: Look): Shape => ({ places, look, filled: false });
const face = (places: readonly Place[], look: Look): Shape => ({ places, look, filled: true });

/** Upright rectangle across the view. */
const upright = (left: number, right: number, low: number, high: number, z: number): Place[] => [
  [left, low, z],
  [right, low, z],
  [right, high, z],
  [left, high, z],
];

const STOREY_M = 4.2;
const BAY_M = 2.9;
const MOST_BAYS = 24;
const MOST_STOREYS = 40;

/** A schematic front: storeys of windows, a door, a cornice. It stands for size, not for style. */
function facadeShapes({ width_m: width, top_m: top, base_m, distance_m: z, x_m }: Facade): Shape[] {
  const base = base_m ?? Math.min(0, top);
  const [left, right] = [(x_m ?? 0) - width / 2, (x_m ?? 0) + width / 2];
  const height = top - base;
  const shapes = [face(upright(left, right, base, top, z), 'wall')];
  const storeys = Math.max(1, Math.min(MOST_STOREYS, Math.round(height / STOREY_M)));
  const bays = Math.max(1, Math.min(MOST_BAYS, Math.round(width / BAY_M)));
  const [bay, storey] = [width / bays, (0.93 * height) / storeys];
  for (let row = 0; row < storeys; row++) {
    for (let column = 0; column < bays; column++) {
      const x = left + (column + 0.5) * bay;
      const y = base + row * storey;
      const door = row === 0 && column === Math.floor(bays / 2);
      shapes.push(
        line(
          closed(
            door
              ? upright(x - 0.24 * bay, x + 0.24 * bay, y, y + 0.72 * storey, z)
              : upright(x - 0.2 * bay, x + 0.2 * bay, y + 0.26 * storey, y + 0.76 * storey, z),
          ),
          'detail',
        ),
      );
    }
  }
  shapes.push(
    line(
      [
        [left, base + 0.93 * height, z],
        [right, base + 0.93 * height, z],
      ],
      'detail',
    ),
  );
  return shapes;
}

const closed = (places: Place[]): Place[] => [...places, places[0]!];

/** Level ground: lines towards the horizon and across, about the things that stand on it. */
function groundLines({ facade, site }: Sited): Shape[] {
  const far = Math.max(
    10,
    facade?.distance_m ?? 0,
    ...(site?.boxes ?? []).map((box) => box.z_m + box.depth_m),
  );
  const half = Math.max(far, (facade?.width_m ?? 0) * 0.75);
  const lines = 8;
  return Array.from({ length: lines + 1 }, (_, i) => {
    const x = half * (-1 + (2 * i) / lines);
    return line(
      [
        [x, 0, 0.02 * far],
        [x, 0, far],
      ],
      'ground',
    );
  }).concat(
    [0.25, 0.5, 1].map((share) =>
      line(
        [
          [-half, 0, share * far],
          [half, 0, share * far],
        ],
        'ground',
      ),
    ),
  );
}

/** About this many lines along a side of a floor. */
const FLOOR_LINES = 12;

function roomShapes(room: Room): Shape[] {
  const { length_m: length, width_m: width, ceiling_m: ceiling, coffers } = room;
  const [left, near] = [-room.left_m, -room.behind_m];
  const [right, far] = [left + width, near + length];
  const shapes: Shape[] = [
    face(
      [
        [left, 0, near],
        [left, 0, far],
        [left, ceiling, far],
        [left, ceiling, near],
      ],
      'side',
    ),
    face(
      [
        [right, 0, near],
        [right, 0, far],
        [right, ceiling, far],
        [right, ceiling, near],
      ],
      'side',
    ),
    face(upright(left, right, 0, ceiling, far), 'wall'),
    face(
      [
        [left, 0, near],
        [right, 0, near],
        [right, 0, far],
        [left, 0, far],
      ],
      'ground',
    ),
    face(
      [
        [left, ceiling, near],
        [right, ceiling, near],
        [right, ceiling, far],
        [left, ceiling, far],
      ],
      'ground',
    ),
  ];
  const grid = (y: number, across: number, along: number, look: Look): void => {
    for (let i = 1; i < across; i++) {
      const x = left + (width * i) / across;
      shapes.push(
        line(
          [
            [x, y, near],
            [x, y, far],
          ],
          look,
        ),
      );
    }
    for (let i = 1; i < along; i++) {
      const z = near + (length * i) / along;
      shapes.push(
        line(
          [
            [left, y, z],
            [right, y, z],
          ],
          look,
        ),
      );
    }
  };
  const tile = Math.max(width, length) / FLOOR_LINES;
  grid(0, Math.max(1, Math.round(width / tile)), Math.max(1, Math.round(length / tile)), 'ground');
  if (coffers) {
    grid(ceiling, coffers[0], coffers[1], 'detail');
    for (const each of cofferPanels(room, coffers)) shapes.push(each);
  }
  return shapes;
}

/** The sunk middle of each panel, so that a coffered ceiling is seen for one. */
function cofferPanels(room: Room, [across, along]: readonly [number, number]): Shape[] {
  const { length_m: length, width_m: width, ceiling_m: y } = room;
  const [left, near] = [-room.left_m, -room.behind_m];
  const [w, l] = [width / across, length / along];
  const panels: Shape[] = [];
  for (let i = 0; i < across; i++) {
    for (let j = 0; j < along; j++) {
      const [x0, z0] = [left + (i + 0.2) * w, near + (j + 0.2) * l];
      const [x1, z1] = [x0 + 0.6 * w, z0 + 0.6 * l];
      panels.push(
        line(
          closed([
            [x0, y, z0],
            [x1, y, z0],
            [x1, y, z1],
            [x0, y, z1],
          ]),
          'detail',
        ),
      );
    }
  }
  return panels;
}

/** Corners of a box's ground plan, in order, m. */
export function boxPlan(box: Box): { x: number; z: number }[] {
  const { out } = turnedBox(box);
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([a, b]) => {
    const [x, z] = out((a! * box.width_m) / 2, (b! * box.depth_m) / 2);
    return { x: box.x_m + x, z: box.z_m + z };
  });
}

/** The faces of a box that are turned to the camera. */
function boxShapes(box: Box, eyeM: number): Shape[] {
  const plan = boxPlan(box);
  const [low, high] = [box.base_m ?? 0, (box.base_m ?? 0) + box.height_m];
  const at = (i: number, y: number): Place => [plan[i % 4]!.x, y, plan[i % 4]!.z];
  const shapes: Shape[] = [];
  for (let i = 0; i < 4; i++) {
    const [a, b] = [plan[i]!, plan[(i + 1) % 4]!];
    // The camera stands at the origin; a side is seen when it lies on that side's outside.
    const seen = (b.x - a.x) * -a.z - (b.z - a.z) * -a.x < 0;
    if (seen)
      shapes.push(
        face(
          [at(i, low), at(i + 1, low), at(i + 1, high), at(i, high)],
          i % 2 === 0 ? 'wall' : 'side',
        ),
      );
  }
  if (eyeM > high)
    shapes.push(
      face(
        [0, 1, 2, 3].map((i) => at(i, high)),
        'ground',
      ),
    );
  if (eyeM < low)
    shapes.push(
      face(
        [0, 1, 2, 3].map((i) => at(i, low)),
        'ground',
      ),
    );
  return shapes;
}

/** Level lines on the façade or on the walls of the room; else across the view at the far end. */
function levelShapes({ facade, site }: Sited): Shape[] {
  return (site?.levels ?? []).flatMap(({ height_m: y }) => {
    if (facade) {
      const half = facade.width_m * 0.6;
      const x = facade.x_m ?? 0;
      return [
        line(
          [
            [x - half, y, facade.distance_m],
            [x + half, y, facade.distance_m],
          ],
          'level',
        ),
      ];
    }
    if (site?.room) {
      const { length_m, width_m, behind_m, left_m } = site.room;
      const [left, right, near, far] = [-left_m, width_m - left_m, -behind_m, length_m - behind_m];
      return [
        line(
          [
            [left, y, near],
            [left, y, far],
            [right, y, far],
            [right, y, near],
          ],
          'level',
        ),
      ];
    }
    return [
      line(
        [
          [-20, y, 20],
          [20, y, 20],
        ],
        'level',
      ),
    ];
  });
}
