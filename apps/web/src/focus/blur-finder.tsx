import isEqual from 'fast-deep-equal';
import { memo, useEffect, useMemo, useRef } from 'react';
import {
  coverDrawing,
  finderOf,
  onPlaneAhead,
  readingOf,
  withMark,
  type Finder,
  type Mark as StationMark,
  type Station,
} from '@gangway/station';
import { groundGlassFlipped, SHARP_TINTS, sharpTintChosen } from '../store/preferences.js';
import { selectShown } from '../store/selectors.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { usePaced, useRested } from '../ui/use-paced.js';
import { Drawn } from '../drawing/drawn.js';
import { useSize } from '../drawing/use-size.js';
import { useWorker } from '../workers/use-worker.js';
import { coloursOf } from '../drawing/finder-canvas.js';
import { frameSheet } from '../drawing/mini-finder.js';
import { SHAPE_COLOURS } from '../drawing/paint-shapes.js';
import { frameBox } from '../drawing/finder-sheet.js';
import type { Sheet } from '../drawing/sheet.js';
import { Handle } from '../drawing/handle.js';
import { tenthMm } from '../drawing/site-sheet.js';
import type { PictureAsk } from '../workers/picture-worker.js';
import { CROWD } from './section-mark.js';

/** The picture follows the hand at this pace; it is painted finely once the hand rests. */
const READ_MS = 150;
const RESTED_MS = 250;

const TINT_NAMES: Record<(typeof SHARP_TINTS)[number], string> = {
  none: 'unmarked',
  blue: 'in blue',
  magenta: 'in magenta',
  yellow: 'in yellow',
  white: 'in white',
};

const TINTS: Record<string, readonly [number, number, number]> = {
  blue: [40, 110, 235],
  magenta: [205, 45, 160],
  yellow: [225, 190, 20],
  white: [255, 255, 255],
};

/** The picture with its blur to scale, and what is sharp marked in the user's colour. */
export function BlurFinder() {
  const shown = useAppSelector(selectShown);
  const station = usePaced(shown, READ_MS);
  const rested = useRested(shown, RESTED_MS) === station;
  const tint = useAppSelector((state) => state.preferences.sharpTint);
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  const dispatch = useAppDispatch();
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const drawing = useMemo(() => coverDrawing(station), [station]);
  const finder = useMemo(() => finderOf(station), [station]);
  const sheet = useMemo(
    () => frameSheet(drawing, width, height, flip),
    [drawing, width, height, flip],
  );
  const holding = (readingOf(station).marks ?? []).filter(({ holds }) => holds).length;
  return (
    <figure className="flex shrink-0 border-rule max-lg:h-56 max-lg:border-t lg:w-60 lg:flex-col lg:border-l">
      <Drawn
        {...{ box, size }}
        label={`Finder with blur to scale. ${holding} of ${(station.marks ?? []).length} marks are as wanted.`}
        role="group"
        className="min-h-0 min-w-0 flex-1"
        under={<Picture {...{ station, rested }} box={frameBox(sheet, drawing.frame)} />}
      >
        <rect
          {...frameBox(sheet, drawing.frame)}
          fill="none"
          className="stroke-ink"
          strokeWidth={1.5}
        />
        <g className="text-[11px]">
          <Marks {...{ station, finder, sheet, width }} />
        </g>
      </Drawn>
      <figcaption className="flex shrink-0 flex-col justify-end p-3 pt-1 text-[13px] max-lg:w-40">
        <p className="text-quiet">Blur is drawn to the scale of this picture.</p>
        <label className="flex flex-wrap items-baseline gap-x-1">
          Sharp is
          <select
            value={tint}
            aria-label="How what is sharp is marked"
            onChange={(event) =>
              dispatch(sharpTintChosen(event.target.value as (typeof SHARP_TINTS)[number]))
            }
            className="min-h-8 border-b border-rule bg-stage font-medium pointer-coarse:min-h-11"
          >
            {SHARP_TINTS.map((key) => (
              <option key={key} value={key}>
                {TINT_NAMES[key]}
              </option>
            ))}
          </select>
        </label>
        <button
          type="button"
          aria-pressed={flip}
          onClick={() => dispatch(groundGlassFlipped())}
          className="min-h-8 text-left text-quiet hover:text-ink pointer-coarse:min-h-11"
        >
          {flip ? 'As on the ground glass' : 'As the picture stands'}{' '}
          <span className="text-faint pointer-coarse:hidden">F</span>
        </button>
      </figcaption>
    </figure>
  );
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Painted and smeared beside the page, and laid into the frame. */
function Picture({ station, rested, box }: { station: Station; rested: boolean; box: Box }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useAppSelector((state) => state.preferences.light);
  const tint = useAppSelector((state) => state.preferences.sharpTint);
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  const ask = useMemo((): PictureAsk => {
    const colour = coloursOf(light);
    const colours = Object.fromEntries(SHAPE_COLOURS.map((name) => [name, colour(name)]));
    return { station, colours, tint: TINTS[tint] ?? null, rested };
  }, [station, rested, light, tint]);
  const found = useWorker<PictureAsk, ImageBitmap>(pictureWorker, ask);
  useEffect(() => {
    const element = canvas.current;
    if (!element || !found) return;
    element.width = found.answer.width;
    element.height = found.answer.height;
    element.getContext('bitmaprenderer')?.transferFromImageBitmap(found.answer);
  }, [found]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      className="pointer-events-none absolute"
      style={{
        left: box.x,
        top: box.y,
        width: box.width,
        height: box.height,
        transform: flip ? 'rotate(180deg)' : undefined,
      }}
    />
  );
}

const pictureWorker = (): Worker =>
  new Worker(new URL('../workers/picture-worker.ts', import.meta.url), { type: 'module' });

/** Room that a name on the right of its mark may want. */
const NAME_PX = 64;

interface FinderMarkProps {
  index: number;
  mark: StationMark;
  x: number;
  y: number;
  radius: number;
  tone: string;
  /** Pixels for each millimetre of the picture, negative on a ground glass. */
  scale: number;
  left: boolean;
  named: boolean;
}

/** Marks with their blur discs to scale. */
function Marks({
  station,
  finder,
  sheet,
  width,
}: {
  station: Station;
  finder: Finder;
  sheet: Sheet;
  width: number;
}) {
  const report = readingOf(station).marks ?? [];
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  return finder.marks.map(({ at, index }) => {
    const { blur_um, holds } = report[index]!;
    const mark = station.marks![index]!;
    const x = sheet.x(at.x);
    return (
      <FinderMark
        key={index}
        {...{ index, mark, x }}
        y={sheet.y(at.y)}
        radius={Math.min(400, (((blur_um ?? 0) / 1000) * Math.abs(sheet.scaleX)) / 2)}
        tone={mark.must === 'free' ? 'text-quiet' : holds ? 'text-within' : 'text-outside'}
        scale={Math.abs(sheet.scaleX) * (flip ? -1 : 1)}
        left={x > width - NAME_PX}
        named={finder.marks.length <= CROWD}
      />
    );
  });
}

/** Held, a mark moves across at its own distance. */
const FinderMark = memo(function FinderMark(props: FinderMarkProps) {
  const { index, mark, x, y, radius, tone, scale, left, named } = props;
  const label = mark.label || `Mark ${index + 1}`;
  return (
    <g className={tone}>
      {radius > 1 && (
        <circle
          cx={x}
          cy={y}
          r={radius}
          fill="currentColor"
          fillOpacity={0.16}
          stroke="currentColor"
          strokeOpacity={0.5}
          aria-hidden
        />
      )}
      <Handle
        scale={scale}
        step={0.2}
        label={`${label}, in the finder`}
        value={mark.x_m}
        valueText={`${mark.x_m} m right, ${mark.y_m} m high`}
        write={(from, dx, dy) => across(from, index, dx, dy)}
      >
        <title>{label}</title>
        <circle cx={x} cy={y} r={named ? 12 : 6} fill="transparent" />
        <circle cx={x} cy={y} r={4} fill="none" stroke="currentColor" strokeWidth={2} />
        {named && (
          <text
            x={left ? x - 7 : x + 7}
            // Turned to the left it goes below, clear of the name that comes from there.
            y={left ? y + 15 : y - 5}
            textAnchor={left ? 'end' : 'start'}
            className="halo fill-ink"
            aria-hidden
          >
            {mark.label}
          </text>
        )}
      </Handle>
    </g>
  );
}, isEqual);

/** A mark moved in the picture, mm on the back, from where it was when the hand took hold. */
function across(from: Station, index: number, dx: number, dy: number): Station {
  const { infinite, z_m } = from.marks![index]!;
  const held = finderOf(from).marks.find((each) => each.index === index)?.at;
  const place =
    infinite || !held ? null : onPlaneAhead(from, { x: held.x + dx, y: held.y + dy }, z_m);
  return place ? withMark(from, index, { x_m: tenthMm(place.x), y_m: tenthMm(place.y) }) : from;
}
