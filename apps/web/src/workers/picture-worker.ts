/// <reference lib="webworker" />
import { backCocUm, blurRaster, coverDrawing, finderOf, type Station } from '@gangway/station';
import type { Answered, Asked } from './latest.js';
import { paintShapes } from '../drawing/paint-shapes.js';
import { FINER, smear, type Tint } from '../drawing/smear.js';

declare const self: DedicatedWorkerGlobalScope;

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
  // The same picture as it stands and softened, for small discs and for large ones.
  const steps = [pen.getImageData(0, 0, w, h), ...STEPS_PX.map((px) => softened(canvas, px))];
  const out = new ImageData(w, h);
  smear(out.data, {
    width: w,
    height: h,
    steps: steps.map(({ data }) => new Uint32Array(data.buffer)),
    raster,
    perMm,
    sharp: tint && { tint, cocUm: backCocUm(station) },
  });
  pen.putImageData(out, 0, 0);
  return canvas.transferToImageBitmap();
}

/** Parts across the longer side of a picture that will not stay. */
const ROUGH_ACROSS = 80;

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
