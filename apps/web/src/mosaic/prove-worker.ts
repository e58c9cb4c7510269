import {
  boxOf,
  composed,
  levelsOf,
  prove,
  shownOf,
  type LaidFrame,
  type Laying,
  type Look,
  type Shown,
} from '@gangway/frames';
import { loadedOf, openPictures, type Opened } from '../pictures/open.js';
import { proofPng, proofTiff, type Placed } from './proof-files.js';
import type { ProofAsk, Proved, ProofTold } from './proof-messages.js';

/** Proves a mosaic away from the page, and shows its frames laid together. */

/** Longest side of a frame that is kept to be looked at, pixels. */
const KEPT_PX = 1600;
/** Whole frames kept at once. */
const WHOLE = 4;
/** Longest side of what is saved, pixels. */
const SAVED_PX = 4096;
/** How far frames run into each other at a seam, as a share of the way to their edges. */
const BLEND = 0.15;

const tell = (told: ProofTold, transfer: Transferable[] = []): void =>
  self.postMessage(told, { transfer });

let shown: {
  readonly proved: Proved;
  readonly opened: ReadonlyMap<string, Opened>;
  readonly small: ReadonlyMap<string, readonly Shown[]>;
} | null = null;
const whole = new Map<string, Shown>();
let latest = 0;

async function proveAll({ files, plan }: Extract<ProofAsk, { ask: 'prove' }>): Promise<void> {
  const small = new Map<string, readonly Shown[]>();
  let done = 0;
  const of = 3 * files.length;
  const step = (): void => tell({ told: 'progress', done: Math.min(++done, of), of });
  const { opened, aside } = await openPictures(files, step);
  // As each is read it is kept small, to be looked at.
  const frames = opened.map(({ file, samples }) => ({
    ...file,
    load: async () => {
      const own = await samples();
      if (!small.has(file.name)) small.set(file.name, levelsOf(shownOf(own), KEPT_PX));
      return loadedOf(own);
    },
  }));
  const proof = await prove(frames, plan, { progress: step });
  const notes = opened.flatMap(({ file, note }) => (note === null ? [] : [{ file: file.name, what: note }])); // prettier-ignore
  const proved = { proof, notes, plan, aside: [...aside, ...proof.setAside] };
  shown = { proved, opened: new Map(opened.map((each) => [each.file.name, each])), small };
  tell({ told: 'proved', proved });
}

const layingOf = ({ proof, plan }: Proved, cut: boolean): Laying => ({
  pitchMm: proof.pitchMm,
  cylinderMm: plan.cylinderMm,
  seams: cut,
  blend: cut ? 0 : BLEND,
});

const sizeOf = ({ widthPx, heightPx }: LaidFrame['frame']): number => Math.max(widthPx, heightPx);

/** Frames with their copies; those in `named` with the whole file where it is at hand. */
function laid(named: ReadonlySet<string> = new Set()): LaidFrame[] {
  return shown!.proved.proof.frames.flatMap((frame) => {
    const levels = shown!.small.get(frame.file) ?? [];
    const own = named.has(frame.file) ? whole.get(frame.file) : undefined;
    const all = own && own.width > (levels[0]?.width ?? 0) ? [own, ...levels] : levels;
    return all.length > 0 ? [{ frame, levels: all }] : [];
  });
}

/** Files of which the small copy does not show every pixel that is asked for. */
function wanted(look: Look): string[] {
  const { proof, plan } = shown!.proved;
  const step = look.pitchMm / proof.pitchMm;
  const [right, foot] = [look.leftMm + look.width * look.pitchMm, look.topMm - look.height * look.pitchMm]; // prettier-ignore
  return proof.frames
    .filter((frame) => {
      const [level] = shown!.small.get(frame.file) ?? [];
      if (!level || (Math.max(level.width, level.height) / sizeOf(frame)) * step >= 1) return false;
      const box = boxOf([frame], { pitchMm: proof.pitchMm, cylinderMm: plan.cylinderMm })!;
      return box.leftMm < right && box.rightMm > look.leftMm && box.footMm < look.topMm && box.topMm > foot; // prettier-ignore
    })
    .map(({ file }) => file);
}

async function fetchWhole(name: string): Promise<void> {
  const kept = whole.get(name);
  whole.delete(name);
  while (whole.size >= WHOLE) whole.delete(whole.keys().next().value!);
  const own = kept ?? shownOf(await shown!.opened.get(name)!.samples());
  // Last used, last let go.
  whole.set(name, own);
}

async function lookAt({ id, look, cut }: Extract<ProofAsk, { ask: 'look' }>): Promise<void> {
  if (!shown) return;
  latest = id;
  const names = wanted(look).slice(0, WHOLE);
  const at = (which: ReadonlySet<string>, fine: boolean): void => {
    const { width, height, data } = composed(look, laid(which), layingOf(shown!.proved, cut));
    const pen = new OffscreenCanvas(width, height);
    pen.getContext('2d')!.putImageData(new ImageData(data, width, height), 0, 0);
    const bitmap = pen.transferToImageBitmap();
    tell({ told: 'looked', id, look, bitmap, fine }, [bitmap]);
  };
  if (names.every((name) => whole.has(name))) {
    at(new Set(names), true);
    return;
  }
  at(new Set(names.filter((name) => whole.has(name))), false);
  for (const name of names) {
    await fetchWhole(name).catch(() => undefined);
    if (latest !== id) return;
  }
  at(new Set(names), true);
}

async function save({ as, title }: Extract<ProofAsk, { ask: 'save' }>): Promise<void> {
  const { proof, plan } = shown!.proved;
  const laying = layingOf(shown!.proved, false);
  const box = boxOf(proof.frames, { pitchMm: proof.pitchMm, cylinderMm: plan.cylinderMm })!;
  const [acrossMm, upMm] = [box.rightMm - box.leftMm, box.topMm - box.footMm];
  const pitchMm = Math.max(proof.pitchMm, Math.max(acrossMm, upMm) / SAVED_PX);
  const [width, height] = [Math.round(acrossMm / pitchMm), Math.round(upMm / pitchMm)];
  const look = { leftMm: box.leftMm, topMm: box.topMm, pitchMm, width, height };
  const names = wanted(look);
  const out = new Uint8ClampedArray(4 * width * height);
  const ROWS = 256;
  for (let y = 0; y < height; y += ROWS) {
    const rows = Math.min(ROWS, height - y);
    const strip = { ...look, topMm: look.topMm - y * pitchMm, height: rows };
    const near = wanted(strip).filter((name) => names.includes(name));
    for (const name of near.slice(0, WHOLE)) await fetchWhole(name).catch(() => undefined);
    out.set(composed(strip, laid(new Set(near)), laying).data, 4 * y * width);
  }
  const placed: Placed = { picture: { width, height, data: out }, leftMm: box.leftMm, topMm: box.topMm, pitchMm, title }; // prettier-ignore
  const bytes = as === 'png' ? await proofPng(placed) : proofTiff(placed);
  tell({ told: 'saved', as, blob: new Blob([bytes], { type: `image/${as}` }) });
}

async function answer(ask: ProofAsk): Promise<void> {
  if (ask.ask === 'prove') {
    await proveAll(ask).catch(() => tell({ told: 'failed', why: 'These frames could not be proved. Choose them again.' })); // prettier-ignore
  } else if (ask.ask === 'look') await lookAt(ask);
  else await save(ask).catch(() => tell({ told: 'saved', as: ask.as, blob: null }));
}

self.addEventListener('message', ({ data }: MessageEvent<ProofAsk>) => void answer(data));
