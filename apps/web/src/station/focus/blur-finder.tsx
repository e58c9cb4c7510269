import { useEffect, useMemo, useRef } from 'react';
import {
  blurRaster,
  coverDrawing,
  finderOf,
  onPlaneAhead,
  readings,
  backCocUm,
  withMark,
  type Station,
} from '@gangway/station';
import { groundGlassFlipped, SHARP_TINTS, sharpTintChosen } from '../../store/preferences.js';
import { selectShown } from '../../store/selectors.js';
import { useAppDispatch, useAppSelector } from '../../store/store.js';
import { usePaced } from '../../ui/use-paced.js';
import { useSize } from '../../ui/use-size.js';
import { paintShapes } from '../cover/finder-canvas.js';
import { frameSheet } from '../cover/mini-finder.js';
import { frameBox, type Sheet } from '../cover/sheet.js';
import { SiteHandle } from '../view/site-handle.js';
import { placed } from './section-mark.js';

const READ_MS = 80;

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
  const tint = useAppSelector((state) => state.preferences.sharpTint);
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  const dispatch = useAppDispatch();
  const [box, { width, height }] = useSize<HTMLDivElement>();
  const drawing = useMemo(() => coverDrawing(station), [station]);
  const finder = useMemo(() => finderOf(station), [station]);
  const sheet = useMemo(
    () => frameSheet(drawing, width, height, flip),
    [drawing, width, height, flip],
  );
  const holding = (readings(station).marks ?? []).filter(({ holds }) => holds).length;
  return (
    <figure className="flex shrink-0 border-rule max-lg:h-56 max-lg:border-t lg:w-60 lg:flex-col lg:border-l">
      <div ref={box} className="relative min-h-0 min-w-0 flex-1 overflow-hidden">
        {width > 0 && (
          <>
            <Picture station={station} sheet={sheet} box={frameBox(sheet, drawing.frame)} />
            <svg
              width={width}
              height={height}
              role="group"
              aria-label={`Finder with blur to scale. ${holding} of ${(station.marks ?? []).length} marks are as wanted.`}
              className="absolute inset-0 text-[11px]"
            >
              <rect
                {...frameBox(sheet, drawing.frame)}
                fill="none"
                className="stroke-ink"
                strokeWidth={1.5}
              />
              <Marks {...{ station, finder, sheet, width }} />
            </svg>
          </>
        )}
      </div>
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

/** Painted small, smeared part by part, and laid into the frame. */
function Picture({ station, sheet, box }: { station: Station; sheet: Sheet; box: Box }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useAppSelector((state) => state.preferences.light);
  const tint = useAppSelector((state) => state.preferences.sharpTint);
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  const raster = useMemo(() => blurRaster(station), [station]);
  const finder = useMemo(() => finderOf(station), [station]);
  const { frame } = useMemo(() => coverDrawing(station), [station]);
  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext('2d', { willReadFrequently: true });
    if (!element || !pen) return;
    // Twice as fine as the blur is known, so that lines stay lines.
    const [w, h] = [raster.width * FINER, raster.height * FINER];
    element.width = w;
    element.height = h;
    const perMm = w / frame.widthMm;
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--paper');
    pen.fillRect(0, 0, w, h);
    pen.setTransform(
      perMm,
      0,
      0,
      -perMm,
      w / 2 - frame.centre.x * perMm,
      h / 2 + frame.centre.y * perMm,
    );
    paintShapes(pen, finder.shapes, light, 1 / perMm);
    const steps = [pen.getImageData(0, 0, w, h), ...STEPS_PX.map((px) => softened(element, px))];
    pen.putImageData(smeared(steps, raster, perMm, TINTS[tint] ?? null, backCocUm(station)), 0, 0);
  }, [raster, finder, frame, light, tint, station]);
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
      data-scale={sheet.pxPerMm}
    />
  );
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

function softened(from: HTMLCanvasElement, px: number): ImageData {
  const canvas = document.createElement('canvas');
  canvas.width = from.width;
  canvas.height = from.height;
  const pen = canvas.getContext('2d', { willReadFrequently: true })!;
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
  tint: readonly [number, number, number] | null,
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

/** Room that a name on the right of its mark may want. */
const NAME_PX = 64;

/** Marks with their blur discs to scale; held, they move across at their own distance. */
function Marks({
  station,
  finder,
  sheet,
  width,
}: {
  station: Station;
  finder: ReturnType<typeof finderOf>;
  sheet: Sheet;
  width: number;
}) {
  const report = readings(station).marks ?? [];
  const flip = useAppSelector((state) => state.preferences.groundGlass);
  return finder.marks.map(({ label, at, index }) => {
    const { blur_um, holds } = report[index]!;
    const mark = station.marks![index]!;
    const [x, y] = [sheet.x(at.x), sheet.y(at.y)];
    const radius = Math.min(400, (((blur_um ?? 0) / 1000) * sheet.pxPerMm) / 2);
    const tone = mark.must === 'free' ? 'text-quiet' : holds ? 'text-within' : 'text-outside';
    return (
      <g key={index} className={tone}>
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
        <SiteHandle
          scale={sheet.pxPerMm * (flip ? -1 : 1)}
          step={0.2}
          label={`${label}, in the finder`}
          value={mark.x_m}
          valueText={`${mark.x_m} m right, ${mark.y_m} m high`}
          write={(from, dx, dy) => {
            const held = finderOf(from).marks.find((each) => each.index === index)?.at;
            const place =
              mark.infinite || !held
                ? null
                : onPlaneAhead(from, { x: held.x + dx, y: held.y + dy }, mark.z_m);
            return place
              ? withMark(from, index, {
                  x_m: placed(place.x),
                  y_m: placed(place.y),
                })
              : from;
          }}
        >
          <circle cx={x} cy={y} r={12} fill="transparent" />
          <circle cx={x} cy={y} r={4} fill="none" stroke="currentColor" strokeWidth={2} />
          <text
            x={x > width - NAME_PX ? x - 7 : x + 7}
            y={y - 5}
            textAnchor={x > width - NAME_PX ? 'end' : 'start'}
            className="halo fill-ink"
            aria-hidden
          >
            {label}
          </text>
        </SiteHandle>
      </g>
    );
  });
}
