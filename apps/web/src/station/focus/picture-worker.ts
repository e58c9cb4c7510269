/// <reference lib="webworker" />
import { backCocUm, blurRaster, coverDrawing, finderOf, type Station } from '@gangway/station';
import type { Answered, Asked } from '../../ui/use-worker.js';
import { paintShapes } from '../cover/paint-shapes.js';

declare const self: DedicatedWorkerGlobalScope;

type Tint = readonly [number, number, number];

export interface PictureAsk {
  readonly station: Station;
  /** Colours of the light by their names in the style sheet. */
  readonly colours: Record<string, string>;
  /** What is sharp is tinted so; null: not at all. */
  readonly tint: Tint | null;
}

self.onmessage = ({ data: { id, ask } }: MessageEvent<Asked<PictureAsk>>) => {
  const answer = picture(ask);
  self.postMessage({ id, answer } satisfies Answered<ImageBitmap>, [answer]);
};

/** The picture painted small and smeared part by part. */
function picture({ station, colours, tint }: PictureAsk): ImageBitmap {
  const raster = blurRaster(station);
  const { frame } = coverDrawing(station);
  // Twice as fine as the blur is known, so that lines stay lines.
  const [w, h] = [raster.width * FINER, raster.height * FINER];
  const canvas = new OffscreenCanvas(w, h);
  const pen = canvas.getContext('2d', { willReadFrequently: true })!;
  const perMm = w / frame.widthMm;
  const [x, y] = [w / 2 - frame.centre.x * perMm, h / 2 + frame.centre.y * perMm];
  pen.fillStyle = colours['--paper']!;
  pen.fillRect(0, 0, w, h);
  pen.setTransform(perMm, 0, 0, -perMm, x, y);
  paintShapes(pen, finderOf(station).shapes, (name) => colours[name]!, 1 / perMm);
  const steps = [pen.getImageData(0, 0, w, h), ...STEPS_PX.map((px) => softened(canvas, px))];
  pen.putImageData(smeared(steps, raster, perMm, tint, backCocUm(station)), 0, 0);
  return canvas.transferToImageBitmap();
}

const FINER = 2;

/** Places of a disc looked at for one part of the picture. */
const DISC = Array.from({ length: 20 }, (_, i) => {
  // Evenly over the disc, by the golden angle.
  const r = Math.sqrt((i + 0.5) / 20);
  const turn = i * 2.39996;
  return [r * Math.cos(turn), r * Math.sin(turn)] as const;
});

/** Large discs are gathered from pictures softened a little beforehand, or they would show dots. */
const STEPS_PX = [1.5, 4] as const;

function softened(from: OffscreenCanvas, px: number): ImageData {
  const pen = new OffscreenCanvas(from.width, from.height).getContext('2d', {
    willReadFrequently: true,
  })!;
  pen.filter = `blur(${px}px)`;
  // Twice, so that the picture's edge does not fade.
  pen.drawImage(from, 0, 0);
  pen.globalCompositeOperation = 'destination-over';
  pen.filter = 'none';
  pen.drawImage(from, 0, 0);
  return pen.getImageData(0, 0, from.width, from.height);
}

function smeared(
  steps: readonly ImageData[],
  { width, height, blurUm }: { width: number; height: number; blurUm: Float32Array },
  perMm: number,
  tint: Tint | null,
  cocUm: number,
): ImageData {
  const { width: w, height: h } = steps[0]!;
  const out = new ImageData(w, h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const blur =
        blurUm[
          Math.min(height - 1, Math.floor(y / FINER)) * width +
            Math.min(width - 1, Math.floor(x / FINER))
        ]!;
      const radius = ((blur / 1000) * perMm) / 2;
      const to = (y * w + x) * 4;
      const { data } = steps[radius < 4 ? 0 : radius < 11 ? 1 : 2]!;
      let [r, g, b] = [0, 0, 0];
      if (radius < 0.6) {
        [r, g, b] = [data[to]!, data[to + 1]!, data[to + 2]!];
      } else {
        for (const [dx, dy] of DISC) {
          const px = Math.min(w - 1, Math.max(0, Math.round(x + dx * radius)));
          const py = Math.min(h - 1, Math.max(0, Math.round(y + dy * radius)));
          const from = (py * w + px) * 4;
          r += data[from]!;
          g += data[from + 1]!;
          b += data[from + 2]!;
        }
        [r, g, b] = [r / DISC.length, g / DISC.length, b / DISC.length];
      }
      if (tint && blur <= cocUm) {
        r += (tint[0] - r) * TINT_SHARE;
        g += (tint[1] - g) * TINT_SHARE;
        b += (tint[2] - b) * TINT_SHARE;
      }
      out.data[to] = r;
      out.data[to + 1] = g;
      out.data[to + 2] = b;
      out.data[to + 3] = 255;
    }
  }
  return out;
}

const TINT_SHARE = 0.38;
