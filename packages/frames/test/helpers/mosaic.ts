import { cut, quarterTurned, type Plane } from '../../src/planes/plane.js';
import type { FrameFile } from '../../src/planes/source.js';
import type { Plan, PlannedFrame, Xy } from '../../src/prove/plan.js';
import { lookAt, scene, type Look, type Scene } from './scene.js';

/** Mosaics cut from one scene, with what went wrong put in. */

/** Every so many pixels each way. */
function thinned({ width: w, height: h, data }: Plane, every = 1): Plane {
  const [width, height] = [Math.ceil(w / every), Math.ceil(h / every)];
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[y * width + x] = data[y * every * w + x * every]!; // prettier-ignore
  return { width, height, data: out };
}

export const fileOf = (name: string, plane: Plane, takenS: number | null = null): FrameFile => ({
  name,
  widthPx: plane.width,
  heightPx: plane.height,
  takenS,
  load: () => Promise.resolve({ piece: (area, every) => thinned(cut(plane, area), every), close: () => undefined }), // prettier-ignore
});

export interface Grid {
  readonly columns: number;
  readonly rows: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly overlap: number;
  readonly pitchMm?: number;
}

/** Row by row from the top left, upright. */
export function gridPlan(
  { columns, rows, widthPx, heightPx, overlap, pitchMm = 0.01 }: Grid,
  more: Partial<Plan> = {},
): Plan {
  const [widthMm, heightMm] = [widthPx * pitchMm, heightPx * pitchMm];
  const frames: PlannedFrame[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      frames.push({
        order: frames.length + 1,
        // Steps of whole pixels: what is off is then known exactly.
        xMm: Math.round((column - (columns - 1) / 2) * widthPx * (1 - overlap)) * pitchMm,
        yMm: Math.round(((rows - 1) / 2 - row) * heightPx * (1 - overlap)) * pitchMm,
        rotationDeg: 0,
      });
    }
  }
  const pairs = frames.flatMap((_, i) => {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    return [
      ...(column < columns - 1 ? [{ a: i, b: i + 1, partsMm: 0, farMm: 0 }] : []),
      ...(row < rows - 1 ? [{ a: i, b: i + columns, partsMm: 0, farMm: 0 }] : []),
    ];
  });
  return {
    frames,
    pairs,
    widthMm,
    heightMm,
    widthPx,
    lensTravels: false,
    cylinderMm: null,
    ...more,
  };
}

export interface Shot {
  /** How far the frame lay from the plan, pixels, y up. */
  readonly off?: Xy;
  /** Brighter, stops. */
  readonly stops?: number;
  /** Turned clockwise beyond the plan, degrees. */
  readonly turnDeg?: number;
  readonly seen?: Look['seen'];
}

/** Light towards the corners of a frame, as a lens that goes along with it gives. */
export const falling = (width: number, height: number, stops: number) => {
  const corner = Math.hypot(width, height) / 2;
  return (x: number, y: number): number =>
    2 ** (-stops * (Math.hypot(x - (width - 1) / 2, y - (height - 1) / 2) / corner) ** 2);
};

/** A frame of a plan as the camera would have recorded it. */
export function shotPlane(
  plan: Plan,
  of: Scene,
  i: number,
  shot: Shot = {},
  look: Partial<Look> & { falloff?: number } = {},
): Plane {
  const pitch = plan.widthMm / plan.widthPx!;
  const { xMm, yMm, rotationDeg } = plan.frames[i]!;
  const { off = { x: 0, y: 0 }, stops = 0, turnDeg = 0, seen } = shot;
  const quarters = Math.round(rotationDeg / 90);
  const [width, height] = [plan.widthPx!, Math.round(plan.heightMm / pitch)];
  const middle = { x: xMm / pitch + off.x, y: -(yMm / pitch + off.y) };
  const gain = falling(width, height, look.falloff ?? 0);
  const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
  const scenePlane = lookAt(
    turnDeg === 0
      ? of
      : {
          // A frame turned clockwise reads the scene along axes turned clockwise.
          at: (x, y) => {
            const [u, v] = [x - middle.x, y - middle.y];
            return of.at(middle.x + c * u - s * v, middle.y + s * u + c * v);
          },
        },
    {
      noise: 0.004,
      seed: 1 + i,
      ...look,
      width,
      height,
      x: middle.x - (width - 1) / 2,
      y: middle.y - (height - 1) / 2,
      gain: (x, y) => gain(x, y) * 2 ** stops,
      ...(seen ? { seen } : {}),
    },
  );
  return quarterTurned(scenePlane, -quarters);
}

export interface Cut {
  readonly seed: number;
  readonly shots?: Readonly<Record<number, Shot>>;
  readonly look?: Partial<Look> & { falloff?: number };
  readonly finestPx?: number;
}

/** All frames of a plan, as files in the order of shooting. */
export function shoot(
  plan: Plan,
  { seed, shots = {}, look = {}, finestPx = 1.5 }: Cut,
): FrameFile[] {
  const of = scene(seed, { finestPx });
  return plan.frames.map(
    ({ order }, i) =>
    fileOf(`frame-${order}.tif`, shotPlane(plan, of, i, shots[i], { ...look, seed: seed * 100 + i })), // prettier-ignore
  );
}
