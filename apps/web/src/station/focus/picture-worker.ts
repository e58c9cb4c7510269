/// <reference lib="webworker" />
import {
  backCocUm,
  blurRaster,
  coverDrawing,
  finderOf,
  type BlurRaster,
  type Station,
} from '@gangway/station';
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
  /** Whether the hand rests: a picture that will not stay is painted roughly. */
  readonly rested: boolean;
}

self.onmessage = ({ data: { id, ask } }: MessageEvent<Asked<PictureAsk>>) => {
  const answer = picture(ask);
  self.postMessage({ id, answer } satisfies Answered<ImageBitmap>, [answer]);
};

/** The picture painted small and smeared part by part. */
function picture({ station, colours, tint, rested }: PictureAsk): ImageBitmap {
  const raster = rested ? blurRaster(station) : blurRaster(station, ROUGH_ACROSS);
  const { frame } = coverDrawing(station);
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

/** Parts across the longer side of a picture that will not stay. */
const ROUGH_ACROSS = 80;

/** Painted finer than its blur is known, so that lines stay lines. */
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
  { width, height, blurUm }: BlurRaster,
  perMm: number,
  tint: Tint | null,
  cocUm: number,
): ImageData {
  const { width: w, height: h } = steps[0]!;
  const out = new ImageData(w, h);
  // One word for each place, its colours from the lowest byte up.
  const words = steps.map(({ data }) => new Uint32Array(data.buffer));
  const to = out.data;
  const across = DISC.map(([dx]) => dx);
  const down = DISC.map(([, dy]) => dy);
  const count = DISC.length;
  for (let y = 0, place = 0; y < h; y++) {
    const row = Math.min(height - 1, Math.floor(y / FINER)) * width;
    for (let x = 0; x < w; x++, place++) {
      const blur = blurUm[row + Math.min(width - 1, Math.floor(x / FINER))]!;
      const radius = ((blur / 1000) * perMm) / 2;
      const from = words[radius < 4 ? 0 : radius < 11 ? 1 : 2]!;
      let [r, g, b, share] = [0, 0, 0, 1];
      if (radius < 0.6) {
        const word = from[place]!;
        r = word & 255;
        g = (word >> 8) & 255;
        b = (word >> 16) & 255;
      } else {
        share = 1 / count;
        for (let i = 0; i < count; i++) {
          const px = Math.min(w - 1, Math.max(0, Math.round(x + across[i]! * radius)));
          const py = Math.min(h - 1, Math.max(0, Math.round(y + down[i]! * radius)));
          const word = from[py * w + px]!;
          r += word & 255;
          g += (word >> 8) & 255;
          b += (word >> 16) & 255;
        }
      }
      const kept = tint && blur <= cocUm ? 1 - TINT_SHARE : 1;
      const at = 4 * place;
      to[at] = r * share * kept + (tint ? tint[0] * (1 - kept) : 0);
      to[at + 1] = g * share * kept + (tint ? tint[1] * (1 - kept) : 0);
      to[at + 2] = b * share * kept + (tint ? tint[2] * (1 - kept) : 0);
      to[at + 3] = 255;
    }
  }
  return out;
}

const TINT_SHARE = 0.38;
