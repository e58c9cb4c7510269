import {
  allowedTravel,
  cornerAt,
  type Cone,
  leastDistanceThatFits,
  lensTravel,
  edgeFinder,
  rectangleFits,
  type Corner3,
  type FramingFrame,
  type FramingView,
  type Rectangle3,
  type Span,
  type Vec3,
} from '@gangway/optics';
import { sensorAxes } from '../optical/places.js';
import type { Facade, Station } from '../document/station.js';
import type { Setup } from '../optical/setup.js';

/** How the camera looks at a façade: what stays as it is when rise and distance change. */
export interface FacadeView {
  readonly view: FramingView;
  readonly frame: FramingFrame;
  readonly rectangle: Rectangle3;
  readonly distanceMm: number;
}

export interface FacadeReport {
  /** In one frame at an allowed rise: top and foot with their rooms, and the width. */
  fits: boolean;
  /** In the frame as everything is set. */
  framed: boolean;
  /** Null when part of the façade is not ahead of the lens. */
  rise_needed_mm: number | null;
  /** Null also when the foot is not wanted. */
  rise_before_foot_is_cut_mm: number | null;
  /** Null when it fits from nowhere. */
  distance_needed_m: number | null;
}

/** A way to frame the façade: what to do, what it brings and costs, and what it sets. */
export interface FacadeWay {
  id: string;
  title: string;
  detail: string;
  /** New values by JSON pointer into the station. */
  set: Record<string, unknown>;
}

const M = 1000;

function rectangleOf(station: Station, facade: Facade): Rectangle3 {
  const { right, up, normal } = sensorAxes(station);
  const corner = (xM: number, yM: number): Corner3 => {
    const [x, y] = [xM * M, (yM - station.camera.height_m) * M];
    return {
      base: [x * right[0] + y * right[1], x * up[0] + y * up[1], x * normal[0] + y * normal[1]],
      perMm: [right[2], up[2], normal[2]],
    };
  };
  const centre = facade.x_m ?? 0;
  const pair = (yM: number): [Corner3, Corner3] => [
    corner(centre - facade.width_m / 2, yM),
    corner(centre + facade.width_m / 2, yM),
  ];
  return {
    top: pair(facade.top_m + (facade.headroom_m ?? 0)),
    foot: facade.base_m === undefined ? null : pair(facade.base_m - (facade.footroom_m ?? 0)),
  };
}

/** Rises allowed with the rest as set, within the circle or the sharp core. */
export function allowedRise(s: Setup, cone: Cone = s.cone): Span {
  const circle = allowedTravel(cone, s.frame, s.placing.rise);
  const [least, most] = s.mechanism.rise;
  const radial = Math.sqrt(Math.max(0, s.mechanism.radialMm ** 2 - s.set.shiftMm ** 2));
  return {
    low: Math.max(circle.low + s.set.riseMm, least, -radial),
    high: Math.min(circle.high + s.set.riseMm, most, radial),
  };
}

export function facadeView(s: Setup, facade: Facade): FacadeView {
  const { station } = s;
  const { x, y } = s.slide;
  const { moves } = station.movement_limits;
  const [shift, rise] = [lensTravel(s.stance, 'shift', moves), lensTravel(s.stance, 'rise', moves)];
  const at = (i: 0 | 1 | 2): number =>
    s.lensCentre[i] - s.set.shiftMm * shift[i] - s.set.riseMm * rise[i];
  const base: Vec3 = [at(0), at(1), at(2)];
  return {
    view: {
      imageDistanceMm: s.imageDistanceMm,
      lens: { base, shift, rise },
      back: { ...s.placing, base: { x: s.placing.base.x - x, y: s.placing.base.y - y } },
    },
    frame: {
      edges: {
        left: x - s.frame.widthMm / 2,
        right: x + s.frame.widthMm / 2,
        bottom: y - s.frame.heightMm / 2,
        top: y + s.frame.heightMm / 2,
      },
      set: s.set,
    },
    rectangle: rectangleOf(station, facade),
    distanceMm: facade.distance_m * M,
  };
}

/** Movements, as set, that bring each side of the façade to its edge of the frame. */
export interface MovementsAsked {
  /** The least rise with the top in, and the largest with the foot in; the top itself where no foot is wanted. */
  readonly top: number;
  readonly foot: number;
  /** The least shift with the right side in, and the largest with the left side in. */
  readonly right: number;
  readonly left: number;
}

/** Null when a corner of the façade is not ahead of the lens. */
export function movementsAsked({
  view,
  frame,
  rectangle,
  distanceMm,
}: FacadeView): MovementsAsked | null {
  const { edges, set } = frame;
  const there = (corner: Corner3): Vec3 => cornerAt(corner, distanceMm);
  const tops = rectangle.top.map(there);
  const feet = rectangle.foot?.map(there) ?? [];
  const [rise, shift] = [edgeFinder(view, 'rise', set), edgeFinder(view, 'shift', set)];
  let [top, foot, right, left] = [-Infinity, Infinity, -Infinity, Infinity];
  for (const place of tops) {
    const asked = rise(place, edges.top);
    if (asked === null) return null;
    top = Math.max(top, asked);
  }
  // Where the foot is not wanted the top itself must still lie above the frame's foot.
  for (const place of rectangle.foot ? feet : tops) {
    const asked = rise(place, edges.bottom);
    if (asked === null) return null;
    foot = Math.min(foot, asked);
  }
  for (const places of [tops, feet]) {
    for (const place of places) {
      const [most, least] = [shift(place, edges.right), shift(place, edges.left)];
      if (most === null || least === null) return null;
      right = Math.max(right, most);
      left = Math.min(left, least);
    }
  }
  return { top, foot, right, left };
}

/** A hair outside is inside: what settings rounded to a thousandth of a mm leave. */
const HAIR_MM = 1e-6;

/** Whether the façade with its rooms lies in the frame as everything is set. */
export function framed(s: Setup): boolean {
  const { station } = s;
  if (!station.facade) return true;
  const asks = movementsAsked(facadeView(s, station.facade));
  if (!asks) return false;
  return holds(asks, s);
}

/** Whether the movements as set are what a façade asks for. */
const holds = (asks: MovementsAsked, { set: { riseMm: r, shiftMm: x } }: Setup): boolean =>
  r >= asks.top - HAIR_MM &&
  r <= asks.foot + HAIR_MM &&
  x >= asks.right - HAIR_MM &&
  x <= asks.left + HAIR_MM;

/** What of a façade a station frames, and from where it would. */
export function reportFacade(s: Setup, facade: Facade): FacadeReport {
  const seen = facadeView(s, facade);
  const { view, frame, rectangle, distanceMm } = seen;
  const rise = allowedRise(s);
  const asks = movementsAsked(seen);
  const least = leastDistanceThatFits(view, frame, rectangle, rise);
  return {
    fits: rectangleFits(view, frame, rectangle, rise, distanceMm),
    framed: asks !== null && holds(asks, s),
    rise_needed_mm: asks && asks.top,
    rise_before_foot_is_cut_mm: asks && rectangle.foot ? asks.foot : null,
    distance_needed_m: least === null ? null : least / M,
  };
}
