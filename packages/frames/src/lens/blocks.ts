import type { FrameFile, LoadedFrame } from '../planes/source.js';

/** Means of light over blocks of a whole picture. */
export interface Blocks {
  readonly columns: number;
  readonly rows: number;
  /** NaN where any of a block was clipped. */
  readonly light: Float32Array;
  readonly clipped: number;
  readonly pixels: number;
}

/** Blocks along the longer side. */
const LONG = 108;

/** Reads a picture row of blocks by row of blocks. */
export function blocksOfPicture(
  { widthPx, heightPx }: Pick<FrameFile, 'widthPx' | 'heightPx'>,
  loaded: LoadedFrame,
  long = LONG,
): Blocks {
  const size = Math.max(1, Math.max(widthPx, heightPx) / long);
  const [columns, rows] = [Math.max(1, Math.round(widthPx / size)), Math.max(1, Math.round(heightPx / size))]; // prettier-ignore
  const light = new Float32Array(columns * rows);
  let clipped = 0;
  const edge = (k: number, of: number, whole: number): number => Math.round((k * whole) / of);
  for (let j = 0; j < rows; j++) {
    const [top, foot] = [edge(j, rows, heightPx), edge(j + 1, rows, heightPx)];
    const strip = loaded.piece({ x: 0, y: top, width: widthPx, height: foot - top });
    for (let i = 0; i < columns; i++) {
      const [left, right] = [edge(i, columns, widthPx), edge(i + 1, columns, widthPx)];
      let [sum, lost] = [0, 0];
      for (let y = 0; y < foot - top; y++) {
        for (let at = y * widthPx + left, end = y * widthPx + right; at < end; at++) {
          sum += strip.data[at]!;
          lost += strip.clipped?.[at] ?? 0;
        }
      }
      clipped += lost;
      light[j * columns + i] = lost > 0 ? NaN : sum / ((foot - top) * (right - left));
    }
  }
  return { columns, rows, light, clipped, pixels: widthPx * heightPx };
}
