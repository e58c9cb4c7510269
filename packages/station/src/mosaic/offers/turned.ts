import type { Mosaic } from '../../document/station.js';
import { layoutOf, overlapOf } from '../layout.js';
import { turnHindrance } from '../turn-hindrance.js';
import { baseOf, judged, type Judged } from './judged.js';
import type { Room } from './room.js';
import { ringsOf, turnsOf, wheelsOf } from './rounds.js';
import type { Stand } from './stand.js';
import { serves } from './want.js';

/** Rings, pinwheels and turns: each is what it is, tried as a whole. */
export function rounds(stand: Stand, rooms: readonly Room[]): Judged[] {
  const { station, want, layout, effort } = stand;
  const overlap = overlapOf(layout.mosaic);
  const base = baseOf(station);
  const pitch = layout.pixelPitchMm;
  const good = (mosaic: Mosaic, picks = station): Judged[] => {
    const tried = judged({ ...picks, mosaic }, { overlap, sharp: want.sharp, effort });
    return tried && serves(want, tried.picture, pitch) ? [tried] : [];
  };
  const rings = rooms.flatMap((room) =>
    ringsOf(station, room, { ...base, moves: room.layout.mosaic.moves as 'rear' | 'lens' }).flatMap(
      (ring) => good(ring),
    ),
  );
  const wheels = rooms
    .slice(0, 1)
    .flatMap((room) =>
      wheelsOf(station, { ...base, moves: room.layout.mosaic.moves as 'rear' | 'lens' }).flatMap(
        (wheel) => good(wheel),
      ),
    );
  let turn: Judged[] = [];
  if (!want.fill && turnHindrance(station) === null) {
    for (const mosaic of turnsOf(base)) {
      turn = good(mosaic);
      if (turn.length > 0) break;
      if (layoutOf({ ...station, mosaic }).turn!.horizontalDeg > 360) break;
    }
  }
  return [...rings, ...wheels, ...turn];
}
