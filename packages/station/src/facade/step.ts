import type { Station } from '../document/station.js';
import { rounded } from '../words/rounded.js';

const round = (m: number): number => rounded(m, 6);

/**
 * The camera taken back along the line ahead (negative: closer): everything in front stands that
 * much further off. The focus stays as it is set. Null where there is no room behind.
 */
export function stepped(station: Station, backM: number): Station | null {
  const { facade, site, marks } = station;
  const room = site?.room;
  if (room && (room.behind_m - backM < 0.3 || room.behind_m - backM > room.length_m)) return null;
  if (facade && facade.distance_m + backM <= 0) return null;
  const { measured: _, ...kept } = facade ?? {};
  return {
    ...station,
    ...(facade
      ? { facade: { ...(kept as typeof facade), distance_m: round(facade.distance_m + backM) } }
      : {}),
    ...(site
      ? {
          site: {
            ...site,
            ...(room ? { room: { ...room, behind_m: round(room.behind_m - backM) } } : {}),
            ...(site.boxes
              ? { boxes: site.boxes.map((box) => ({ ...box, z_m: round(box.z_m + backM) })) }
              : {}),
          },
        }
      : {}),
    ...(marks ? { marks: marks.map((mark) => ({ ...mark, z_m: round(mark.z_m + backM) })) } : {}),
  };
}

/** The camera raised by so much; null where the ceiling or the ground is in the way. */
export function raised(station: Station, upM: number): Station | null {
  const height_m = round(station.camera.height_m + upM);
  const ceiling = station.site?.room?.ceiling_m ?? Infinity;
  if (height_m > ceiling - 0.1 || (upM < 0 && height_m < 0.2)) return null;
  return { ...station, camera: { ...station.camera, height_m } };
}
