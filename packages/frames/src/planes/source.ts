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
  /**
   * Light of a piece that lies inside.
   * @param every so many pixels each way one is taken; all unless given
   */
  piece(area: Area, every?: number): Plane;
  close(): void;
}

/** Samples each way that stand for a small pixel: more tell nothing new. */
const SAMPLES = 6;
/** Small rows read at once. */
const ROWS = 16;

/** The whole picture, made k times as small, read a few rows at a time. */
export function reducedWhole(
  { widthPx, heightPx }: Pick<FrameFile, 'widthPx' | 'heightPx'>,
  loaded: LoadedFrame,
  k: number,
): Plane {
  const every = Math.max(1, Math.floor(k / SAMPLES));
  const each = Math.floor(k / every);
  // What is left over of a small pixel when samples do not fill it.
  const size = each * every;
  const [width, height] = [Math.floor(widthPx / size), Math.floor(heightPx / size)];
  const out = planeOf(width, height);
  for (let row = 0; row < height; row += ROWS) {
    const rows = Math.min(ROWS, height - row);
    const area = { x: 0, y: row * size, width: width * size, height: rows * size };
    out.data.set(reduced(loaded.piece(area, every), each).data, row * width);
  }
  return out;
}

/** What `reducedWhole` makes of k: a whole number of samples. */
export function reducedBy(k: number): number {
  const every = Math.max(1, Math.floor(k / SAMPLES));
  return Math.floor(k / every) * every;
}
