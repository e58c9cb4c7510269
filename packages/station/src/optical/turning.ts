import { degrees, lensAxis, pivotTravel, turnedTiltOf } from '@gangway/optics';
import { fixed, trimmed } from '../words/format.js';
import type { Station } from '../document/station.js';
import { shiftLengthMm } from './setup.js';
import { standardsOf } from '../document/standards.js';
import { rounded } from '../words/rounded.js';

/** How a lens that turns is set: the turn, the length along it, and the click stop that is nearest. */
export interface Turn {
  readonly kind: 'shift' | 'tilt';
  /** Clockwise as seen from behind: a shift at 0° is a rise, a tilt at 0° leans forward. */
  readonly turnDeg: number;
  /** Length of the movement along that turn, mm or degrees. */
  readonly length: number;
  /** What the mechanism allows there; Infinity when it sets no length. */
  readonly most: number;
  /** The nearest click stop, and how far the turn is off it; null when it turns freely. */
  readonly click: { readonly deg: number; readonly offDeg: number } | null;
  readonly words: string;
}

const round360 = (deg: number): number => ((deg % 360) + 360) % 360;

/** A movement may be set to either side, so a click and its opposite serve alike. */
function nearestClick(turnDeg: number, stops: readonly number[], oneWay: boolean) {
  const all = oneWay ? stops : stops.flatMap((click) => [click, click + 180]);
  const off = (click: number): number => {
    const apart = Math.abs(round360(turnDeg) - round360(click));
    return Math.min(apart, 360 - apart);
  };
  const best = [...all].sort((a, b) => off(a) - off(b))[0];
  return best === undefined ? null : { deg: round360(best), offDeg: off(best) };
}

/** How the turning parts are to be set for the movements of a station; none when nothing turns. */
export function turnsOf(station: Station): Turn[] {
  const { movements: set, movement_limits: limits } = station;
  const stops = limits.turn_stops_deg ?? [];
  const turns: Turn[] = [];
  const most = shiftLengthMm(station);
  const length = Math.hypot(set.rise_mm, set.shift_mm);
  if (Number.isFinite(most) && length > 0) {
    const turnDeg = round360(degrees(Math.atan2(set.shift_mm, set.rise_mm)));
    const click = nearestClick(turnDeg, stops, false);
    turns.push({
      kind: 'shift',
      turnDeg,
      length,
      most,
      click,
      words: `Turn the lens to ${trimmed(turnDeg, 1)}° and shift it ${fixed(length, 1)} mm of ${trimmed(most, 1)}.${offWords(click)}`,
    });
  }
  const { leanDeg, turnDeg } = turnedTiltOf({ tiltDeg: set.tilt_deg, swingDeg: set.swing_deg });
  const turnsTilt = limits.radial_tilt_deg !== undefined || limits.one_way_tilt === true;
  if (turnsTilt && leanDeg > 1e-9) {
    const click = nearestClick(turnDeg, stops, limits.one_way_tilt === true);
    const end = limits.radial_tilt_deg;
    turns.push({
      kind: 'tilt',
      turnDeg,
      length: leanDeg,
      most: end ?? Infinity,
      click,
      words: `Turn the lens to ${trimmed(turnDeg, 1)}° and tilt it ${fixed(leanDeg, 1)}°${end === undefined ? '' : ` of ${trimmed(end, 1)}°`}.${offWords(click)}`,
    });
  }
  return turns;
}

/** A turn this near to its click stop is on it. */
const ON_CLICK_DEG = 0.5;

function offWords(click: Turn['click']): string {
  if (!click) return '';
  return click.offDeg <= ON_CLICK_DEG
    ? ` It clicks at ${trimmed(click.deg, 1)}°.`
    : ` Its nearest click stop is ${trimmed(click.deg, 1)}°, ${fixed(click.offDeg, 1)}° away.`;
}

/** The same movements brought onto the nearest click stop of a lens that turns. */
export function ontoClick(station: Station): Station {
  const shift = turnsOf(station).find((turn) => turn.kind === 'shift');
  if (!shift?.click || shift.click.offDeg <= 1e-6) return station;
  const angle = (shift.click.deg * Math.PI) / 180;
  const toward = (value: number): number => rounded(value, 2);
  return {
    ...station,
    movements: {
      ...station.movements,
      rise_mm: toward(shift.length * Math.cos(angle)),
      shift_mm: toward(shift.length * Math.sin(angle)),
    },
  };
}

/** What a tilt axis off the lens centre did to the picture, and the movement that undoes it, mm. */
export interface PivotMove {
  readonly riseMm: number;
  readonly shiftMm: number;
  readonly counter: { readonly rise_mm: number; readonly shift_mm: number };
}

const SEEN_MM = 0.005;

/** Null where leaning leaves the picture where it was. */
export function pivotMove(station: Station): PivotMove | null {
  const { lens, pivotMm } = standardsOf(station);
  const { shiftMm: x, riseMm: y } = pivotTravel(lensAxis(lens), pivotMm);
  const pivot = { x, y };
  if (Math.hypot(pivot.x, pivot.y) < SEEN_MM) return null;
  return {
    riseMm: pivot.y,
    shiftMm: pivot.x,
    counter: { rise_mm: -pivot.y + 0, shift_mm: -pivot.x + 0 },
  };
}

/** The counter-movement added to what is set, so that the picture stands as without the lean. */
export function withCounterMove(station: Station): Station {
  const move = pivotMove(station);
  if (!move) return station;
  const add = (now: number, by: number): number => rounded(now + by, 2);
  return {
    ...station,
    movements: {
      ...station.movements,
      rise_mm: add(station.movements.rise_mm, move.counter.rise_mm),
      shift_mm: add(station.movements.shift_mm, move.counter.shift_mm),
    },
  };
}

/** The axis a locked lens cannot lean about, given how it is shifted; none when it is free. */
export function lockedLean(station: Station): 'tilt_deg' | 'swing_deg' | null {
  const { movements: set, movement_limits: limits } = station;
  const lock = limits.shift_tilt;
  if (lock !== 'in_line' && lock !== 'crossed') return null;
  const [up, across] = [set.rise_mm !== 0, set.shift_mm !== 0];
  if (up === across) return null;
  return (lock === 'in_line') === up ? 'swing_deg' : 'tilt_deg';
}
