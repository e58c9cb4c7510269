import { useMemo, useState } from 'react';
import {
  coverDrawing,
  fixed,
  fStop,
  mosaicVerdict,
  withLayoutMoved,
  troubleSaid,
  type CoverDrawing,
  type LaidFrame,
  type Seam,
  leastOf,
  mostOf,
} from '@gangway/station';
import { DimensionLine } from '../drawing/dimension-line.js';
import { Drawn } from '../drawing/drawn.js';
import { CircleAndCore, Edge } from '../drawing/edge.js';
import { FinderCanvas } from '../drawing/finder-canvas.js';
import { frameBox, pathOf } from '../drawing/finder-sheet.js';
import { MarkSigns } from '../drawing/overlays.js';
import { Handle } from '../drawing/handle.js';
import type { Sheet } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';
import type { Laid } from '../store/mosaic.js';
import { selectFinder, selectOpen, selectShown } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { layoutSheet, useSteadySheet } from './layout-sheet.js';
import { Numbered, placeSaid } from './numbered.js';
import { SeamShape } from './seam-shape.js';
import type { Stepping } from './stepping.js';

/** Frames in the circle over the picture they make. */
export function ShiftDrawing({ laid, stepping }: { laid: Laid; stepping: Stepping }) {
  const shown = useAppSelector(selectShown);
  const finder = useAppSelector(selectFinder);
  const previewing = useAppSelector((state) => selectOpen(state).preview !== null);
  const { groundGlass } = useAppSelector((state) => state.preferences);
  const [box, size] = useSize<HTMLDivElement>();
  const [whole, setWhole] = useState(false);
  const { layout, picture, report, seams, troubles } = laid;
  const drawing = useMemo(() => coverDrawing(shown), [shown]);
  const framed = useMemo(
    () => ({ ...drawing, frame: seenPart(laid, stepping.at) ?? drawing.frame }),
    [drawing, laid, stepping.at],
  );
  const sheet = useSteadySheet(layoutSheet(laid, drawing, size, groundGlass, whole));
  const verdict = mosaicVerdict(report);
  const tone = STANDING_TEXT[verdict.standing];
  const row = layout.frames.length > 1 && inOneRow(layout.frames);
  const free = layout.mosaic.pattern === 'free';
  const small = layout.frames.length > 12;
  // Of so many seams only those of the frame that is looked at are drawn one by one.
  const plain = (seam: Seam): boolean =>
    seams.length <= 12 ||
    stepping.at === seam.a ||
    stepping.at === seam.b ||
    troubles.some((each) => each.seam === seam);
  return (
    <Drawn
      {...{ box, size }}
      label={`${layout.frames.length} frames in the image circle. ${verdict.sentence}`}
      role="group"
      className="min-h-[min(96vw,26rem)] flex-1 lg:min-h-0"
      under={<FinderCanvas {...{ finder, sheet }} drawing={framed} {...size} />}
      over={
        <>
          <Legend drawing={drawing} stop={shown.aperture} />
          <button
            type="button"
            aria-pressed={whole}
            onClick={() => setWhole(!whole)}
            className="absolute top-2 right-3 min-h-9 bg-stage px-2 text-[13px] text-quiet hover:text-ink pointer-coarse:min-h-11"
          >
            {whole ? 'Closer' : 'Whole circle'}
          </button>
        </>
      }
    >
      {report.frames.some(({ covered }) => !covered) && <Lost {...{ drawing, sheet, layout }} />}
      <CircleAndCore {...{ drawing, sheet }} />
      {seams.length <= MOST_TINTED && (
        <path
          d={seams
            .filter((seam) => !plain(seam))
            .map((seam) => pathOf(sheet, seam.shared))
            .join('')}
          className="fill-within"
          opacity={0.12}
        />
      )}
      {seams.filter(plain).map((seam) => (
        <SeamShape
          key={`${seam.a} ${seam.b}`}
          {...{ seam, sheet }}
          told={!small && seams.length <= 12 && stepping.at === null}
          spoils={troubles.some((each) => each.seam === seam)}
        />
      ))}
      <path
        d={layout.frames.map(({ corners }) => pathOf(sheet, corners)).join('')}
        fill="none"
        className="stroke-quiet"
        strokeWidth={1.25}
      />
      {stepping.at !== null && (
        <path
          d={pathOf(sheet, layout.frames[stepping.at]!.corners)}
          fill="none"
          className="stroke-ink"
          strokeWidth={3}
        />
      )}
      {picture && (
        <g className={tone}>
          <rect
            {...frameBox(sheet, picture)}
            fill="none"
            stroke="currentColor"
            strokeWidth={2.75}
            data-testid="picture"
          />
          <Size {...{ laid, sheet }} />
        </g>
      )}
      <MarkSigns {...{ finder, sheet }} />
      {row && layout.frames.length <= 5 && size.width > 560 && (
        <Apart frames={layout.frames} sheet={sheet} />
      )}
      {troubles.map(({ at, index, ...trouble }) => (
        <g
          key={index}
          transform={`translate(${sheet.x(at.x)} ${sheet.y(at.y)})`}
          className="text-costs"
        >
          <circle r={7} fill="none" stroke="currentColor" strokeWidth={2} />
          <title>{troubleSaid({ at, index, ...trouble })}</title>
        </g>
      ))}
      {layout.frames.map(
        (frame, i) =>
          (layout.frames.length <= MOST_NUMBERED || free || i === stepping.at) && (
            <Numbered
              key={i}
              {...{ frame, sheet, small, row }}
              index={i}
              lit={report.frames[i]?.covered !== false}
              held={free && !previewing}
              stepping={stepping}
            />
          ),
      )}
      {!previewing && picture && MOVES.has(layout.mosaic.pattern) && (
        <Middle {...{ laid, sheet, tone }} />
      )}
    </Drawn>
  );
}

/** Tints of more seams than this lie over each other until they say nothing. */
const MOST_TINTED = 40;

/** Numbers of more frames than this would lie over each other; a place that is moved by hand keeps its own. */
const MOST_NUMBERED = 120;

/** Patterns that may lie anywhere; a ring and a pinwheel go round straight ahead. */
const MOVES: ReadonlySet<string> = new Set(['grid', 'free']);

/** What is shown in full: the picture, or one frame of it. */
function seenPart({ layout, picture }: Laid, at: number | null): CoverDrawing['frame'] | null {
  if (at === null) return picture;
  const { corners, centre } = layout.frames[at]!;
  const span = (axis: 'x' | 'y'): number => {
    const all = corners.map((corner) => corner[axis]);
    return mostOf(all) - leastOf(all);
  };
  return { centre, widthMm: span('x'), heightMm: span('y') };
}

const inOneRow = (frames: readonly LaidFrame[]): boolean =>
  frames.every(({ centre }) => Math.abs(centre.y - frames[0]!.centre.y) < 0.01);

/** How far each frame of a row stands from the next. */
const Apart = ({ frames, sheet }: { frames: readonly LaidFrame[]; sheet: Sheet }) =>
  frames.slice(1).map((frame, i) => {
    const last = frames[i]!;
    const top = leastOf(frame.corners.map((corner) => sheet.y(corner.y))) - 32;
    const by = Math.abs(frame.centre.x - last.centre.x);
    return (
      <DimensionLine
        key={i}
        from={{ x: sheet.x(last.centre.x), y: top }}
        to={{ x: sheet.x(frame.centre.x), y: top }}
        offset={8}
        words={`${fixed(by, 1)} mm`}
      />
    );
  });

/** What the frames lose outside the circle, hatched. */
function Lost({
  drawing,
  sheet,
  layout,
}: {
  drawing: CoverDrawing;
  sheet: Sheet;
  layout: Laid['layout'];
}) {
  const d = layout.frames.map(({ corners }) => pathOf(sheet, corners)).join('');
  return (
    <>
      <mask id="lit">
        <path d={d} fill="white" />
        <Edge drawing={drawing} sheet={sheet} of="circle" fill="black" />
      </mask>
      <path d={d} fill="url(#hatch)" mask="url(#lit)" data-testid="lost-corners" />
    </>
  );
}

/** The middle of the whole picture: all frames are dragged by it. */
function Middle({ laid, sheet, tone }: { laid: Laid; sheet: Sheet; tone: string }) {
  const { middle } = laid.layout;
  const [x, y] = [sheet.x(middle.x), sheet.y(middle.y)];
  const turned = Math.sign(sheet.scaleX);
  const box = frameBox(sheet, laid.picture!);
  // Beside the number of a frame that lies in the middle too.
  const below = Math.min(46, box.height / 4);
  return (
    <g className={tone}>
      <Handle
        label="Middle of the layout"
        what="place in two directions"
        pointer="/movements"
        value={middle.y}
        valueText={placeSaid(middle)}
        scale={sheet.scaleX}
        scaleUp={sheet.scaleY}
        step={0.5}
        write={withLayoutMoved}
        writeStep={(from, dx, dy) => withLayoutMoved(from, turned * dx, turned * dy)}
      >
        <g transform={`translate(${x} ${y + below})`}>
          <circle r={22} fill="transparent" />
          <path
            d="M-9,0H9M0,-9V9M-9,0l4,-3v6zM9,0l-4,-3v6zM0,-9l-3,4h6zM0,9l-3,-4h6z"
            className="halo"
            fill="currentColor"
            stroke="currentColor"
            strokeWidth={1.5}
          />
        </g>
      </Handle>
    </g>
  );
}

/** How large the picture is, under it. */
function Size({ laid: { picture, report }, sheet }: { laid: Laid; sheet: Sheet }) {
  const { x, y, width, height } = frameBox(sheet, picture!);
  const { width_px, height_px, width_mm, height_mm } = report;
  const grouped = (px: number): string => px.toLocaleString('en').replaceAll(',', ' ');
  const size = `${fixed(width_mm!, 1)} × ${fixed(height_mm!, 1)} mm`;
  const told =
    width_px === null || height_px === null
      ? size
      : `${size}, ${grouped(width_px)} × ${grouped(height_px)} px`;
  return (
    <DimensionLine
      from={{ x: x + width, y: y + height }}
      to={{ x, y: y + height }}
      offset={18}
      words={told}
      tone="text-ink"
    />
  );
}

function Legend({ drawing, stop }: { drawing: CoverDrawing; stop: number }) {
  const { circle } = drawing;
  return (
    <dl className="pointer-events-none absolute top-2 left-3 grid grid-cols-[auto_auto] gap-x-3 bg-stage px-2 py-1 text-[13px]">
      <dt className="font-semibold">{fStop(stop)}</dt>
      <dd>
        <span className="text-quiet">circle</span>{' '}
        {circle ? `${fixed(2 * circle.semiMajorMm, 1)} mm` : 'open'}
      </dd>
      <dt className="text-costs">core</dt>
      <dd className="text-costs">dotted</dd>
    </dl>
  );
}
