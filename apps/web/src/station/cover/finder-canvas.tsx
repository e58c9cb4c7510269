import { useEffect, useRef } from 'react';
import type { CoverDrawing, Ellipse, Finder, Look, Pictured, Point } from '@gangway/station';
import { useAppSelector } from '../../store/store.js';
import type { Sheet } from './sheet.js';

interface Props {
  finder: Finder;
  drawing: CoverDrawing;
  sheet: Sheet;
  width: number;
  height: number;
}

/** Strokes in CSS pixels and the colours they take from the light. */
const STROKES: Record<Look, { colour: string; width: number; dash?: number[] }> = {
  wall: { colour: '--ink', width: 1.25 },
  side: { colour: '--ink', width: 1.25 },
  detail: { colour: '--quiet', width: 0.9 },
  ground: { colour: '--rule-strong', width: 0.7 },
  level: { colour: '--within', width: 1.5, dash: [7, 3] },
};

const FILLS: Partial<Record<Look, string>> = { wall: '--paper', side: '--page', ground: '--glass' };

/** How much of the picture beyond the frame is shown. */
const SURROUND = 0.38;

/**
 * The picture itself, in true perspective: full inside the frame, dimmer in what else the circle
 * holds. Painted, not built of elements, so that it keeps up with a hand.
 */
export function FinderCanvas({ finder, drawing, sheet, width, height }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const light = useAppSelector((state) => state.preferences.light);

  useEffect(() => {
    const element = canvas.current;
    const pen = element?.getContext('2d');
    if (!element || !pen) return;
    const ratio = window.devicePixelRatio || 1;
    const [w, h] = [Math.round(width * ratio), Math.round(height * ratio)];
    if (element.width !== w) element.width = w;
    if (element.height !== h) element.height = h;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string): string => style.getPropertyValue(name);
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.clearRect(0, 0, w, h);
    const [ox, oy] = [sheet.x(0), sheet.y(0)];
    const [dx, dy] = [sheet.x(1) - ox, sheet.y(1) - oy];
    // From here on a unit is a millimetre of the picture, upright.
    pen.setTransform(dx * ratio, 0, 0, dy * ratio, ox * ratio, oy * ratio);
    const px = 1 / sheet.pxPerMm;

    const scene = (alpha: number): void => {
      pen.globalAlpha = alpha;
      for (const shape of finder.shapes) paint(pen, shape, colour, px);
      pen.globalAlpha = 1;
    };
    pen.save();
    circlePath(pen, drawing.circle, drawing.open?.circle);
    pen.clip();
    pen.fillStyle = colour('--glass');
    pen.fillRect(-1e4, -1e4, 2e4, 2e4);
    scene(SURROUND);
    pen.restore();

    const { frame } = drawing;
    pen.save();
    pen.beginPath();
    pen.rect(
      frame.centre.x - frame.widthMm / 2,
      frame.centre.y - frame.heightMm / 2,
      frame.widthMm,
      frame.heightMm,
    );
    pen.clip();
    pen.globalAlpha = finder.empty ? 0.7 : 1;
    pen.fillStyle = colour('--paper');
    pen.fillRect(-1e4, -1e4, 2e4, 2e4);
    scene(1);
    pen.restore();
  }, [finder, drawing, sheet, width, height, light]);

  return (
    <canvas
      ref={canvas}
      aria-hidden
      style={{ width, height }}
      className="pointer-events-none absolute inset-0"
    />
  );
}

function paint(
  pen: CanvasRenderingContext2D,
  { points, look, filled }: Pictured,
  colour: (name: string) => string,
  px: number,
): void {
  pen.beginPath();
  pen.moveTo(points[0]!, points[1]!);
  for (let i = 2; i < points.length; i += 2) pen.lineTo(points[i]!, points[i + 1]!);
  const fill = FILLS[look];
  if (filled) {
    pen.closePath();
    if (fill) {
      // A face hides what is behind it, also where it is drawn faintly.
      const alpha = pen.globalAlpha;
      pen.globalAlpha = alpha < 1 ? 0.85 : 1;
      pen.fillStyle = colour(alpha < 1 ? '--glass' : fill);
      pen.fill();
      pen.globalAlpha = alpha;
    }
  }
  const stroke = STROKES[look];
  pen.strokeStyle = colour(stroke.colour);
  pen.lineWidth = stroke.width * px;
  pen.setLineDash((stroke.dash ?? []).map((each) => each * px));
  pen.stroke();
}

function circlePath(
  pen: CanvasRenderingContext2D,
  ellipse: Ellipse | null,
  open: readonly Point[] | undefined,
): void {
  pen.beginPath();
  if (ellipse) {
    pen.ellipse(
      ellipse.centre.x,
      ellipse.centre.y,
      ellipse.semiMajorMm,
      ellipse.semiMinorMm,
      (ellipse.turnDeg * Math.PI) / 180,
      0,
      2 * Math.PI,
    );
  } else open?.forEach(({ x, y }, i) => (i === 0 ? pen.moveTo(x, y) : pen.lineTo(x, y)));
  pen.closePath();
}
