import { bisect, depthOfField, toPicture, leastOf } from '@gangway/optics';
import { MOST_PLACES } from '../document/most.js';
import type { Mosaic, Station } from '../document/station.js';
import { fixed } from '../words/format.js';
import { carrierOf, type Carrier } from './carrier.js';
import {
  DEFAULT_TURNS,
  layoutOf,
  overlapOf,
  pinwheelOffset,
  ringFrames,
  uncropped,
} from './layout.js';
import { baseOf } from './offers/judged.js';
import { reportMosaic } from './report.js';
import { turnedBack } from '../optical/facts.js';
import { setupOf } from '../optical/setup.js';

/** Layouts to begin with, each from what the rig in hand can do. */

type Of<P extends Mosaic['pattern']> = Extract<Mosaic, { pattern: P }>;
type Moves = 'rear' | 'lens';

const hundredths = (value: number): number => Math.round(value * 100) / 100 + 0;
const told = (value: number): number => Math.round(value * 1e4) / 1e4 + 0;

const withMosaic = (station: Station, mosaic: Mosaic): Station => ({ ...station, mosaic });

/** Ways to begin a layout, by what it looks like. */
export interface Preset {
  readonly id: string;
  readonly label: string;
  /** Laid out on a station's gear; a sentence where it cannot be. */
  readonly of: (station: Station) => Station | string;
}

/** The back first: the lens stays where it is. */
const movesOf = (station: Station): Moves =>
  carrierOf(uncropped(station), 'rear') ? 'rear' : 'lens';

const begun = (station: Station): ReturnType<typeof baseOf> & { moves: Moves } => ({
  ...baseOf(station),
  moves: movesOf(station),
});

/** How far the outer frames may go from the middle as it is set, and the share that leaves each. */
function overlapAlong(
  carrier: Carrier,
  axis: 'shift' | 'rise',
  count: number,
  side: number,
  least: number,
): number {
  if (count < 2) return 0;
  const { detentMm, stops, placing, set } = carrier;
  const perMm = Math.hypot(placing[axis].x, placing[axis].y);
  const [now, other] = axis === 'shift' ? [set.shiftMm, set.riseMm] : [set.riseMm, set.shiftMm];
  // What turns has one length for both ways: what the other movement uses is gone.
  const left = Math.sqrt(Math.max(0, carrier.radialMm ** 2 - other ** 2));
  const [low, high] = [Math.max(carrier[axis][0], -left), Math.min(carrier[axis][1], left)];
  const reach = (2 * Math.max(0, Math.min(high - now, now - low))) / (count - 1);
  // An even number of frames lies half a step off the middle: whole clicks from it, all the same.
  const click = detentMm === null || stops ? 0 : detentMm * (count % 2 === 0 ? 2 : 1);
  const wanted = (1 - least) * (side / perMm);
  const step = Math.min(wanted, reach);
  const clicked = click > 0 ? Math.floor(step / click + 1e-9) * click : step;
  return clicked > 0 ? 1 - (clicked * perMm) / side : 1;
}

/**
 * The least share at which the outermost frames of a block lie within one length for both ways; the
 * share itself where they do already.
 */
function cornersWithin(
  { radialMm, placing, set, detentMm }: Carrier,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  columns: number,
  rows: number,
  share: number,
): number {
  if (!Number.isFinite(radialMm) || columns < 2 || rows < 2) return share;
  const half = (axis: 'shift' | 'rise', count: number, side: number, of: number): number =>
    (((1 - of) * side) / Math.hypot(placing[axis].x, placing[axis].y)) * ((count - 1) / 2);
  const within = (of: number): boolean =>
    Math.hypot(
      Math.abs(set.shiftMm) + half('shift', columns, widthMm, of),
      Math.abs(set.riseMm) + half('rise', rows, heightMm, of),
    ) <=
    radialMm + 1e-9;
  if (within(share) || detentMm !== null) return share;
  return within(1) ? bisect(1, share, within) : 1;
}

/** Evenly spaced places of a line, about its middle, as far apart as a step allows; null: too few. */
function spaced(line: readonly number[], count: number, step: number): number[] | null {
  for (let stride = Math.floor((line.length - 1) / Math.max(1, count - 1)); stride >= 1; stride--) {
    const first = Math.floor((line.length - 1 - stride * (count - 1)) / 2);
    const chosen = Array.from({ length: count }, (_, i) => line[first + i * stride]!);
    if (chosen.every((place, i) => i === 0 || place - chosen[i - 1]! <= step + 1e-6)) return chosen;
  }
  return null;
}

/** Columns and rows on the stops of a sliding back, the top row first; a sentence where it has none. */
function stopsInBlock(
  { stops, placing }: Carrier,
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  columns: number,
  rows: number,
  overlap: number,
): { x_mm: number; y_mm: number }[] | string {
  const places = stops!
    .filter(({ rotationDeg }) => rotationDeg === 0)
    .map((stop) => toPicture(placing, stop));
  const line = (axis: 'x' | 'y'): number[] =>
    [...new Set(places.map((place) => told(place[axis])))].sort((a, b) => a - b);
  const xs = spaced(line('x'), columns, (1 - overlap) * widthMm);
  const ys = spaced(line('y'), rows, (1 - overlap) * heightMm);
  const has = (x: number, y: number): boolean =>
    places.some((place) => Math.hypot(place.x - x, place.y - y) < 1e-3);
  if (!xs || !ys || !xs.every((x) => ys.every((y) => has(x, y)))) {
    return `The stops of this back give no ${columns} × ${rows} frames with an overlap of ${fixed(100 * overlap, 0)} %.`;
  }
  return [...ys].reverse().flatMap((y) => xs.map((x) => ({ x_mm: x, y_mm: y })));
}

/** A block of frames as far apart as custom and the gear allow; a sentence where nothing moves that way. */
const grid =
  (columns: number, rows: number) =>
  (station: Station): Station | string => {
    const base = begun(station);
    const carrier = carrierOf(uncropped(station), base.moves)!;
    const { frame } = layoutOf(station, { ...base, pattern: 'grid' });
    const wanted = overlapOf(base);
    if (carrier.stops) {
      const places = stopsInBlock(carrier, frame, columns, rows, wanted);
      return typeof places === 'string'
        ? places
        : withMosaic(station, { ...base, pattern: 'free', places });
    }
    const least = Math.max(
      wanted,
      overlapAlong(carrier, 'shift', columns, frame.widthMm, wanted),
      overlapAlong(carrier, 'rise', rows, frame.heightMm, wanted),
    );
    const overlap = cornersWithin(carrier, frame, columns, rows, least);
    if (overlap > MOST_OVERLAP) {
      const [what, way] =
        columns > 1 && rows > 1
          ? ['far enough both ways', 'Lay out a row or a column, or turn the camera.']
          : columns > 1
            ? ['far enough sideways', 'Lay out a column, or turn the camera.']
            : ['far enough up and down', 'Lay out a row, or turn the camera.'];
      return `Nothing on this rig moves ${what} from where it is set. ${way}`;
    }
    const usual = base.overlap === undefined && Math.abs(overlap - wanted) < 1e-9;
    return withMosaic(station, {
      ...base,
      pattern: 'grid',
      columns,
      rows,
      ...(usual ? {} : { overlap }),
    });
  };

/** Frames that share more than this bring nothing. */
const MOST_OVERLAP = 0.93;

/** Onto whole clicks, never further; to a hundredth where nothing clicks. */
const clicked = ({ detentMm }: Carrier, mm: number): number =>
  detentMm === null ? hundredths(mm) : Math.floor(mm / detentMm + 1e-9) * detentMm;

/** Two frames corner to corner, the upper one on the left. */
function diagonal(station: Station): Station | string {
  const base = begun(station);
  const carrier = carrierOf(uncropped(station), base.moves)!;
  const { frame } = layoutOf(station, { ...base, pattern: 'grid' });
  const { placing, set } = carrier;
  // As far both ways as leaves the overlap that is wanted.
  const share = (1 - Math.sqrt(overlapOf(base))) / 2;
  const shift = clicked(
    carrier,
    (share * frame.widthMm) / Math.hypot(placing.shift.x, placing.shift.y),
  );
  const rise = clicked(
    carrier,
    (share * frame.heightMm) / Math.hypot(placing.rise.x, placing.rise.y),
  );
  if (shift === 0 || rise === 0)
    return 'The detents of this rig lie too far apart for two frames corner to corner.';
  const place = (way: number) => {
    const { x, y } = toPicture(placing, {
      shiftMm: set.shiftMm + way * shift,
      riseMm: set.riseMm - way * rise,
    });
    return { x_mm: told(x), y_mm: told(y) };
  };
  return withMosaic(station, { ...base, pattern: 'free', places: [place(-1), place(1)] });
}

function pinwheel(station: Station): Station {
  const { frame_stops: stops } = station.movement_limits;
  const own = stops && 'turns' in stops ? stops : null;
  const base = begun(station);
  const turned = turnedBack(station.back);
  const mosaic: Of<'pinwheel'> = { ...base, pattern: 'pinwheel' };
  const [x, y] = pinwheelOffset(mosaic, overlapOf(base), turned);
  return withMosaic(station, {
    ...mosaic,
    frames: own?.turns ?? DEFAULT_TURNS,
    offset_mm: own?.offset_mm ?? [hundredths(x), hundredths(y)],
  });
}

function ring(station: Station): Station | string {
  const base = begun(station);
  const carrier = carrierOf(uncropped(station), base.moves)!;
  const most = Math.min(
    carrier.radialMm,
    ...[carrier.rise, carrier.shift].map(([low, high]) => Math.min(-low, high)),
  );
  if (!(most > 0)) {
    return 'Nothing on this rig shifts up and down as well as left and right; a ring needs both.';
  }
  const side = leastOf(Object.values(turnedBack(station.back)));
  return withMosaic(station, {
    ...base,
    pattern: 'ring',
    frames: ringFrames(carrier),
    radius_mm: clicked(carrier, Number.isFinite(most) ? most : (1 - overlapOf(base)) * side),
    middle: true,
  });
}

function ownStops(station: Station): Station | string {
  const base = begun(station);
  const carrier = carrierOf(uncropped(station), base.moves)!;
  if (!carrier.stops) {
    return 'Nothing on this rig stops at places of its own; give its stops in the kit.';
  }
  if (carrier.stops.length > MOST_PLACES) {
    return `This back has ${carrier.stops.length} stops; at most ${MOST_PLACES} frames are laid out place by place. Lay out a grid.`;
  }
  return withMosaic(station, {
    ...base,
    pattern: 'free',
    places: carrier.stops.map((stop) => {
      const { x, y } = toPicture(carrier.placing, stop);
      return {
        x_mm: told(x),
        y_mm: told(y),
        ...(stop.rotationDeg === 0 ? {} : { rotation_deg: stop.rotationDeg }),
      };
    }),
  });
}

const turn = (station: Station): Station =>
  withMosaic(station, { ...baseOf(station), pattern: 'turn', moves: 'camera', columns: 3 });

const UNSETTABLE: ReadonlySet<string> = new Set([
  'lean_lost',
  'focus_lost',
  'out_of_reach',
  'between_stops',
]);

/** Only where every frame can be set on the gear in hand; else the sentence that says which cannot. */
const settable =
  (of: Preset['of']): Preset['of'] =>
  (station) => {
    const laid = of(station);
    if (typeof laid === 'string') return laid;
    const { problems } = reportMosaic(laid, laid.mosaic!);
    return problems.find(({ code }) => UNSETTABLE.has(code))?.message ?? laid;
  };

/**
 * Three frames side by side at the focus that is set, as far apart as the gear goes, planned with the
 * depth that is sharp there; a sentence where it cannot be.
 */
export function rowAtFocus(station: Station): Station | string {
  const { mosaic: _, ...single } = station;
  const laid = settable(grid(3, 1))(single);
  if (typeof laid === 'string') return laid;
  const s = setupOf(single);
  const depth = depthOfField(s.pupil, s.imageDistanceMm, s.fNumber, s.cocMm);
  return withMosaic(laid, {
    ...laid.mosaic!,
    near_m: depth.nearMm / 1000,
    ...(Number.isFinite(depth.farMm) ? { far_m: depth.farMm / 1000 } : {}),
  });
}

/** To add one: write it above and list it here. */
export const PRESETS: readonly Preset[] = [
  { id: 'row', label: 'Row of three', of: settable(grid(3, 1)) },
  { id: 'column', label: 'Column of two', of: settable(grid(1, 2)) },
  { id: 'grid', label: 'Two rows of three', of: settable(grid(3, 2)) },
  { id: 'diagonal', label: 'Diagonal pair', of: settable(diagonal) },
  { id: 'pinwheel', label: 'Pinwheel', of: pinwheel },
  { id: 'ring', label: 'Ring and middle', of: settable(ring) },
  { id: 'stops', label: 'Its own stops', of: ownStops },
  { id: 'turn', label: 'Camera turned', of: turn },
];
