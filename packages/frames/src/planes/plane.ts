/**
 * A picture, or a piece of one, as numbers: row by row from the top left. Light is linear, 0 to 1;
 * what the sensor could no longer tell apart is marked in `clipped`.
 */
export interface Plane {
  readonly width: number;
  readonly height: number;
  readonly data: Float32Array;
  /** 1 where any colour stands at the end of its range. */
  readonly clipped?: Uint8Array;
}

/** Pixels of a piece: from the top left, y down. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const planeOf = (width: number, height: number, data?: Float32Array): Plane => ({
  width,
  height,
  data: data ?? new Float32Array(width * height),
});

/** A piece of a plane; it must lie inside. */
export function cut({ width, data, clipped }: Plane, area: Area): Plane {
  const out = new Float32Array(area.width * area.height);
  const marks = clipped && new Uint8Array(out.length);
  for (let y = 0; y < area.height; y++) {
    const from = (area.y + y) * width + area.x;
    out.set(data.subarray(from, from + area.width), y * area.width);
    marks?.set(clipped!.subarray(from, from + area.width), y * area.width);
  }
  return {
    width: area.width,
    height: area.height,
    data: out,
    ...(marks ? { clipped: marks } : {}),
  };
}

/** A plane turned clockwise by quarter turns. */
export function quarterTurned(plane: Plane, quarters: number): Plane {
  const turns = ((quarters % 4) + 4) % 4;
  if (turns === 0) return plane;
  const { width: w, height: h, data, clipped } = plane;
  const [width, height] = turns === 2 ? [w, h] : [h, w];
  const out = new Float32Array(data.length);
  const marks = clipped && new Uint8Array(data.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const from =
        turns === 1 ? (h - 1 - x) * w + y : turns === 2 ? (h - 1 - y) * w + (w - 1 - x) : x * w + (w - 1 - y); // prettier-ignore
      out[y * width + x] = data[from]!;
      if (marks) marks[y * width + x] = clipped![from]!;
    }
  }
  return { width, height, data: out, ...(marks ? { clipped: marks } : {}) };
}

/** Sum of k × k values from a place on. */
function boxSum(data: ArrayLike<number>, from: number, width: number, k: number): number {
  let sum = 0;
  for (let j = 0, row = from; j < k; j++, row += width) {
    for (let i = row; i < row + k; i++) sum += data[i]!;
  }
  return sum;
}

/** Means of 2 × 2 pixels, which are asked for most. */
function halved({ width: w, height: h, data }: Plane): Plane {
  const [width, height] = [w >> 1, h >> 1];
  const out = new Float32Array(width * height);
  for (let y = 0, at = 0; y < height; y++) {
    for (let i = 2 * y * w, end = i + 2 * width; i < end; i += 2, at++) {
      out[at] = (data[i]! + data[i + 1]! + data[i + w]! + data[i + w + 1]!) / 4;
    }
  }
  return { width, height, data: out };
}

/** Means of k × k pixels; what is left over at the right and the foot is dropped. */
export function reduced(plane: Plane, k: number): Plane {
  if (k === 1) return plane;
  if (k === 2 && !plane.clipped) return halved(plane);
  const { width: w, data, clipped } = plane;
  const [width, height] = [Math.floor(w / k), Math.floor(plane.height / k)];
  const out = new Float32Array(width * height);
  const marks = clipped && new Uint8Array(out.length);
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at++) {
      const from = y * k * w + x * k;
      out[at] = boxSum(data, from, w, k) / (k * k);
      if (marks) marks[at] = boxSum(clipped!, from, w, k) > 0 ? 1 : 0;
    }
  }
  return { width, height, data: out, ...(marks ? { clipped: marks } : {}) };
}
