import { quarterTurned, type Area, type Plane } from '../planes/plane.js';
import type { LoadedFrame } from '../planes/source.js';
import { leastOf, mostOf } from '../numbers/extremes.js';

/**
 * A frame as it lies in the picture: turned upright, and rolled onto a cylinder where the camera turns.
 * Places are in pixels from the frame's middle, x right, y down.
 */
export interface View {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Quarter turns clockwise that bring the file upright. */
  readonly quarters: number;
  /** What is left to turn, clockwise, radians. */
  readonly restRad: number;
  /** Image distance in pixels where it is rolled onto a cylinder. */
  readonly cylinderPx: number | null;
}

/** Less of a turn than this moves no corner of any frame by a pixel. */
const NO_TURN_RAD = 1e-6;

/** @param rotationDeg clockwise */
export function viewOf(
  file: { readonly widthPx: number; readonly heightPx: number },
  rotationDeg: number,
  cylinderPx: number | null,
): View {
  const quarters = Math.round(rotationDeg / 90);
  const restRad = ((rotationDeg - quarters * 90) * Math.PI) / 180;
  const across = quarters % 2 !== 0;
  return {
    widthPx: across ? file.heightPx : file.widthPx,
    heightPx: across ? file.widthPx : file.heightPx,
    quarters: ((quarters % 4) + 4) % 4,
    restRad: Math.abs(restRad) < NO_TURN_RAD ? 0 : restRad,
    cylinderPx,
  };
}

/** Half the width and height that a view covers, pixels. */
export function halfSize({ widthPx, heightPx, cylinderPx: v }: View): { x: number; y: number } {
  if (v === null) return { x: widthPx / 2, y: heightPx / 2 };
  // On a cylinder a frame is as high everywhere as it is at its sides.
  const angle = Math.atan(widthPx / (2 * v));
  return { x: v * angle, y: (heightPx / 2) * Math.cos(angle) };
}

/** Where a place of the view lies on the frame turned by quarters, pixels from its middle. */
export function onFrame(
  { restRad, cylinderPx: v }: View,
  x: number,
  y: number,
): readonly [number, number] {
  if (v !== null) return [v * Math.tan(x / v), y / Math.cos(x / v)];
  const [c, s] = [Math.cos(restRad), Math.sin(restRad)];
  return [x * c + y * s, y * c - x * s];
}

/** A piece of the file as quarter turns lay it; null where it leaves the frame. */
function pieceUpright(
  view: View,
  loaded: LoadedFrame,
  { x, y, width, height }: Area,
): Plane | null {
  const { widthPx: w, heightPx: h, quarters } = view;
  if (x < 0 || y < 0 || x + width > w || y + height > h) return null;
  const areas: Record<number, Area> = {
    0: { x, y, width, height },
    1: { x: y, y: w - x - width, width: height, height: width },
    2: { x: w - x - width, y: h - y - height, width, height },
    3: { x: h - y - height, y: x, width: height, height: width },
  };
  return quarterTurned(loaded.piece(areas[quarters]!), quarters);
}

/**
 * A square tile of the view.
 * @param x of its middle, pixels from the frame's middle; whole or half pixels where nothing is resampled
 * @returns the tile and where its middle came to lie, or null where it leaves the frame
 */
export function tileOf(
  view: View,
  loaded: LoadedFrame,
  x: number,
  y: number,
  size: number,
): { readonly plane: Plane; readonly x: number; readonly y: number } | null {
  const [middleX, middleY] = [view.widthPx / 2, view.heightPx / 2];
  if (view.restRad === 0 && view.cylinderPx === null) {
    const left = Math.round(x + middleX - size / 2);
    const top = Math.round(y + middleY - size / 2);
    const plane = pieceUpright(view, loaded, { x: left, y: top, width: size, height: size });
    return plane && { plane, x: left + size / 2 - middleX, y: top + size / 2 - middleY };
  }
  return resampled(view, loaded, x, y, size);
}

function resampled(view: View, loaded: LoadedFrame, x: number, y: number, size: number) {
  const at = (i: number, j: number): readonly [number, number] => {
    const [u, v] = onFrame(view, x + i + 0.5 - size / 2, y + j + 0.5 - size / 2);
    return [u + view.widthPx / 2 - 0.5, v + view.heightPx / 2 - 0.5];
  };
  const corners = [0, size / 2, size - 1].flatMap((i) =>
    [0, size / 2, size - 1].map((j) => at(i, j)),
  );
  const left = Math.floor(leastOf(corners.map(([u]) => u))) - 1;
  const top = Math.floor(leastOf(corners.map(([, v]) => v))) - 1;
  const right = Math.ceil(mostOf(corners.map(([u]) => u))) + 2;
  const foot = Math.ceil(mostOf(corners.map(([, v]) => v))) + 2;
  const from = pieceUpright(view, loaded, {
    x: left,
    y: top,
    width: right - left,
    height: foot - top,
  });
  if (!from) return null;
  const data = new Float32Array(size * size);
  const clipped = new Uint8Array(size * size);
  for (let j = 0; j < size; j++) {
    for (let i = 0; i < size; i++) {
      const [u, v] = at(i, j);
      const [p, q] = [Math.floor(u) - left, Math.floor(v) - top];
      const [fu, fv] = [u - Math.floor(u), v - Math.floor(v)];
      const k = q * from.width + p;
      const below = k + from.width;
      data[j * size + i] =
        (1 - fv) * ((1 - fu) * from.data[k]! + fu * from.data[k + 1]!) +
        fv * ((1 - fu) * from.data[below]! + fu * from.data[below + 1]!);
      if (from.clipped) clipped[j * size + i] = from.clipped[k]! | from.clipped[k + 1]! | from.clipped[below]! | from.clipped[below + 1]!; // prettier-ignore
    }
  }
  return { plane: { width: size, height: size, data, clipped }, x, y };
}
