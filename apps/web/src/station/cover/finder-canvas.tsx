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

/** How much of the picture beyond the frame is taken back. */
const VEIL = 0.62;

/** Past any sheet. */
const FAR_MM = 1e4;

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
    const colour = coloursOf(light);
    pen.setTransform(1, 0, 0, 1, 0, 0);
    pen.clearRect(0, 0, w, h);
    const [ox, oy] = [sheet.x(0), sheet.y(0)];
    const [dx, dy] = [sheet.x(1) - ox, sheet.y(1) - oy];
    // From here on a unit is a millimetre of the picture, upright.
    pen.setTransform(dx * ratio, 0, 0, dy * ratio, ox * ratio, oy * ratio);
    const px = 1 / sheet.pxPerMm;

    const { frame } = drawing;
    const inFrame = (): void => {
      pen.rect(
        frame.centre.x - frame.widthMm / 2,
        frame.centre.y - frame.heightMm / 2,
        frame.widthMm,
        frame.heightMm,
      );
    };
    pen.save();
    pen.beginPath();
    circlePath(pen, drawing.circle, drawing.open?.circle);
    pen.fillStyle = colour('--glass');
    pen.fill();
    inFrame();
    pen.clip();
    pen.beginPath();
    inFrame();
    pen.globalAlpha = finder.empty ? 0.7 : 1;
    pen.fillStyle = colour('--paper');
    pen.fill();
    pen.globalAlpha = 1;
    if (!finder.empty) {
      paintAll(pen, finder.shapes, colour, px);
      // A veil over what lies round the frame: painting it all twice would cost twice the time.
      pen.beginPath();
      pen.rect(-FAR_MM, -FAR_MM, 2 * FAR_MM, 2 * FAR_MM);
      inFrame();
      pen.globalAlpha = VEIL;
      pen.fillStyle = colour('--glass');
      pen.fill('evenodd');
    }
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

type Colour = (name: string) => string;

const known = new Map<string, Map<string, string>>();

/** Colours of a light by their names in the style sheet, each looked up once. */
function coloursOf(light: string): Colour {
  const names = known.get(light) ?? new Map<string, string>();
  known.set(light, names);
  return (name) => {
    const found = names.get(name);
    if (found !== undefined) return found;
    const value = getComputedStyle(document.documentElement).getPropertyValue(name);
    names.set(name, value);
    return value;
  };
}

/** The shapes alone, in the colours of a light. */
export const paintShapes = (
  pen: CanvasRenderingContext2D,
  shapes: readonly Pictured[],
  light: string,
  px: number,
): void => paintAll(pen, shapes, coloursOf(light), px);

/** Lines of one look that follow each other are one stroke: strokes are what takes time. */
function paintAll(
  pen: CanvasRenderingContext2D,
  shapes: readonly Pictured[],
  colour: Colour,
  px: number,
): void {
  let run: Look | null = null;
  const stroke = (look: Look): void => {
    const { colour: name, width, dash = [] } = STROKES[look];
    pen.strokeStyle = colour(name);
    pen.lineWidth = width * px;
    pen.setLineDash(dash.map((each) => each * px));
    pen.stroke();
  };
  for (const { points, look, filled } of shapes) {
    if (run !== null && (filled || look !== run)) {
      stroke(run);
      run = null;
    }
    if (run === null) pen.beginPath();
    pen.moveTo(points[0]!, points[1]!);
    for (let i = 2; i < points.length; i += 2) pen.lineTo(points[i]!, points[i + 1]!);
    if (!filled) {
      run = look;
      continue;
    }
    pen.closePath();
    const fill = FILLS[look];
    if (fill) {
      pen.fillStyle = colour(fill);
      pen.fill();
    }
    stroke(look);
  }
  if (run !== null) stroke(run);
}

function circlePath(
  pen: CanvasRenderingContext2D,
  ellipse: Ellipse | null,
  open: readonly Point[] | undefined,
): void {
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
