import type { Point } from '@gangway/optics';
import type { Station } from '../../document/station.js';
import { overlapOf } from '../layout.js';
import { blockCentres, setAt, type Block } from './grids.js';
import { baseOf, type Judged } from './judged.js';
import type { Room } from './room.js';

/** A step so small counts as none. */
const EVEN = 1e-4;
const told = (value: number): number => Math.round(value * 1e4) / 1e4 + 0;

/** Overlap of each frame of a line with the next, as a share of its side. */
const overlapsAlong = (places: readonly number[], side: number): number[] =>
  places.slice(1).map((place, i) => 1 - (place - places[i]!) / side);

/** The station laid out as a block: a grid where one overlap says it all, else place by place. */
export function withBlock(station: Station, room: Room, block: Block): Station {
  const { frame } = room.layout;
  const { middle, xs, ys } = block;
  const [columns, rows] = [xs.length, ys.length];
  const base = baseOf(station);
  const moves = room.layout.mosaic.moves as 'rear' | 'lens';
  const overlaps = [...overlapsAlong(xs, frame.widthMm), ...overlapsAlong(ys, frame.heightMm)];
  const first = overlaps[0] ?? overlapOf(room.layout.mosaic);
  const set = setAt(room, middle);
  const [rise, shift] = room.carrier.fields;
  const moved = { ...station.movements, [rise]: set.riseMm, [shift]: set.shiftMm };
  if (overlaps.every((each) => Math.abs(each - first) < EVEN)) {
    const wanted = overlapOf(room.layout.mosaic);
    // Rounded to more overlap, never to less.
    const overlap =
      Math.abs(first - wanted) < 1e-9
        ? wanted
        : room.carrier.detentMm === null
          ? Math.ceil(first * 1e4 - 1e-6) / 1e4
          : first;
    return {
      ...station,
      movements: moved,
      mosaic: { ...base, pattern: 'grid', columns, rows, moves, overlap: Math.min(0.95, overlap) },
    };
  }
  // Rounded towards the middle: nothing is pushed out of the light.
  const held = (value: number, from: number): number =>
    room.carrier.detentMm === null
      ? told(from + Math.trunc((value - from) * 1e3) / 1e3)
      : told(value);
  return withPlaces(
    station,
    room,
    blockCentres(block).map(({ x, y }) => ({ x: held(x, middle.x), y: held(y, middle.y) })),
  );
}

export const withPlaces = (station: Station, room: Room, centres: readonly Point[]): Station => ({
  ...station,
  mosaic: {
    ...baseOf(station),
    pattern: 'free',
    moves: room.layout.mosaic.moves as 'rear' | 'lens',
    places: centres.map(({ x, y }) => ({ x_mm: told(x), y_mm: told(y) })),
  },
});

/** What is set where an offer is taken, by JSON pointer. */
export function offerValues(before: Station, { after, layout }: Judged): Record<string, unknown> {
  const fields = layout.carrier?.fields ?? [];
  const moved = fields.filter((field) => after.movements[field] !== before.movements[field]);
  return {
    '/mosaic': after.mosaic,
    ...Object.fromEntries(moved.map((field) => [`/movements/${field}`, after.movements[field]])),
    ...(after.back.orientation === before.back.orientation
      ? {}
      : { '/back/orientation': after.back.orientation }),
  };
}
