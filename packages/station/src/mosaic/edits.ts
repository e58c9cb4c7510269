import { radians, toPicture, toSet, type Point, type SetMovement } from '@gangway/optics';
import type { Mosaic, Station } from '../document/station.js';
import { turnedBack } from '../optical/setup.js';
import { carrierOf, type Carrier } from './carrier.js';
import { DEFAULT_OVERLAP } from './customs.js';
import {
  DEFAULT_TURNS,
  layoutOf,
  overlapOf,
  pinwheelOffset,
  ringFrames,
  uncropped,
  type Layout,
} from './layout.js';
import { baseOf } from './offers/judged.js';

/** Changes of a mosaic as a hand makes them. */

type Of<P extends Mosaic['pattern']> = Extract<Mosaic, { pattern: P }>;
type Moves = 'rear' | 'lens';

const hundredths = (value: number): number => Math.round(value * 100) / 100 + 0;

/** Onto what the gear can be set to: its stop, its detent, else a hundredth of a millimetre. */
export function snapped(carrier: Carrier, set: SetMovement): SetMovement {
  const { stops, detentMm, turns, turnStopsDeg } = carrier;
  if (stops && stops.length > 0) {
    const off = (stop: SetMovement): number =>
      Math.hypot(stop.riseMm - set.riseMm, stop.shiftMm - set.shiftMm);
    const { riseMm, shiftMm } = stops.reduce((best, stop) => (off(stop) < off(best) ? stop : best));
    return { riseMm, shiftMm };
  }
  const at = (value: number): number =>
    detentMm === null ? hundredths(value) : Math.round(value / detentMm) * detentMm + 0;
  if (turns && turnStopsDeg.length > 0) {
    const tries = turnStopsDeg.map((deg): SetMovement => {
      const [x, y] = [Math.sin(radians(deg)), Math.cos(radians(deg))];
      const along = at(set.shiftMm * x + set.riseMm * y);
      return { riseMm: along * y + 0, shiftMm: along * x + 0 };
    });
    const off = (each: SetMovement): number =>
      Math.hypot(each.riseMm - set.riseMm, each.shiftMm - set.shiftMm);
    return tries.reduce((best, each) => (off(each) < off(best) - 1e-9 ? each : best));
  }
  return { riseMm: at(set.riseMm), shiftMm: at(set.shiftMm) };
}

/** What moves the frames: as the mosaic asks, else the rig's own. */
export function movingOf(station: Station, layout: Layout = layoutOf(station)): Carrier {
  if (layout.carrier) return layout.carrier;
  const own = station.movement_limits.moves === 'rear' ? 'rear' : 'lens';
  return carrierOf(uncropped(station), own)!;
}

/** All frames moved together across the picture. */
export function withLayoutMoved(station: Station, dx: number, dy: number): Station {
  const { mosaic } = station;
  if (!mosaic || mosaic.pattern === 'pinwheel' || mosaic.pattern === 'ring') return station;
  const layout = layoutOf(station);
  const carrier = movingOf(station, layout);
  const to = ({ x, y }: Point): SetMovement =>
    snapped(carrier, toSet(carrier.placing, { x: x + dx, y: y + dy }));
  if (mosaic.pattern === 'free') {
    const { places = [] } = mosaic;
    const first = layout.frames[0];
    if (!first) return station;
    // By as much for each: the first goes onto a place that can be set, the others follow it.
    const there = toPicture(carrier.placing, to(first.centre));
    const [mx, my] = [there.x - first.centre.x, there.y - first.centre.y];
    return {
      ...station,
      mosaic: {
        ...mosaic,
        places: places.map((place) => ({
          ...place,
          x_mm: told(place.x_mm + mx),
          y_mm: told(place.y_mm + my),
        })),
      },
    };
  }
  const [rise, shift] = carrier.fields;
  const set = to(toPicture(carrier.placing, carrier.set));
  return {
    ...station,
    movements: { ...station.movements, [rise]: set.riseMm, [shift]: set.shiftMm },
  };
}

const told = (value: number): number => Math.round(value * 1e4) / 1e4 + 0;

const withMosaic = (station: Station, mosaic: Mosaic): Station => ({ ...station, mosaic });

/** Every frame as a place of its own, to be moved one by one. */
export function asFree(station: Station): Station {
  const { mosaic } = station;
  if (!mosaic || mosaic.pattern === 'free' || mosaic.pattern === 'turn') return station;
  const { frames } = layoutOf(station);
  return withMosaic(station, {
    ...baseOf(station),
    pattern: 'free',
    moves: mosaic.moves,
    ...(mosaic.body_follows === undefined ? {} : { body_follows: mosaic.body_follows }),
    places: frames.map(({ centre, rotationDeg }) => ({
      x_mm: told(centre.x),
      y_mm: told(centre.y),
      ...(rotationDeg === 0 ? {} : { rotation_deg: told(rotationDeg) }),
    })),
  });
}

/** One frame of free places moved; of another pattern all of them. */
export function withFrameMoved(station: Station, index: number, dx: number, dy: number): Station {
  const { mosaic } = station;
  if (mosaic?.pattern !== 'free') return withLayoutMoved(station, dx, dy);
  const carrier = movingOf(station);
  const place = mosaic.places?.[index];
  if (!place) return station;
  const set = snapped(carrier, toSet(carrier.placing, { x: place.x_mm + dx, y: place.y_mm + dy }));
  const at = toPicture(carrier.placing, set);
  return withMosaic(station, {
    ...mosaic,
    places: mosaic.places!.map((each, i) =>
      i === index ? { ...each, x_mm: told(at.x), y_mm: told(at.y) } : each,
    ),
  });
}

/** A frame more, beside one: to its right, a wanted overlap in. */
export function withFrameAdded(station: Station, index: number): Station {
  const free = asFree(station);
  if (free.mosaic?.pattern !== 'free') return station;
  const { mosaic } = free;
  const layout = layoutOf(free);
  const from = layout.frames[index]?.centre ?? layout.middle;
  const places = [...(mosaic.places ?? [])];
  const x = places.length === 0 ? from.x : from.x + (1 - overlapOf(mosaic)) * layout.frame.widthMm;
  places.splice(index + 1, 0, { x_mm: told(x), y_mm: told(from.y) });
  const added = withMosaic(free, { ...mosaic, places });
  return withFrameMoved(added, Math.min(index + 1, places.length - 1), 0, 0);
}

export function withFrameTaken(station: Station, index: number): Station {
  const free = asFree(station);
  if (free.mosaic?.pattern !== 'free') return station;
  const places = (free.mosaic.places ?? []).filter((_, i) => i !== index);
  return withMosaic(free, { ...free.mosaic, places });
}

/** A frame turned by a quarter, clockwise. */
export function withFrameTurned(station: Station, index: number): Station {
  const free = asFree(station);
  if (free.mosaic?.pattern !== 'free') return station;
  const places = (free.mosaic.places ?? []).map((place, i) =>
    i === index ? { ...place, rotation_deg: ((place.rotation_deg ?? 0) + 90) % 360 } : place,
  );
  return withMosaic(free, { ...free.mosaic, places });
}

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
): number {
  if (count < 2) return 0;
  const { detentMm, stops, placing, set } = carrier;
  const perMm = Math.hypot(placing[axis].x, placing[axis].y);
  const [low, high] = carrier[axis];
  const now = axis === 'shift' ? set.shiftMm : set.riseMm;
  const reach = (2 * Math.min(high - now, now - low, carrier.radialMm)) / (count - 1);
  // An even number of frames lies half a step off the middle: whole clicks from it, all the same.
  const click = detentMm === null || stops ? 0 : detentMm * (count % 2 === 0 ? 2 : 1);
  const wanted = (1 - DEFAULT_OVERLAP) * (side / perMm);
  const step = Math.min(wanted, reach);
  const clicked = click > 0 ? Math.floor(step / click + 1e-9) * click : step;
  return clicked > 0 ? 1 - (clicked * perMm) / side : 1;
}

/** A block of frames as far apart as custom and the gear allow; a sentence where nothing moves that way. */
const grid =
  (columns: number, rows: number) =>
  (station: Station): Station | string => {
    const base = begun(station);
    const carrier = carrierOf(uncropped(station), base.moves)!;
    const { frame } = layoutOf(station, { ...base, pattern: 'grid' });
    const least = Math.max(
      base.overlap ?? DEFAULT_OVERLAP,
      overlapAlong(carrier, 'shift', columns, frame.widthMm),
      overlapAlong(carrier, 'rise', rows, frame.heightMm),
    );
    if (least > MOST_OVERLAP) {
      const [what, way] =
        columns > 1 && rows > 1
          ? ['far enough both ways', 'Lay out a row or a column, or turn the camera.']
          : columns > 1
            ? ['far enough sideways', 'Lay out a column, or turn the camera.']
            : ['far enough up and down', 'Lay out a row, or turn the camera.'];
      return `Nothing on this rig moves ${what} from where it is set. ${way}`;
    }
    const even = Math.abs(least - DEFAULT_OVERLAP) < 1e-9 && base.overlap === undefined;
    return withMosaic(station, {
      ...base,
      pattern: 'grid',
      columns,
      rows,
      ...(even ? {} : { overlap: least }),
    });
  };

/** Frames that share more than this bring nothing. */
const MOST_OVERLAP = 0.93;

/** Two frames corner to corner, the upper one on the left. */
function diagonal(station: Station): Station {
  const base = begun(station);
  const { frame, middle } = layoutOf(station, { ...base, pattern: 'grid' });
  // As far both ways as leaves the overlap that is wanted.
  const step = (1 - Math.sqrt(overlapOf(base))) / 2;
  const place = (way: number) => ({
    x_mm: hundredths(middle.x + way * step * frame.widthMm),
    y_mm: hundredths(middle.y - way * step * frame.heightMm),
  });
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
  const side = Math.min(...Object.values(turnedBack(station.back)));
  return withMosaic(station, {
    ...base,
    pattern: 'ring',
    frames: ringFrames(carrier),
    radius_mm: hundredths(Number.isFinite(most) ? most : (1 - overlapOf(base)) * side),
    middle: true,
  });
}

function ownStops(station: Station): Station | string {
  const base = begun(station);
  const carrier = carrierOf(uncropped(station), base.moves)!;
  if (!carrier.stops) {
    return 'Nothing on this rig stops at places of its own; give its stops in the kit.';
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

/** To add one: write it above and list it here. */
export const PRESETS: readonly Preset[] = [
  { id: 'row', label: 'Row of three', of: grid(3, 1) },
  { id: 'column', label: 'Column of two', of: grid(1, 2) },
  { id: 'grid', label: 'Two rows of three', of: grid(3, 2) },
  { id: 'diagonal', label: 'Diagonal pair', of: diagonal },
  { id: 'pinwheel', label: 'Pinwheel', of: pinwheel },
  { id: 'ring', label: 'Ring and middle', of: ring },
  { id: 'stops', label: 'Its own stops', of: ownStops },
  { id: 'turn', label: 'Camera turned', of: turn },
];
