import { useEffect, useMemo, useRef } from 'react';
import {
  atLaidFrame,
  degrees,
  finderOf,
  fixed,
  mosaicVerdict,
  type Finder,
} from '@gangway/station';
import { DimensionLine } from '../drawing/dimension-line.js';
import { Drawn } from '../drawing/drawn.js';
import { coloursOf } from '../drawing/finder-canvas.js';
import { paintShapes } from '../drawing/paint-shapes.js';
import { useSize } from '../drawing/use-size.js';
import type { Laid } from '../store/mosaic.js';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import type { Stepping } from './stepping.js';

/** Frames finer than this are drawn without their curve. */
const CURVE = 16;

/** Lies across the sheet: degrees along, mm on the cylinder up. */
interface Strip {
  readonly x: (deg: number) => number;
  readonly y: (mm: number) => number;
  readonly perDeg: number;
  readonly perMm: number;
}

function stripOf({ layout }: Laid, width: number, height: number): Strip {
  const { turn, frame, middle, imageDistanceMm: v } = layout;
  const span = turn!.horizontalDeg;
  const first = turn!.yawsDeg[0]! + firstEdge(layout);
  const mmAcross = (v * span * Math.PI) / 180;
  const perMm = Math.max(
    0.01,
    Math.min(
      (width - 60) / mmAcross,
      (height - Math.min(150, Math.max(96, 0.3 * height))) / (frame.heightMm * 1.02),
    ),
  );
  const perDeg = (perMm * v * Math.PI) / 180;
  const left = (width - span * perDeg) / 2;
  const base = height * 0.52 + middle.y * perMm;
  return { x: (deg) => left + (deg - first) * perDeg, y: (mm) => base - mm * perMm, perDeg, perMm };
}

const firstEdge = ({ middle, frame, imageDistanceMm: v }: Laid['layout']): number =>
  (Math.atan((middle.x - frame.widthMm / 2) / v) * 180) / Math.PI;

/** The upper or lower edge of a frame on the cylinder: it sinks towards the frame's ends. */
function edgePath({ layout }: Laid, strip: Strip, yaw: number): string {
  const { frame, middle, imageDistanceMm: v } = layout;
  const edge = (sign: 1 | -1, reverse: boolean): string[] =>
    Array.from({ length: CURVE + 1 }, (_, i) => {
      const t = (reverse ? CURVE - i : i) / CURVE - 0.5;
      const x = middle.x + t * frame.widthMm;
      const own = Math.atan(x / v);
      const y = (middle.y + (sign * frame.heightMm) / 2) * Math.cos(own);
      return `${strip.x(yaw + (own * 180) / Math.PI)},${strip.y(y)}`;
    });
  return `M${[...edge(1, false), ...edge(-1, true)].join('L')}Z`;
}

/** The camera turned about its pupil: frames side by side as they are shot, and the picture in them. */
export function TurnDrawing({ laid, stepping }: { laid: Laid; stepping: Stepping }) {
  const [box, size] = useSize<HTMLDivElement>();
  const strip = useMemo(() => stripOf(laid, size.width, size.height), [laid, size]);
  const { layout, picture, report } = laid;
  const turn = layout.turn!;
  const verdict = mosaicVerdict(report);
  const tone = STANDING_TEXT[verdict.standing];
  const flat = layout.mosaic.pattern === 'turn' && layout.mosaic.projection === 'flat';
  const rect = picture && {
    x: strip.x(flat ? -picture.horizontalDeg / 2 : turn.yawsDeg[0]! + firstEdge(layout)),
    y: strip.y(picture.centre.y + picture.heightMm / 2),
    width: picture.horizontalDeg * strip.perDeg,
    height: picture.heightMm * strip.perMm,
  };
  return (
    <Drawn
      {...{ box, size }}
      label={`${layout.frames.length} frames, the camera turned ${degrees(turn.stepDeg)} each. ${verdict.sentence}`}
      role="group"
      className="min-h-[min(80vw,22rem)] flex-1 lg:min-h-0"
      under={<StripCanvas {...{ laid, strip }} {...size} at={stepping.at} />}
      over={
        <p className="pointer-events-none absolute top-2 left-5 text-[13px] text-quiet">
          Turned about the pupil, each frame as it is shot, {degrees(turn.stepDeg)} apart
        </p>
      }
    >
      {turn.yawsDeg.slice(1).map((yaw, i) => {
        const last = turn.yawsDeg[i]!;
        const left = yaw - turn.frameDeg / 2;
        return (
          <rect
            key={yaw}
            x={strip.x(left)}
            y={strip.y(layout.middle.y + layout.frame.heightMm / 2)}
            width={(last + turn.frameDeg / 2 - left) * strip.perDeg}
            height={layout.frame.heightMm * strip.perMm}
            className="fill-within"
            opacity={0.14}
          />
        );
      })}
      {turn.yawsDeg.map((yaw, i) => (
        <path
          key={yaw}
          d={edgePath(laid, strip, yaw)}
          fill="none"
          className={stepping.at === i ? 'stroke-ink' : 'stroke-quiet'}
          strokeWidth={stepping.at === i ? 3 : 1.25}
        />
      ))}
      {rect && (
        <g className={tone}>
          <rect
            {...rect}
            fill="none"
            stroke="currentColor"
            strokeWidth={2.75}
            data-testid="picture"
          />
          <DimensionLine
            from={{ x: rect.x + rect.width, y: rect.y + rect.height }}
            to={{ x: rect.x, y: rect.y + rect.height }}
            offset={Math.max(
              22,
              strip.y(layout.middle.y - layout.frame.heightMm / 2) - rect.y - rect.height + 14,
            )}
            words={`${degrees(picture!.horizontalDeg)}, ${report.width_px === null ? `${fixed(picture!.widthMm, 0)} mm` : `${report.width_px} × ${report.height_px} px`}`}
            tone="text-ink"
          />
        </g>
      )}
      {turn.yawsDeg.map((yaw, i) => (
        <g
          key={yaw}
          aria-hidden
          transform={`translate(${strip.x(yaw)} ${strip.y(layout.middle.y + layout.frame.heightMm / 2) - 20})`}
        >
          <circle
            r={turn.yawsDeg.length > 16 ? 8 : 11}
            className={stepping.at === i ? 'fill-ink stroke-ink' : 'fill-paper stroke-ink'}
            strokeWidth={1.5}
          />
          <text
            y={4}
            textAnchor="middle"
            className={`figure text-[11px] ${stepping.at === i ? 'fill-on-strong!' : ''}`}
          >
            {i + 1}
          </text>
        </g>
      ))}
    </Drawn>
  );
}

/** Each frame's own picture, from seam to seam. */
function StripCanvas({
  laid,
  strip,
  width,
  height,
  at,
}: {
  laid: Laid;
  strip: Strip;
  width: number;
  height: number;
  at: number | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useAppSelector((state) => state.preferences.light);
  const finders = useMemo(
    (): Finder[] =>
      laid.layout.frames.map((_, i) => finderOf(atLaidFrame(laid.station, laid.layout, i))),
    [laid],
  );
  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext('2d');
    if (!element || !pen) return;
    const ratio = window.devicePixelRatio || 1;
    [element.width, element.height] = [Math.round(width * ratio), Math.round(height * ratio)];
    const colour = coloursOf(light);
    const { turn, frame, middle, imageDistanceMm: v } = laid.layout;
    const { yawsDeg, stepDeg, frameDeg } = turn!;
    const rad = Math.PI / 180;
    yawsDeg.forEach((yaw, i) => {
      const one = at === i;
      const half = frameDeg / 2;
      const from = i === 0 || one ? -half : -stepDeg / 2;
      const to = i === yawsDeg.length - 1 || one ? half : stepDeg / 2;
      if (at !== null && !one) pen.globalAlpha = 0.35;
      const [left, right] = [strip.x(yaw + from), strip.x(yaw + to)];
      const [x0, x1] = [v * Math.tan(from * rad), v * Math.tan(to * rad)];
      const perX = (right - left) / (x1 - x0);
      pen.setTransform(ratio, 0, 0, ratio, 0, 0);
      pen.save();
      pen.beginPath();
      pen.rect(
        left,
        strip.y(middle.y + frame.heightMm / 2),
        right - left,
        frame.heightMm * strip.perMm,
      );
      pen.clip();
      pen.fillStyle = colour('--paper');
      pen.fill();
      pen.setTransform(
        perX * ratio,
        0,
        0,
        -strip.perMm * ratio,
        (left - x0 * perX) * ratio,
        strip.y(0) * ratio,
      );
      paintShapes(pen, finders[i]!.shapes, colour, 1 / strip.perMm);
      pen.restore();
      pen.globalAlpha = 1;
    });
  }, [finders, laid, strip, width, height, light, at]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      style={{ width, height }}
      className="pointer-events-none absolute inset-0"
    />
  );
}
