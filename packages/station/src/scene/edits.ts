import type { Box, Facade, Room, Site, Station } from '../document/station.js';
import { rounded } from '../words/rounded.js';

/** Changes to the site. Figures are kept to the millimetre. */

const round = (m: number): number => rounded(m, 3);

export const withFacade = (station: Station, change: Partial<Facade>): Station => {
  const { measured, ...facade } = station.facade ?? startFacade(station);
  // A distance moved by hand is no longer the one that was read.
  const kept = measured && change.distance_m === undefined ? { measured } : {};
  return { ...station, facade: { ...facade, ...kept, ...change } };
};

export const withSite = (station: Station, change: Partial<Site>): Station => ({
  ...station,
  site: { ...station.site, ...change },
});

/** An ordinary front at a distance the lens sees it from. */
export function startFacade({ lens, camera }: Station): Facade {
  const distance_m = Math.max(5, round(lens.focal_length_mm * 0.8));
  return {
    distance_m,
    top_m: round(camera.height_m + distance_m * 0.4),
    width_m: round(distance_m * 0.7),
    base_m: 0,
    headroom_m: 0.5,
    footroom_m: 0.5,
  };
}

export const startRoom = ({ camera }: Station): Room => ({
  length_m: 12,
  width_m: 7,
  ceiling_m: Math.max(4, round(camera.height_m + 2)),
  behind_m: 1,
  left_m: 3.5,
});

/** A chest-sized thing in clear view, each next one beside the last. */
export function startBox({ site, facade }: Station): Box {
  const boxes = site?.boxes ?? [];
  const z_m = round(Math.min(6, 0.6 * (facade?.distance_m ?? 10)));
  return {
    name: `Box ${boxes.length + 1}`,
    x_m: round(((boxes.length % 5) - 2) * 1.2),
    z_m,
    width_m: 1,
    depth_m: 0.6,
    height_m: 1.2,
  };
}

export const withBox = (station: Station, index: number, change: Partial<Box>): Station =>
  withSite(station, {
    boxes: (station.site?.boxes ?? []).map((box, i) => (i === index ? { ...box, ...change } : box)),
  });

export const movedBox = (station: Station, index: number, x: number, z: number): Station =>
  withBox(station, index, { x_m: round(x), z_m: round(z) });

/** The end wall of the room as the thing to frame. */
export function endWallAsFacade(station: Station): Station {
  const room = station.site?.room;
  if (!room) return station;
  return {
    ...station,
    facade: {
      distance_m: round(room.length_m - room.behind_m),
      top_m: room.ceiling_m,
      width_m: room.width_m,
      base_m: 0,
      x_m: round(room.width_m / 2 - room.left_m),
    },
  };
}

/** Without one of the optional parts. */
export function without<K extends 'facade' | 'crop' | 'turn_in' | 'mosaic'>(
  station: Station,
  key: K,
): Station {
  const { [key]: _, ...rest } = station;
  return rest as Station;
}

export function withoutRoom(station: Station): Station {
  const { room: _, ...site } = station.site ?? {};
  return { ...station, site };
}
