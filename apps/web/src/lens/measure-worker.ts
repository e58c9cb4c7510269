import { blocksOfPicture, measureEdge, measureFlat, measureSeries, measureZero, shownOf, type FlatShot, type SetAside, type Shown } from '@gangway/frames'; // prettier-ignore
import { openPictures, type Opened } from '../pictures/open.js';
import type { Crop, LensAsk, LensTold, Work } from './messages.js';

/** Measures lenses away from the page, and hands out pieces of the pictures to be looked at. */

const tell = (told: LensTold, transfer: Transferable[] = []): void =>
  self.postMessage(told, { transfer });

let opened: readonly Opened[] = [];
const progress = (done: number, of: number): void => tell({ told: 'progress', done, of });

async function open({ files }: Extract<LensAsk, { ask: 'open' }>): Promise<void> {
  let done = 0;
  const found = await openPictures(files, () => progress(++done, files.length));
  opened = found.opened;
  tell({
    told: 'opened',
    files: opened.map(({ file, facts, note }, index) => ({
      index,
      name: file.name,
      widthPx: file.widthPx,
      heightPx: file.heightPx,
      fNumber: facts.fNumber,
      note,
    })),
    aside: found.aside,
  });
}

const fileAt = (index: number) => opened[index]!.file;

async function flat(shots: Extract<Work, { what: 'flat' }>['shots']): Promise<void> {
  const byStop = new Map<number, FlatShot[]>();
  const aside: SetAside[] = [];
  for (const [i, { index, fNumber, at }] of shots.entries()) {
    const file = fileAt(index);
    try {
      const loaded = await file.load();
      byStop.set(fNumber, [...(byStop.get(fNumber) ?? []), { ...blocksOfPicture(file, loaded), ...at }]); // prettier-ignore
    } catch (error) {
      aside.push({ file: file.name, why: (error as Error).message });
    }
    progress(i + 1, shots.length);
  }
  const stops = [...byStop].sort(([a], [b]) => a - b);
  const found = stops.map(([fNumber, own]) => ({ fNumber, found: measureFlat(own) }));
  tell({ told: 'found', found: { flat: found }, aside });
}

async function work(asked: Work): Promise<void> {
  if (asked.what === 'flat') return flat(asked.shots);
  if (asked.what === 'edge') {
    const loaded = await fileAt(asked.index).load();
    const edge = measureEdge(loaded.piece(asked.area));
    return tell({ told: 'found', found: { edge }, aside: [] });
  }
  if (asked.what === 'series') {
    const files = asked.shots.map(({ index, ...rest }) => ({ ...rest, file: fileAt(index) }));
    const series = await measureSeries(files, { pitchMm: asked.pitchMm }, { progress });
    return tell({ told: 'found', found: { series }, aside: [] });
  }
  const files = asked.shots.map(({ index, deg }) => ({ file: fileAt(index), deg }));
  const zero = await measureZero(files, asked.axis, { progress });
  return tell({ told: 'found', found: { zero }, aside: [] });
}

/** Pixels of decoded pictures kept at once: 200 MB. */
const KEPT_PX = 50_000_000;
const kept = new Map<number, Shown>();

async function pictureAt(index: number): Promise<Shown> {
  const before = kept.get(index);
  kept.delete(index);
  const shown = before ?? shownOf(await opened[index]!.samples());
  kept.set(index, shown);
  let sum = [...kept.values()].reduce((all, { width, height }) => all + width * height, 0);
  for (const [other, { width, height }] of kept) {
    if (sum <= KEPT_PX || other === index) break;
    kept.delete(other);
    sum -= width * height;
  }
  return shown;
}

/** Means of every × every pixels; clear beyond the picture. */
function cropped(
  { width: w, height: h, data }: Shown,
  { x, y, every, width, height }: Crop,
): ImageData {
  // prettier-ignore
  const out = new ImageData(width, height);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const [left, top] = [x + i * every, y + j * every];
      if (left < 0 || top < 0 || left + every > w || top + every > h) continue;
      const sum = [0, 0, 0];
      for (let k = 0; k < every * every; k++) {
        const from = 4 * ((top + Math.floor(k / every)) * w + left + (k % every));
        for (let c = 0; c < 3; c++) sum[c]! += data[from + c]!;
      }
      const to = 4 * (j * width + i);
      for (let c = 0; c < 3; c++) out.data[to + c] = sum[c]! / (every * every);
      out.data[to + 3] = 255;
    }
  }
  return out;
}

async function crop({ id, crop: asked }: Extract<LensAsk, { ask: 'crop' }>): Promise<void> {
  try {
    const bitmap = await createImageBitmap(cropped(await pictureAt(asked.index), asked));
    tell({ told: 'crop', id, crop: asked, bitmap }, [bitmap]);
  } catch {
    tell({ told: 'crop', id, crop: asked, bitmap: null });
  }
}

const FAILED = 'These pictures could not be measured. Choose them again.';

/** One after the other: a picture is not decoded twice over at once. */
let queue: Promise<void> = Promise.resolve();

self.addEventListener('message', ({ data }: MessageEvent<LensAsk>) => {
  queue = queue
    .then(() =>
      data.ask === 'open' ? open(data) : data.ask === 'work' ? work(data.work) : crop(data),
    ) // prettier-ignore
    .catch(() => tell({ told: 'failed', why: FAILED }));
});
