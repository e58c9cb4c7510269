import { degrees as deg, distance } from '../words/format.js';
import { SEEN, type Order, type Ordering, type Setting } from './order.js';

/** How high the camera stands, how the back is turned, and how it is levelled and pointed. */

export function heightOrders({ station: { camera }, units }: Ordering): Order[] {
  const figure = distance(camera.height_m, units);
  return [
    {
      id: 'height',
      part: 'stand',
      says: 'Height of the sensor mark',
      figure,
      line: `Bring the sensor mark to a height of ${figure}`,
      short: `height ${figure}`,
      sets: [{ control: { kind: 'column' }, to: camera.height_m, said: figure, way: '' }],
    },
  ];
}

export function backOrders({ station: { back } }: Ordering): Order[] {
  const upright = back.orientation === 'portrait';
  const figure = upright ? 'upright' : 'level';
  return [
    {
      id: 'back',
      part: 'rig',
      says: 'Turn the back',
      figure,
      sets: [{ control: { kind: 'back_turned' }, to: upright ? 90 : 0, said: figure, way: '' }],
    },
  ];
}

/** A reading of a level finer than this is not seen, degrees. */
const LEVEL_SEEN = 0.005;

const turned = (
  turns: 'pitch' | 'roll' | 'yaw',
  value: number,
  [plus, minus]: readonly [string, string],
  decimals: number,
  seen: number,
): Setting => ({
  control: { kind: 'head', turns },
  to: value,
  said: Math.abs(value) < seen ? '0°' : deg(Math.abs(value), decimals),
  way: Math.abs(value) < seen ? '' : value > 0 ? plus : minus,
});

/**
 * The level as the user’s own reads: one that is off itself shows what it has to show for the camera
 * to stand as planned.
 */
function levelOrder({ station: { camera } }: Ordering): Order {
  const { pitch_deg: pitch, level_offset_deg: up = 0, level_offset_roll_deg: right = 0 } = camera;
  const level = Math.abs(pitch) < SEEN;
  const tip = `then tip it ${pitch > 0 ? 'up' : 'down'}`;
  if (up === 0 && right === 0) {
    const set = [
      turned('roll', 0, ['right', 'left'], 1, SEEN),
      turned('pitch', pitch, ['up', 'down'], 1, SEEN),
    ];
    return {
      id: 'level',
      part: 'level',
      says: level ? 'Level it on both axes' : `Level it from side to side, ${tip}`,
      figure: set[1]!.said,
      ...(level ? { line: 'Level it on both axes' } : {}),
      short: level ? 'level' : `tipped ${set[1]!.said} ${set[1]!.way}`,
      rests: ['level'],
      sets: set,
    };
  }
  const roll = turned('roll', right, ['to the right', 'to the left'], 2, LEVEL_SEEN);
  const tilt = turned('pitch', pitch + up, ['up', 'down'], 2, LEVEL_SEEN);
  const shows = [
    tilt.way === '' ? 'level fore and aft' : `${tilt.said} ${tilt.way}`,
    roll.way === '' ? 'level across' : `${roll.said} ${roll.way}`,
  ].join(', ');
  return {
    id: 'level',
    part: 'level',
    says: level ? 'Level it: your own level then shows' : 'Tip it until your own level shows',
    figure: shows,
    detail: `That is ${level ? 'truly level' : `${deg(Math.abs(pitch))} ${pitch > 0 ? 'up' : 'down'} in truth`}: the level is off by itself.`,
    short: `level shows ${shows}`,
    rests: ['level'],
    sets: [tilt, roll],
  };
}

export function levelOrders(told: Ordering): Order[] {
  const { yaw_deg: yaw } = told.station.camera;
  const ahead = turned('yaw', yaw, ['right', 'left'], 1, SEEN);
  const level = levelOrder(told);
  if (ahead.way !== '') {
    return [
      {
        id: 'yaw',
        part: 'level',
        says: `Turn the camera ${ahead.way} of straight ahead`,
        figure: ahead.said,
        short: `turned ${ahead.said} ${ahead.way}`,
        sets: [ahead],
      },
      level,
    ];
  }
  const { facade, site, marks } = told.station;
  // With nothing in front any way is straight ahead.
  if (!facade && !site && !marks?.length) return [level];
  const at = facade ? 'square on to the front' : 'straight ahead';
  const { says, line } = level;
  return [
    {
      ...level,
      says: `Point it ${at}. ${says}`,
      ...(line === undefined ? {} : { line: `Point it ${at}. ${line}` }),
      sets: [...level.sets, ahead],
    },
  ];
}
