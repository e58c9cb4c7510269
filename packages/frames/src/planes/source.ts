import { planeOf, reduced, type Area, type Plane } from './plane.js';

/** A picture file that can be read a piece at a time. Who reads it turns it as its own note says. */
export interface FrameFile {
  readonly name: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** By the camera's clock, s; null where the file does not say. */
  readonly takenS: number | null;
  load(): Promise<LoadedFrame>;
}

/** A file while it is open. */
export interface LoadedFrame {
  /** Light of a piece that lies inside. */
  piece(area: Area): Plane;
  close(): void;
}

/** Rows read at once. */
const STRIP_PX = 256;

/** The whole picture, made k times as small, read strip by strip. */
export function reducedWhole(
  { widthPx, heightPx }: Pick<FrameFile, 'widthPx' | 'heightPx'>,
  loaded: LoadedFrame,
  k: number,
): Plane {
  const [width, height] = [Math.floor(widthPx / k), Math.floor(heightPx / k)];
  const out = planeOf(width, height);
  const rowsAtOnce = Math.max(1, Math.floor(STRIP_PX / k));
  for (let row = 0; row < height; row += rowsAtOnce) {
    const rows = Math.min(rowsAtOnce, height - row);
    const strip = loaded.piece({ x: 0, y: row * k, width: width * k, height: rows * k });
    out.data.set(reduced(strip, k).data, row * width);
  }
  return out;
}
