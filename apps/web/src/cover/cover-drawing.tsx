import { useMemo } from 'react';
import {
  CORNER_NAMES,
  coverDrawing,
  fixed,
  circleGiven,
  circleTable,
  circleMeasured,
  fStop,
  signed,
  trimmed,
  withFrameAt,
  type CornerMark,
  type CoverDrawing as Drawing,
  type Point,
  type Station,
} from '@gangway/station';
import { AssumedRing } from '../ui/assumed-ring.js';
import { MeasuredRing } from '../ui/measured-ring.js';
import { useEditing } from '../store/editing.js';
import { gridToggled, groundGlassFlipped } from '../store/preferences.js';
import {
  selectCoverVerdict,
  selectFinder,
  selectOpen,
  selectReport,
  selectScales,
  selectShown,
  selectShownDrawing,
  selectShownReport,
  selectShownVerdict,
  selectStation,
} from '../store/selectors.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Drawn } from '../drawing/drawn.js';
import { CircleAndCore, Edge } from '../drawing/edge.js';
import { useSize } from '../drawing/use-size.js';
import { figureOf } from '../station/barrel/words.js';
import { Dimensions } from './dimensions.js';
import { FinderCanvas } from '../drawing/finder-canvas.js';
import { Overlays } from '../drawing/overlays.js';
import { PreviewBanner } from '../station/preview-banner.js';
import { ellipseProps, frameBox, makeSheet, pathOf } from '../drawing/finder-sheet.js';
import type { Sheet } from '../drawing/sheet.js';
import { Handle } from '../drawing/handle.js';

export function CoverDrawing() {
  const drawing = useAppSelector(selectShownDrawing);
  const finder = useAppSelector(selectFinder);
  const verdict = useAppSelector(selectShownVerdict);
  const previewing = useAppSelector((state) => selectOpen(state).preview !== null);
  const { groundGlass, grid } = useAppSelector((state) => state.preferences);
  const dispatch = useAppDispatch();
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const sheet = useMemo(
    () => makeSheet(drawing, width, height, groundGlass),
    [drawing, width, height, groundGlass],
  );
  const laid = { drawing, sheet, width };
  const tone = STANDING_TEXT[verdict.standing];
  return (
    <div className="relative flex flex-1 flex-col bg-stage contain-content">
      <Drawn
        {...{ box, size }}
        label="The frame in the image circle"
        describedBy="cover-drawing-text"
        role="group"
        className="min-h-[min(96vw,26rem)] flex-1 lg:min-h-0"
        under={<FinderCanvas {...{ finder, ...laid, height }} />}
        over={
          <>
            <Legend drawing={drawing} />
            <PreviewBanner />
            <DrawingText />
          </>
        }
      >
        <g className="text-[13px]">
          <Circles {...laid} />
          <FrameShape {...laid} tone={tone} />
          <Overlays {...{ finder, ...laid, height }} />
          <Dimensions {...laid} />
          {!previewing && <Centre {...laid} tone={tone} />}
        </g>
      </Drawn>
      <div className="flex flex-wrap gap-x-6 px-5 pb-1 lg:absolute lg:bottom-0">
        <button
          type="button"
          onClick={() => dispatch(groundGlassFlipped())}
          aria-pressed={groundGlass}
          className={CORNER_BUTTON}
        >
          {groundGlass ? 'As on the ground glass' : 'As the picture stands'}{' '}
          <span className="text-faint pointer-coarse:hidden">F</span>
        </button>
        <TurnBack />
        <button
          type="button"
          onClick={() => dispatch(gridToggled())}
          aria-pressed={grid}
          className={CORNER_BUTTON}
        >
          {grid ? 'Without thirds' : 'With thirds'}
        </button>
      </div>
    </div>
  );
}

function Circles({ drawing, sheet }: { drawing: Drawing; sheet: Sheet }) {
  const { neighbours, levelLine } = drawing;
  const far = drawing.baseMm * 6;
  const levelAt = (x: number): number =>
    sheet.y((levelLine?.atMm ?? 0) + (levelLine?.slope ?? 0) * x);
  return (
    <>
      {levelLine && (
        <line
          x1={sheet.x(-far)}
          x2={sheet.x(far)}
          y1={levelAt(-far)}
          y2={levelAt(far)}
          className="stroke-rule"
        />
      )}
      {neighbours.map(({ fNumber, ellipse }) => (
        <ellipse
          key={fNumber}
          {...ellipseProps(sheet, ellipse)}
          fill="none"
          className="stroke-faint"
          strokeDasharray="1 4"
        />
      ))}
      <CircleAndCore {...{ drawing, sheet }} />
    </>
  );
}

interface FrameProps {
  drawing: Drawing;
  sheet: Sheet;
  width: number;
  tone: string;
}

function FrameShape({ drawing, sheet, width, tone }: FrameProps) {
  // Its margin has a line of its own where the sheet is wide.
  const worst = useAppSelector(selectShownReport).coverage.worst_corner;
  const { frame, corners, envelope, axis } = drawing;
  const box = frameBox(sheet, frame);
  return (
    <>
      {corners.some(({ standing }) => standing === 'outside') && (
        <>
          <mask id="outside-circle">
            <rect {...box} fill="white" />
            <Edge drawing={drawing} sheet={sheet} of="circle" fill="black" />
          </mask>
          <rect
            {...box}
            fill="url(#hatch)"
            mask="url(#outside-circle)"
            data-testid="lost-corners"
          />
        </>
      )}
      {envelope.length > 2 && (
        <path
          d={pathOf(sheet, envelope)}
          className="fill-within/15 stroke-within"
          data-testid="envelope"
        />
      )}
      <g className={tone}>
        <rect {...box} fill="none" stroke="currentColor" strokeWidth={2.5} />
      </g>
      {corners.map((mark) => (
        <CornerFigure
          key={mark.corner}
          mark={mark}
          sheet={sheet}
          middle={frame.centre}
          roomy={box.width > 150 && box.height > 110 && (mark.corner !== worst || width < 640)}
        />
      ))}
      <path
        d={`M${sheet.x(axis.x) - 7},${sheet.y(axis.y)}h14M${sheet.x(axis.x)},${sheet.y(axis.y) - 7}v14`}
        className="stroke-ink"
      />
    </>
  );
}

/** A corner and its own margin, written inside the frame where there is room. */
function CornerFigure({
  mark: { at, marginMm, standing },
  sheet,
  middle,
  roomy,
}: {
  mark: CornerMark;
  sheet: Sheet;
  middle: Point;
  roomy: boolean;
}) {
  const [x, y] = [sheet.x(at.x), sheet.y(at.y)];
  const [inX, inY] = [Math.sign(sheet.x(middle.x) - x), Math.sign(sheet.y(middle.y) - y)];
  return (
    <g className={STANDING_TEXT[standing]}>
      <circle cx={x} cy={y} r={4} fill="currentColor" />
      {roomy && marginMm !== null && (
        <text
          x={x + 9 * inX}
          y={y + (inY > 0 ? 17 : -8)}
          textAnchor={inX > 0 ? 'start' : 'end'}
          className="text-[12px]"
        >
          {signed(marginMm, 1)}
        </text>
      )}
    </g>
  );
}

const DETENT_MM = 0.5;

/** The frame's centre, to be dragged within what is allowed, or moved with the arrow keys. */
function Centre({ drawing, sheet, tone }: { drawing: Drawing; sheet: Sheet; tone: string }) {
  const { movements } = useAppSelector(selectStation);
  const [cx, cy] = [sheet.x(drawing.frame.centre.x), sheet.y(drawing.frame.centre.y)];
  const rises = useAppSelector(selectScales).rise;
  const [rise, riseUnit] = figureOf('rise', movements.rise_mm, 'metric');
  const [shift, shiftUnit] = figureOf('shift', movements.shift_mm, 'metric');
  const [ox, oy] = [sheet.x(0), sheet.y(0)];
  const turned = Math.sign(sheet.scaleX);
  return (
    <g className={tone}>
      <line x1={ox} y1={oy} x2={cx} y2={cy} stroke="currentColor" strokeWidth={1.5} />
      <Handle
        label="Centre of the frame"
        what="place in two directions"
        pointer="/movements"
        value={movements.rise_mm}
        ends={rises.domain}
        valueText={`${rise} ${riseUnit}, ${shift} ${shiftUnit}`}
        scale={sheet.scaleX}
        scaleUp={sheet.scaleY}
        step={DETENT_MM * drawing.factor}
        write={frameMoved}
        writeStep={(from, dx, dy) => frameMoved(from, turned * dx, turned * dy)}
      >
        <g transform={`translate(${cx} ${cy})`}>
          <circle r={24} fill="transparent" />
          <circle r={10} className="fill-paper" stroke="currentColor" strokeWidth={3} />
          <circle r={2.5} fill="currentColor" />
        </g>
      </Handle>
    </g>
  );
}

/** The frame moved so far across the picture, mm, as far as circle and mechanism allow. */
function frameMoved(from: Station, dx: number, dy: number): Station {
  const drawing = coverDrawing(from);
  const { x, y } = drawing.frame.centre;
  return withFrameAt(from, drawing, { x: x + dx, y: y + dy });
}

/** The ring beside a figure of the legend. */
const RingSaid = () => (
  <span className="ml-1 inline-block text-costs">
    <AssumedRing />
    <span className="sr-only">assumed</span>
  </span>
);

const MeasuredSaid = () => (
  <span className="ml-1 inline-block text-within">
    <MeasuredRing />
    <span className="sr-only">measured</span>
  </span>
);

/** Where the circle at a stop comes from, where it is not plainly given. */
const Ring = ({ lens, at }: { lens: Station['lens']; at: number }) =>
  circleMeasured(lens, at) ? (
    <MeasuredSaid />
  ) : !circleGiven(circleTable(lens), at) ? (
    <RingSaid />
  ) : null;

function Legend({ drawing }: { drawing: Drawing }) {
  const { aperture, lens } = useAppSelector(selectShown);
  const { optics } = useAppSelector(selectShownReport);
  const sharp = (lens.measured?.sharpness ?? []).length > 0 && lens.measured?.use !== false;
  return (
    <dl className="pointer-events-none absolute top-3 left-5 grid grid-cols-[auto_auto] gap-x-3 text-[13px]">
      <dt className="font-semibold">{fStop(aperture)}</dt>
      <dd>
        <span className="text-quiet">circle</span> {fixed(optics.circle_diameter_mm, 1)}{' '}
        <span className="text-quiet">mm</span>
        <Ring lens={lens} at={aperture} />
      </dd>
      {drawing.neighbours.map(({ fNumber, diameterMm }) => (
        <div key={fNumber} className="hidden text-quiet sm:contents">
          <dt>{fStop(fNumber)}</dt>
          <dd>
            <span className="invisible">circle</span> {fixed(diameterMm, 1)}
            <Ring lens={lens} at={fNumber} />
          </dd>
        </div>
      ))}
      <div className="hidden text-costs sm:contents">
        <dt>core</dt>
        <dd>
          <span className="invisible">circle</span> {fixed(drawing.coreDiameterMm, 1)}
          {sharp ? (
            <MeasuredSaid />
          ) : (
            (lens.sharp_fraction === undefined || !circleGiven(circleTable(lens), aperture)) && (
              <RingSaid />
            )
          )}
        </dd>
      </div>
    </dl>
  );
}

const CORNER_BUTTON =
  'min-h-9 text-left text-[13px] text-quiet hover:text-ink pointer-coarse:min-h-11';

function TurnBack() {
  const { back } = useAppSelector(selectStation);
  const { change } = useEditing();
  const upright = back.orientation === 'portrait';
  return (
    <button
      type="button"
      className={CORNER_BUTTON}
      onClick={() =>
        change('Turn the back', '/back/orientation', (station) => ({
          ...station,
          back: { ...station.back, orientation: upright ? 'landscape' : 'portrait' },
        }))
      }
    >
      {upright ? 'Turn the back level' : 'Turn the back upright'}
    </button>
  );
}

/** The drawing in words, for those who cannot see it. */
function DrawingText() {
  const station = useAppSelector(selectStation);
  const { coverage, optics } = useAppSelector(selectReport);
  const verdict = useAppSelector(selectCoverVerdict);
  const { limits, limited_by: by } = coverage;
  const side = (name: string, mm: number | null, why: string): string =>
    mm === null
      ? `${name} ${why === 'nothing' ? 'has no end' : 'is not covered at zero'}`
      : `${name} to ${trimmed(mm, 1)} mm by the ${why}`;
  return (
    <p id="cover-drawing-text" className="sr-only">
      A circle of {fixed(optics.circle_diameter_mm, 1)} mm at {fStop(station.aperture)} with a frame
      of {station.back.width_mm} by {station.back.height_mm} mm,{' '}
      {station.back.orientation === 'portrait' ? 'upright' : 'level'}. {verdict.sentence} The corner
      nearest the edge is {CORNER_NAMES[coverage.worst_corner]}.{' '}
      {side('Rise', limits.rise_mm, by.rise)}; {side('fall', limits.fall_mm, by.fall)};{' '}
      {side('left', limits.left_mm, by.left)}; {side('right', limits.right_mm, by.right)}.
    </p>
  );
}
