import type { Movement, RearMovement } from '../document/movements.js';
import type { Station } from '../document/station.js';
import { carrierOf, type Carrier } from '../mosaic/carrier.js';
import { mechanicsOf, turningOf } from '../optical/turning.js';
import { degrees, mm } from '../words/format.js';
import { moveSaid, standardOf, standardSaid } from '../words/hands.js';
import { clicksSaid } from './clicks-said.js';
import { dotSaid } from './dots.js';
import { SEEN, type Order, type Setting } from './order.js';
import { turnedSettings, turnOrder } from './turns.js';

/** Rises, shifts and leans, each as the hand does it; what is not moved is left at zero. */

type Field = Movement | RearMovement;

/** One thing that moves on a rig by a scale of its own. */
export interface Axis {
  readonly field: Field;
  readonly standard: 'front' | 'back';
  readonly movement: 'rise' | 'shift' | 'tilt' | 'swing';
}

/** Whether a rig has a scale for it: of a second standard only what is given, or set, is there. */
const own = (field: Field, { movement_limits: limits, movements }: Station): boolean => {
  const range = limits[field];
  if (range) return range[0] !== 0 || range[1] !== 0;
  return !field.startsWith('rear_') || movements[field] !== undefined;
};

/**
 * Everything that a hand moves by a scale of its own: what the rig has, and what a plan sets all the
 * same.
 * @param carried fields that the frames of a mosaic set
 */
export function axesOf(station: Station, carried: readonly string[] = []): Axis[] {
  const { movements: set } = station;
  const made = mechanicsOf(station);
  const plain = standardOf(station);
  const all: Axis[] = [
    ...(made?.shift
      ? []
      : ([
          { field: 'rise_mm', standard: plain, movement: 'rise' },
          { field: 'shift_mm', standard: plain, movement: 'shift' },
        ] as const)),
    // Where the back carries rise and shift there is no second standard.
    ...(plain === 'back'
      ? []
      : ([
          { field: 'rear_rise_mm', standard: 'back', movement: 'rise' },
          { field: 'rear_shift_mm', standard: 'back', movement: 'shift' },
        ] as const)),
    ...(made?.tilt
      ? []
      : ([
          { field: 'tilt_deg', standard: 'front', movement: 'tilt' },
          { field: 'swing_deg', standard: 'front', movement: 'swing' },
        ] as const)),
    { field: 'rear_tilt_deg', standard: 'back', movement: 'tilt' },
    { field: 'rear_swing_deg', standard: 'back', movement: 'swing' },
  ];
  return all.filter(
    ({ field }) =>
      !carried.includes(field) && (own(field, station) || Math.abs(set[field] ?? 0) >= SEEN),
  );
}

/** What a scale reads when it is truly straight, as it was measured. */
function zeroOf({ field }: Axis, { movement_limits: { zero } }: Station): number {
  const off = field === 'tilt_deg' || field === 'swing_deg' ? zero?.[field] : undefined;
  return off !== undefined && Math.abs(off) >= SEEN ? off : 0;
}

/** Which way from zero, as the hand goes. */
const WAYS = {
  front: {
    rise: ['up', 'down'],
    shift: ['right', 'left'],
    tilt: ['forward', 'back'],
    swing: ['right', 'left'],
  },
  // The picture looks higher as the back goes down, and further right as it goes left.
  back: {
    rise: ['down', 'up'],
    shift: ['left', 'right'],
    tilt: ['back at its top', 'forward at its top'],
    swing: ['right', 'left'],
  },
} as const;

const isMm = ({ movement }: Axis): boolean => movement === 'rise' || movement === 'shift';

const wayOf = ({ standard, movement }: Axis, value: number): string =>
  Math.abs(value) < SEEN ? '' : WAYS[standard][movement][value < 0 ? 1 : 0];

const clickOf = (axis: Axis, { movement_limits: limits }: Station): number | undefined =>
  isMm(axis) ? limits.detent_mm : limits.detent_deg;

/** A control set to a reading of its scale. */
export function settingOn(axis: Axis, station: Station, reading: number): Setting {
  const click = clickOf(axis, station);
  const { standard, movement } = axis;
  return {
    control: { kind: 'standard', standard, movement },
    to: reading,
    said: isMm(axis) ? mm(Math.abs(reading)) : degrees(Math.abs(reading)),
    way: wayOf(axis, reading),
    ...(click === undefined || click <= 0 ? {} : { click }),
  };
}

const standardName = (station: Station, standard: 'front' | 'back'): string =>
  standard === 'back' && station.chain.some(({ kind }) => kind === 'view_camera')
    ? 'the rear standard'
    : standardSaid(station, standard);

/** “Raise the lens”, “Lean the front standard forward”, “Swing the back to face left”. */
export function movedSaid(station: Station, axis: Axis, value: number): string {
  const { standard, movement } = axis;
  if (movement === 'rise' || movement === 'shift') {
    return moveSaid(station, standard, movement, value).replace(/ [\d.]+ mm/, '');
  }
  const what = standardName(station, standard);
  const way = wayOf(axis, value);
  if (movement === 'tilt') return `Lean ${what} ${way}`;
  return standard === 'back' ? `Swing ${what} to face ${way}` : `Swing ${what} ${way}`;
}

const SHORT = {
  front: { rise: 'rise', shift: 'shift', tilt: 'tilt', swing: 'swing' },
  back: { rise: 'back', shift: 'back', tilt: 'back tilt', swing: 'back swing' },
} as const;

const shortOf = ({ standard, movement }: Axis, { said, way }: Setting): string =>
  `${SHORT[standard][movement]} ${said} ${way}`.trim();

/** One scale to set; null where it stays at zero. */
function axisOrder(station: Station, axis: Axis, id: string): Order | null {
  const value = station.movements[axis.field] ?? 0;
  const zero = zeroOf(axis, station);
  if (Math.abs(value) < SEEN && zero === 0) return null;
  const set = settingOn(axis, station, value + zero);
  const { on, off } = clicksSaid(set.click, value + zero);
  const what = standardName(station, axis.standard);
  const reads = set.way === '' ? set.said : `${set.said} ${set.way}`;
  if (zero !== 0) {
    const own = settingOn(axis, station, zero);
    return {
      id,
      part: 'move',
      says:
        Math.abs(value) < SEEN
          ? `For a straight lens set its ${axis.movement} scale to`
          : `${movedSaid(station, axis, value)} until its scale reads`,
      figure: reads,
      detail: `Its true zero is at ${own.said} ${own.way}, as measured.`,
      short: `${axis.movement} scale ${reads}`,
      sets: [set],
    };
  }
  return {
    id,
    part: 'move',
    says: `${movedSaid(station, axis, value)}${on}`,
    ...(on === '' ? {} : { line: `${movedSaid(station, axis, value)} ${set.said}${on}` }),
    figure: set.said,
    ...(off === ''
      ? {}
      : { detail: `${what.replace(/^t/, 'T')}: ${off[0]!.toLowerCase()}${off.slice(1)}` }),
    short: shortOf(axis, set),
    sets: [set],
  };
}

const restName = ({ control }: Setting): string => {
  if (control.kind === 'along') return control.movement;
  if (control.kind !== 'standard') return '';
  const { standard, movement } = control;
  return standard === 'back' ? `${movement} of the back` : movement;
};

/** “the lens”, “the front and the rear standard”: whatever of it has a scale. */
function whatRests(station: Station, rest: readonly Setting[]): string {
  const front = standardSaid(station, 'front');
  const back = rest.some(
    ({ control }) => control.kind === 'standard' && control.standard === 'back',
  );
  if (!back) return front;
  const rear = standardName(station, 'back');
  return front === 'the front standard' ? 'both standards' : `${front} and ${rear}`;
}

/**
 * Everything that is moved before the first frame, in order, and what is left at zero.
 * @param carrier what takes the frames of a mosaic, where there is one
 * @param eachTurns every frame is turned to, and its lean set with it
 */
export function moveOrders(station: Station, carrier: Carrier | null, eachTurns = false): Order[] {
  if (station.held_off) return [];
  const turning = turningOf(station);
  const carried = carrier ? carrier.fields : [];
  const dot = carrier ? null : dotOrder(station);
  const axes = axesOf(station, dot ? dot.fields : carried);
  const moved: Order[] = dot ? [dot.order] : [];
  const rest: Setting[] = [];
  for (const axis of axes) {
    const order = axisOrder(station, axis, `move ${axis.field}`);
    if (order) moved.push(order);
    else rest.push(settingOn(axis, station, 0));
  }
  // The frames turn what they shift; a lean on the same part is set with them.
  const byFrames = carrier?.turns === true;
  const turned = turning && !byFrames ? turnOrder(station, turning) : [];
  if (turning && !eachTurns) {
    const still = turnedSettings(station, turning).rest;
    // The frames of a series set its shift.
    rest.push(...(byFrames ? still.filter((each) => restName(each) === 'lean') : still));
  }
  const all = [...shiftsFirst(moved), ...turned];
  if (rest.length === 0) return all;
  const names = [...new Set(rest.map(restName))].join(', ');
  const zero: Order =
    all.length === 0
      ? {
          id: 'straight',
          part: 'move',
          says: `Leave ${whatRests(station, rest)} straight and at zero`,
          sets: rest,
        }
      : {
          id: 'rest',
          part: 'move',
          says: 'At zero stay',
          detail: `${names}.`,
          line: `Leave at zero: ${names}`,
          sets: rest,
        };
  return [...all, zero];
}

/** A back that stops at dots of its own, and stands at one; null where none is. */
function dotOrder(station: Station): { order: Order; fields: readonly string[] } | null {
  const carrier = carrierOf(station, 'rear');
  if (!carrier?.stops || !station.movement_limits.frame_stops) return null;
  const at = { set: carrier.set, rotationDeg: 0 };
  const dot = dotSaid(station, carrier, at);
  if (!dot) return null;
  const { says, sets } = dot;
  return {
    order: { id: 'dot', part: 'move', says, short: `back at ${sets[0]!.said}`, sets },
    fields: carrier.fields,
  };
}

/** Shifts before leans: a lean is found again after a shift, not the other way round. */
const shiftsFirst = (orders: readonly Order[]): Order[] => {
  const shifts = (order: Order): boolean => {
    const control = order.sets[0]?.control;
    return (
      control?.kind === 'dots' ||
      (control?.kind === 'standard' && ['rise', 'shift'].includes(control.movement))
    );
  };
  return [...orders.filter(shifts), ...orders.filter((each) => !shifts(each))];
};
