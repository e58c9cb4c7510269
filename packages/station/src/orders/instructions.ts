import { missAtUnitStopMm, outOf, mostOf } from '@gangway/optics';
import { degrees, fStop, trimmed, type Units } from '../words/format.js';
import { reportMarks } from '../focus/marks.js';
import type { Station } from '../document/station.js';
import { nameOf, STOPPED } from '../focus/hindrance.js';
import type { FocusAnswer } from '../focus/solve.js';
import { orderLines } from './held.js';
import type { Order } from './order.js';
import { ordersOf } from './orders.js';

export interface Instructions {
  /** What to set, in order. */
  readonly set: readonly string[];
  /** What to look at under the magnifier, in order. */
  readonly check: readonly string[];
  /** What else one should know of these marks. */
  readonly notes: readonly string[];
  readonly focusOn: string;
}

/** Whether lens and back stand on a bed. */
export const isBellows = ({ chain }: Station): boolean =>
  chain.some(({ kind }) => kind === 'view_camera');

/** Whether an order leans or turns something: what a plane of focus asks for. */
const leans = ({ sets }: Order): boolean =>
  sets.some(
    ({ control }) =>
      control.kind === 'turned' ||
      (control.kind === 'standard' &&
        (control.movement === 'tilt' || control.movement === 'swing')),
  );

/** What is set for the marks, as the card has it: leans, focus, and the stop where one holds. */
function setFor(answer: FocusAnswer, units: Units): string[] {
  const { orders } = ordersOf(answer.station, units);
  const moved = orders.filter(
    (order) => order.part === 'move' && order.id !== 'rest' && leans(order),
  );
  return [
    ...orderLines(moved.length > 0 ? moved : [straight(answer.station)]),
    ...orderLines(orders.filter(({ part }) => part === 'focus')),
    ...(answer.held ? stopLines(answer, orders) : []),
  ];
}

const straight = (station: Station): Order => ({
  id: 'straight',
  part: 'move',
  says: `Leave ${isBellows(station) ? 'the front standard' : 'the lens'} straight`,
  sets: [],
});

export function instructionsFor(answer: FocusAnswer, units: Units): Instructions {
  const { station, setup: s, solved, marks } = answer;
  const v = solved.imageDistanceMm;
  /** Signed blur at f/1 over the focal length. */
  const off = (i: number): number =>
    Math.abs(missAtUnitStopMm(s.pupil, v, 1 / solved.depthsMm[i]!)) / s.focalLengthMm;
  // Of marks that are crisp alike the first named comes first, whatever rounding leaves of them.
  const rank = (i: number): number => Math.round(off(i) * 1e6);
  const order = marks.sharp.map((_, i) => i).sort((a, b) => rank(a) - rank(b));
  const first = order[0]!;
  const target = marks.sharp[first]!;
  const blurMm = (off(first) * s.focalLengthMm) / s.fNumber;
  const exact = blurMm <= 0.1 * s.cocMm;
  const focusOn = nameOf(target);
  const depths = order.filter((i) => i !== first).sort((a, b) => off(b) - off(a));
  const ends = [
    ...depths.filter((i) => solved.depthsMm[i]! > v).slice(0, 1),
    ...depths.filter((i) => !(solved.depthsMm[i]! > v)).slice(0, 1),
  ];
  const rest = depths.filter((i) => !ends.includes(i)).slice(0, 2);
  const check = [
    exact
      ? `${focusOn}: crisp with the lens wide open.`
      : `${focusOn}: the crispest of all, the lens wide open.`,
    ...[...ends, ...rest].map((i) => {
      const needs = (off(i) * s.focalLengthMm) / s.cocMm / s.combined;
      const name = nameOf(marks.sharp[i]!);
      return needs <= station.lens.f_min
        ? `${name}: crisp wide open.`
        : `${name}: comes in at f/${trimmed(needs, 1)}.`;
    }),
    ...marks.soft.map((each) => `${nameOf(each)}: must stay soft at ${fStop(station.aperture)}.`),
  ];
  return { set: setFor(answer, units), check, notes: notesOf(answer), focusOn };
}

/** The stop as it is ordered, and which others would hold. */
function stopLines({ best }: FocusAnswer, orders: readonly Order[]): string[] {
  const [least, most] = best?.serves ?? [];
  const span =
    least !== undefined && most !== undefined && fStop(least) !== fStop(most)
      ? `; ${fStop(least)} to ${fStop(most)} hold.`
      : '.';
  return orderLines(orders.filter(({ part }) => part === 'stop')).map((line) =>
    line.replace(/\.$/, span),
  );
}

/** Marks that do not span a plane, and constraints that bind. */
function notesOf(answer: FocusAnswer): string[] {
  const { marks, solved, setup: s, bounds, station } = answer;
  const notes: string[] = [];
  const farthest = Math.max(
    1,
    ...marks.sharp.map(({ at, mark }) => (mark.infinite ? 0 : Math.hypot(...at))),
  );
  const places = marks.sharp.map(({ at, mark }) => {
    // Far enough that its direction alone counts beside the others.
    const size = mark.infinite ? (1e3 * farthest) / Math.hypot(...at) : 1;
    return at.map((each) => each * size) as [number, number, number];
  });
  const lens = outOf(s.stance.basis, s.lensCentre);
  const shape = shapeOf(places, lens, s.focalLengthMm);
  if (marks.sharp.length > 1 && shape === 'place') {
    notes.push('All marks lie at one place: focus on it; leaning gains nothing.');
  } else if (marks.sharp.length > 2 && shape === 'line') {
    notes.push(
      lineMisses(places, lens) > s.focalLengthMm
        ? 'The marks lie in one line: any plane through it serves, and the one that leans least was taken. A mark beside the line would settle it.'
        : 'The marks lie one behind the other as the lens sees them: no lean helps, only a smaller stop or a stack.',
    );
  } else if (shape === 'with lens' && answer.engravedNeeded > station.lens.f_min) {
    notes.push(withLensWords(places, lens));
  }
  const outside = reportMarks(s).flatMap((mark, i) =>
    !mark.in_frame && station.marks![i]!.must === 'sharp' ? [mark.label || `Mark ${i + 1}`] : [],
  );
  if (outside.length > 0) {
    notes.push(
      `${outside.join(', ')} ${outside.length === 1 ? 'lies' : 'lie'} outside the frame as it stands.`,
    );
  }
  const ends: Partial<Record<string, string>> = {
    tilt: `The tilt stands at its end, ${degrees(Math.abs(solved.lens.tiltDeg))}: the plane asks for more.`,
    swing: `The swing stands at its end, ${degrees(Math.abs(solved.lens.swingDeg))}: the plane asks for more.`,
    lean: 'The lean stands at its end: the plane asks for more.',
    rear_tilt: `The rear tilt stands at its end, ${degrees(Math.abs(solved.rear.tiltDeg))}: the plane asks for more.`,
    rear_swing: `The rear swing stands at its end, ${degrees(Math.abs(solved.rear.swingDeg))}: the plane asks for more.`,
    circle: `The image circle holds the lean back: more would cost a corner at ${fStop(station.aperture)}.`,
    ring: `The filter ring holds the lean back: more would cost a corner at ${fStop(station.aperture)}.`,
    close_focus: 'The rig draws out no further; the plane asks for more.',
    far_focus: 'The rig stands at the far end of its focus; the plane asks for past it.',
  };
  for (const bound of bounds) {
    const words = ends[bound];
    // An end that costs nothing is no news.
    if (words && solved.fNumber * s.cocMm > 1e-6) notes.push(words);
  }
  if (answer.stopped && answer.held && answer.within) notes.push(STOPPED);
  return notes;
}

/** How far from the lens the line through the two marks that lie furthest apart passes, mm. */
function lineMisses(places: Places, lens: readonly [number, number, number]): number {
  const from = places[0]!;
  const rays = places.map((p) => [p[0] - from[0], p[1] - from[1], p[2] - from[2]] as const);
  const [x, y, z] = rays.reduce((a, b) => (Math.hypot(...b) > Math.hypot(...a) ? b : a));
  const [a, b, c] = [lens[0] - from[0], lens[1] - from[1], lens[2] - from[2]];
  return Math.hypot(b * z - c * y, c * x - a * z, a * y - b * x) / (Math.hypot(x, y, z) || 1);
}

/** Marks in a plane with the lens: leaning across that plane gains nothing. */
function withLensWords(places: Places, lens: readonly [number, number, number]): string {
  const spread = (i: 0 | 1): number =>
    mostOf(places.map((p) => Math.abs((p[i] - lens[i]) / (p[2] - lens[2] || 1))));
  const [across, up] = [spread(0), spread(1)];
  if (across < CENTRE_LINE * up) {
    return 'The marks lie on the upright line through the middle of the lens: a swing would not help.';
  }
  if (up < CENTRE_LINE * across) {
    return 'The marks lie on the level line through the middle of the lens: a tilt would not help.';
  }
  return 'The marks lie in a plane with the lens: a lean across it would not help. The best wedge is given.';
}

/** So much narrower than long, marks count as lying on a line as the lens sees them. */
const CENTRE_LINE = 0.05;

type Places = readonly (readonly [number, number, number])[];

/** How marks lie to each other and to the lens; told from their spread along three directions. */
export function shapeOf(
  places: Places,
  lens: readonly [number, number, number],
  focalLengthMm: number,
): 'place' | 'line' | 'with lens' | 'plane' | 'space' {
  const minus = (a: Places[number], b: Places[number]) =>
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]] as const;
  const size = (a: readonly number[]): number => Math.hypot(...a);
  const crossed = (a: Places[number], b: Places[number]) =>
    [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]] as const;
  const first = places[0]!;
  const reach = Math.max(1, ...places.map((p) => size(minus(p, lens))));
  const rays = places.map((p) => minus(p, first));
  const longest = rays.reduce((a, b) => (size(b) > size(a) ? b : a), [0, 0, 0] as const);
  if (size(longest) < 1e-6 * reach) return 'place';
  const normal = rays
    .map((ray) => crossed(longest, ray))
    .reduce((a, b) => (size(b) > size(a) ? b : a), [0, 0, 0] as const);
  if (size(normal) < 1e-6 * size(longest) ** 2) return 'line';
  const unit = normal.map((each) => each / size(normal));
  const height = (a: readonly number[]): number =>
    Math.abs(a[0]! * unit[0]! + a[1]! * unit[1]! + a[2]! * unit[2]!);
  if (rays.some((ray) => height(ray) > 1e-6 * reach)) return 'space';
  // A hinge line nearer than the focal length would be wanted.
  return height(minus(first, lens)) < focalLengthMm ? 'with lens' : 'plane';
}
