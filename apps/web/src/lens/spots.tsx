import { useGesture } from '@use-gesture/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { fStop } from '@gangway/station';
import { usePanKeys, type PanZoom } from '../drawing/use-pan-zoom.js';
import { useSize } from '../drawing/use-size.js';
import { deskOf } from './desk.js';
import type { Crop, OpenedFile } from './messages.js';

/** A picture to be looked at closely, and what it is called. */
export interface Spot {
  readonly lens: string;
  readonly file: OpenedFile;
  readonly fNumber: number;
  /** Which lens, where two are beside each other. */
  readonly of?: string;
}

/** A place on the picture, as parts of its width and height. */
export interface SpotAt {
  readonly x: number;
  readonly y: number;
}

const PLACES: readonly (readonly [string, SpotAt])[] = [
  ['Middle', { x: 0.5, y: 0.5 }],
  ['Left', { x: 0.06, y: 0.5 }],
  ['Right', { x: 0.94, y: 0.5 }],
  ['Top left', { x: 0.06, y: 0.08 }],
  ['Top right', { x: 0.94, y: 0.08 }],
  ['Bottom left', { x: 0.06, y: 0.92 }],
  ['Bottom right', { x: 0.94, y: 0.92 }],
];

/** Shuffled by a number, so that the eye cannot know which is which. */
function shuffled<T>(all: readonly T[], seed: number): T[] {
  const out = [...all];
  let state = seed;
  for (let i = out.length - 1; i > 0; i--) {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    const k = Math.floor((state / 2 ** 32) * (i + 1));
    [out[i], out[k]] = [out[k]!, out[i]!];
  }
  return out;
}

/** The same spot of every picture, side by side; one is dragged, all go along. */
export function Spots({ spots }: { spots: readonly Spot[] }) {
  const [at, setAt] = useState<SpotAt>(PLACES[0]![1]);
  const [zoom, setZoom] = useState<1 | 2>(1);
  const [hidden, setHidden] = useState<number | null>(null);
  const shown = useMemo(() => (hidden === null ? spots : shuffled(spots, hidden)), [spots, hidden]);
  const place = PLACES.find(([, { x, y }]) => x === at.x && y === at.y)?.[0] ?? '';
  return (
    <section aria-label="The same spot" className="min-w-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pb-1 text-[13px] text-quiet">
        <span>The same spot</span>
        <label className="flex items-center gap-1.5">
          <span className="sr-only">Place</span>
          <select
            aria-label="Place"
            value={place}
            onChange={({ target }) =>
              setAt(PLACES.find(([name]) => name === target.value)?.[1] ?? at)
            }
            className="min-h-8 border-b border-rule bg-transparent font-medium text-ink pointer-coarse:min-h-11"
          >
            {place === '' && <option value="">where it was dragged to</option>}
            {PLACES.map(([name]) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
        {([1, 2] as const).map((each) => (
          <button
            key={each}
            type="button"
            aria-pressed={zoom === each}
            onClick={() => setZoom(each)}
            className="min-h-8 px-1 hover:text-ink aria-pressed:font-semibold aria-pressed:text-ink pointer-coarse:min-h-11"
          >
            {each}00 %
          </button>
        ))}
        <span className="max-sm:hidden">drag one, all follow</span>
        <button
          type="button"
          aria-pressed={hidden !== null}
          onClick={() => setHidden(hidden === null ? 1 + Math.floor(Math.random() * 1e9) : null)}
          className="min-h-8 px-1 font-medium text-ink underline underline-offset-4 pointer-coarse:min-h-11"
        >
          {hidden === null ? 'Hide the names' : 'Show the names'}
        </button>
      </div>
      <ul className="flex flex-wrap gap-2">
        {shown.map((spot, i) => (
          <li
            key={`${spot.lens} ${spot.file.index}`}
            className="min-w-[8.5rem] flex-1 basis-[8.5rem]"
          >
            <SpotView {...{ spot, at, zoom }} onAt={setAt} named={hidden === null} letter={letterOf(i)} />
          </li>
        ))}
      </ul>
    </section>
  );
} // prettier-ignore

const letterOf = (i: number): string => String.fromCharCode(65 + (i % 26));

interface ViewProps {
  readonly spot: Spot;
  readonly at: SpotAt;
  readonly zoom: 1 | 2;
  readonly onAt: (at: SpotAt) => void;
  readonly named: boolean;
  readonly letter: string;
}

/** More of the picture than is seen is fetched, so that a hand that pulls finds something there. */
const MARGIN = 1.8;

function SpotView({ spot, at, zoom, onAt, named, letter }: ViewProps) {
  const [box, size] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const { file, lens, fNumber, of } = spot;
  const [piece, setPiece] = useState<{ crop: Crop; bitmap: ImageBitmap } | null>(null);
  const [pxX, pxY] = [at.x * file.widthPx, at.y * file.heightPx];
  const [wide, high] = [size.width / zoom, size.height / zoom];
  const fits =
    piece !== null &&
    pxX - wide / 2 >= piece.crop.x &&
    pxY - high / 2 >= piece.crop.y &&
    pxX + wide / 2 <= piece.crop.x + piece.crop.width &&
    pxY + high / 2 <= piece.crop.y + piece.crop.height;
  const asking = useRef(false);
  useEffect(() => {
    if (fits || size.width < 1 || asking.current) return;
    asking.current = true;
    const [width, height] = [Math.ceil(MARGIN * wide), Math.ceil(MARGIN * high)];
    const crop = { index: file.index, x: Math.round(pxX - width / 2), y: Math.round(pxY - height / 2), every: 1, width, height }; // prettier-ignore
    deskOf(lens, 'series').crop(crop, (own, bitmap) => {
      asking.current = false;
      if (bitmap) setPiece({ crop: own, bitmap });
    });
  }, [fits, size, wide, high, pxX, pxY, file.index, lens]);
  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext('2d');
    if (!element || !pen || size.width < 1) return;
    const ratio = window.devicePixelRatio || 1;
    const [w, h] = [Math.round(size.width * ratio), Math.round(size.height * ratio)];
    if (element.width !== w || element.height !== h) [element.width, element.height] = [w, h];
    pen.clearRect(0, 0, w, h);
    if (!piece) return;
    pen.imageSmoothingEnabled = false;
    const by = zoom * ratio;
    const { crop, bitmap } = piece;
    pen.drawImage(bitmap, (crop.x - pxX) * by + w / 2, (crop.y - pxY) * by + h / 2, crop.width * by, crop.height * by); // prettier-ignore
  }, [piece, size, pxX, pxY, zoom]);
  const held = (value: number): number => Math.min(1, Math.max(0, value));
  const pan = (dx: number, dy: number): void => onAt({ x: held(at.x + dx / zoom / file.widthPx), y: held(at.y + dy / zoom / file.heightPx) }); // prettier-ignore
  useGesture(
    { onDrag: ({ delta: [dx, dy] }) => pan(-dx, -dy) },
    { target: box, drag: { pointer: { keys: false } } },
  );
  const keys = usePanKeys({ pan: (x: number, y: number) => pan(x, -y), zoom: () => undefined } as Pick<PanZoom, 'pan' | 'zoom'> as PanZoom); // prettier-ignore
  const name = named ? `${of ? `${of}, ` : ''}${fStop(fNumber)}` : letter;
  return (
    <figure>
      {/* It is looked over with the keys. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
      <div
        ref={box}
        role="group"
        aria-label={`${name}; arrows move all of them`}
        // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
        tabIndex={0}
        onKeyDown={keys}
        className="relative h-32 cursor-grab touch-none overflow-hidden border border-rule-strong bg-stage active:cursor-grabbing lg:h-36"
      >
        <canvas ref={canvas} aria-hidden style={{ width: size.width, height: size.height }} />
      </div>
      <figcaption className="figure truncate pt-0.5 text-[13px]">{name}</figcaption>
    </figure>
  );
}
