import { radians, toPicture, toSet, type Point, type SetMovement } from '@gangway/optics';
import type { Mosaic, Station } from '../document/station.js';
import { carrierOf, type Carrier } from './carrier.js';
import { layoutOf, overlapOf, uncropped, type Layout } from './layout.js';
import { baseOf } from './offers/judged.js';

/** Changes of a mosaic as a hand makes them. */

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
  const beside = {
    x: places.length === 0 ? from.x : from.x + (1 - overlapOf(mosaic)) * layout.frame.widthMm,
    y: from.y,
  };
  const at = openStop(movingOf(free, layout), layout, beside);
  if (!at) return station;
  places.splice(index + 1, 0, { x_mm: told(at.x), y_mm: told(at.y) });
  const added = withMosaic(free, { ...mosaic, places });
  return withFrameMoved(added, Math.min(index + 1, places.length - 1), 0, 0);
}

/** The nearest stop that holds no frame yet; any place where nothing stops, null where all are taken. */
function openStop({ stops, placing }: Carrier, { frames }: Layout, wanted: Point): Point | null {
  if (!stops) return wanted;
  const open = stops
    .map((stop) => toPicture(placing, stop))
    .filter(({ x, y }) =>
      frames.every(({ centre }) => Math.hypot(centre.x - x, centre.y - y) > 0.01),
    );
  const off = ({ x, y }: Point): number => Math.hypot(x - wanted.x, y - wanted.y);
  return open.reduce<Point | null>((best, at) => (best && off(best) <= off(at) ? best : at), null);
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
