import type { Station } from '../document/station.js';
import { boxPlan } from '../scene/scene.js';
import { leastOf } from '@gangway/optics';

/** A length a tape can be laid along, from under the sensor mark. */
export interface Tape {
  readonly to: string;
  readonly m: number;
}

const MOST_BOXES = 3;

/** Tape lengths that fix where the tripod stands, the walls first. */
export function tapesOf({ facade, site }: Station): Tape[] {
  const tapes: Tape[] = [];
  if (facade) {
    const { distance_m: z, width_m: width, x_m: x = 0 } = facade;
    tapes.push({ to: 'the front, square on', m: z });
    tapes.push({ to: 'its left corner', m: Math.hypot(x - width / 2, z) });
    tapes.push({ to: 'its right corner', m: Math.hypot(x + width / 2, z) });
  }
  const room = site?.room;
  if (room) {
    tapes.push({ to: 'the wall behind', m: room.behind_m });
    tapes.push({ to: 'the wall on the left', m: room.left_m });
    const right = room.width_m - room.left_m;
    if (right > 0) tapes.push({ to: 'the wall on the right', m: right });
    const ahead = room.length_m - room.behind_m;
    if (ahead > 0 && !facade) tapes.push({ to: 'the end wall', m: ahead });
  }
  if (!facade && !room) {
    const corners = (site?.boxes ?? []).map((box) => {
      const nearest = leastOf(boxPlan(box).map(({ x, z }) => Math.hypot(x, z)));
      return { to: `the nearest corner of ${box.name || 'the box'}`, m: nearest };
    });
    for (const each of corners.sort((a, b) => a.m - b.m).slice(0, MOST_BOXES)) tapes.push(each);
  }
  return tapes;
}
