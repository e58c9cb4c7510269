import { ENGRAVED } from '@gangway/optics';
import { focusControl } from '../document/focusing.js';
import type { Station } from '../document/station.js';
import { heldOrders } from './held.js';
import { reportMarks, type MarkReport } from '../focus/marks.js';
import { readingOf } from '../report/readings.js';
import { setupOf } from '../optical/setup.js';
import { fixed, fStop, mm, ratioSaid, ringDistance, trimmed, type Units } from '../words/format.js';
import { carriedReadings } from './carried.js';
import type { FocusReading } from './focusing.js';
import { SEEN, type Control, type Order, type Ordering, type Setting } from './order.js';

/** What is focused and stopped down. */

/**
 * The mark that falls crispest, which is what to look at; null where none has to be sharp.
 * @param near only such as a tape reaches
 */
export function crispestMark(
  station: Station,
  marks: readonly MarkReport[],
  near = false,
): number | null {
  let best: number | null = null;
  marks.forEach(({ blur_um: blur }, i) => {
    const { must, infinite } = station.marks![i]!;
    if (must !== 'sharp' || blur === null || (near && infinite)) return;
    if (best === null || blur < marks[best]!.blur_um! - 1e-6) best = i;
  });
  return best;
}

export const markName = ({ marks = [] }: Station, index: number): string =>
  marks[index]!.label || `mark ${index + 1}`;

/** Less of a draw than this is none, mm. */
const DRAWN_SEEN = 0.05;

/** What is taken hold of for a kind of reading. */
const CONTROLS: Readonly<Record<FocusReading['kind'], Control>> = {
  ring: { kind: 'ring', engraved: 'distance' },
  ratio: { kind: 'ring', engraved: 'magnification' },
  bed: { kind: 'bed', counts: 'own' },
  extension: { kind: 'bed', counts: 'infinity' },
  draw: { kind: 'draw' },
};

/** A reading as it is printed, and as a number of the control’s own. */
function figureOf(reading: FocusReading, units: Units): Pick<Setting, 'to' | 'said' | 'way'> {
  switch (reading.kind) {
    case 'ring':
      return { to: reading.distanceM, said: ringDistance(reading.distanceM, units), way: '' };
    case 'ratio':
      return { to: reading.ratio, said: `${String(reading.ratio)} ×`, way: '' };
    case 'extension': {
      const { mm: out } = reading;
      const way = Math.abs(out) < DRAWN_SEEN ? '' : out < 0 ? 'in' : 'out';
      return { to: out, said: mm(Math.abs(out)), way };
    }
    case 'bed':
    case 'draw':
      return { to: reading.mm, said: mm(reading.mm), way: '' };
  }
}

/** A reading as a control that stands there. */
const focusSetting = (reading: FocusReading, units: Units): Setting => ({
  control: CONTROLS[reading.kind],
  ...figureOf(reading, units),
});

/** What the act is called, by what is taken hold of. */
function saysOf(station: Station, reading: FocusReading, { said, way }: Setting): string {
  switch (reading.kind) {
    case 'ring':
      return reading.distanceM === null
        ? 'Set the focusing ring to infinity'
        : station.lens.focus_by === 'wire'
          ? 'Focus until the camera shows'
          : 'Set the focusing ring to';
    case 'ratio':
      return `Set the magnification on the focusing ring (${ratioSaid(reading.ratio)})`;
    case 'bed':
      return 'Set the standard on its bed at';
    case 'extension':
      return way === ''
        ? 'Set the standard where infinity is crisp'
        : `From where infinity is crisp ${way === 'in' ? 'rack in' : 'draw out'}`;
    case 'draw':
      return said === mm(0) ? 'Leave the drawing adapter at its shortest' : 'Draw the adapter out';
  }
}

/** As few words as a tag has. */
function shortOf(reading: FocusReading, { said, way }: Setting): string {
  switch (reading.kind) {
    case 'ring':
    case 'ratio':
      return `ring at ${said}`;
    case 'bed':
      return `bed at ${said}`;
    case 'extension':
      return way === '' ? 'bed at infinity' : `from infinity ${said} ${way}`;
    case 'draw':
      return `adapter drawn out ${said}`;
  }
}

/** One part that focuses and where it is to stand. */
export function readingOrder(
  station: Station,
  reading: FocusReading,
  units: Units,
  id: string,
): Order {
  const setting = focusSetting(reading, units);
  const says = saysOf(station, reading, setting);
  // “Set the focusing ring to infinity” needs no figure to be a sentence.
  const whole = setting.to === null || (reading.kind !== 'bed' && setting.said === mm(0));
  return {
    id,
    part: 'focus',
    says,
    figure: setting.said,
    ...(whole ? { line: says } : {}),
    short: shortOf(reading, setting),
    rests: ['sharpness', 'focusing'],
    sets: [setting],
  };
}

/** Why a ring is not set to where the things are. */
const leanNote = (station: Station): string => {
  const { tilt_deg, swing_deg, rear_tilt_deg = 0, rear_swing_deg = 0 } = station.movements;
  const leans = [tilt_deg, swing_deg, rear_tilt_deg, rear_swing_deg].some(
    (each) => Math.abs(each) >= SEEN,
  );
  return leans ? 'It is engraved for a straight lens, so it reads otherwise than the tape.' : '';
};

/** The orders that focus a station; what adds to the ring before it. */
export function focusOrders({ station, planned, units }: Ordering): Order[] {
  if (station.held_off) return heldOrders(station, station.held_off);
  const marks = reportMarks(setupOf(station));
  const on = crispestMark(station, marks);
  const look =
    on === null
      ? ''
      : `${markName(station, on)} comes crispest there: look at it with the lens wide open.`;
  const readings = carriedReadings(planned, units);
  const set = readings.map((reading, i): Order => {
    const last = i === readings.length - 1;
    const order = readingOrder(station, reading, units, last ? 'focus' : `focus ${i}`);
    const ring = reading.kind === 'ring' && reading.distanceM !== null;
    const detail = last ? [ring ? leanNote(station) : '', look].filter(Boolean).join(' ') : '';
    return detail === '' ? order : { ...order, detail };
  });
  return focusControl(station).by === 'rail'
    ? [...set, ...railOrders(station, crispestMark(station, marks, true), units)]
    : set;
}

/** A rail is read finer than a ring: it stands still by itself. */
function railSaid(m: number, units: Units): string {
  if (units === 'metric') return m < 1 ? mm(1000 * m) : `${fixed(m, 3)} m`;
  const inches = Math.round((100 * m) / 0.0254) / 100;
  const feet = Math.floor(inches / 12);
  const rest = `${fixed(inches - 12 * feet, 2)}″`;
  return feet === 0 ? rest : `${feet}′ ${rest}`;
}

/** The draw stands; the whole camera goes to where the thing is crisp. */
function railOrders(station: Station, on: number | null, units: Units): Order[] {
  if (on === null) {
    return [
      {
        id: 'rail',
        part: 'focus',
        says: 'Move the camera on its rail until what matters is crisp; leave the draw',
        sets: [],
      },
    ];
  }
  const { camera } = station;
  const { x_m: x, y_m: y, z_m: z } = station.marks![on]!;
  const m = Math.hypot(x, y - camera.height_m, z);
  const figure = railSaid(m, units);
  return [
    {
      id: 'rail',
      part: 'focus',
      says: `Move the camera on its rail until ${markName(station, on)} is crisp; from the sensor mark to it there are then`,
      figure,
      detail: 'Leave the draw as it is.',
      short: `rail ${figure} to ${markName(station, on)}`,
      sets: [{ control: { kind: 'rail', mark: on }, to: m, said: figure, way: '' }],
    },
  ];
}

/** Nothing is turned where the stop is the widest there is. */
const openedWide = ({ aperture, lens }: Station): boolean =>
  aperture <= lens.f_min * (1 + ENGRAVED);

export function stopOrders({ station }: Ordering): Order[] {
  const figure = fStop(station.aperture);
  // In the hand the draw wanders: what acts is not told to a figure.
  const acting = station.held_off ? null : readingOf(station).focus.effective_f_number;
  const says =
    station.lens.iris === 'none'
      ? 'It has no iris'
      : station.held_off
        ? 'Open it to its widest stop: held off, that is what acts'
        : openedWide(station)
          ? 'Open the iris fully'
          : 'Stop down to';
  const differs = acting !== null && Math.abs(acting / station.aperture - 1) > 0.1;
  return [
    {
      id: 'stop',
      part: 'stop',
      says,
      figure,
      ...(differs ? { detail: `It acts as f/${fixed(acting, acting < 9.95 ? 1 : 0)} there.` } : {}),
      short: `stop ${figure}`,
      sets:
        station.lens.iris === 'none'
          ? []
          : [{ control: { kind: 'iris' }, to: station.aperture, said: figure, way: '' }],
    },
  ];
}

/** What the other marks look like as the lens is stopped down. */
export function checkSaid(
  station: Station,
  marks: readonly MarkReport[],
  on: number | null,
): string {
  const seen = marks.flatMap(({ f_number_needed: needed, label, holds }, i) => {
    const { must } = station.marks![i]!;
    if (i === on || must === 'free' || needed === null) return [];
    const name = label || `Mark ${i + 1}`;
    if (must === 'soft') return [`${name}: stays soft`];
    if (!holds) return [`${name}: not sharp at this stop`];
    return [
      needed <= station.lens.f_min
        ? `${name}: crisp wide open`
        : `${name}: comes in at f/${trimmed(needed, 1)}`,
    ];
  });
  return seen.length === 0 ? '' : `${seen.join('. ')}.`;
}
