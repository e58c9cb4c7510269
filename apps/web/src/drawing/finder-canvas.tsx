import { useEffect, useRef } from 'react';
import type { CoverDrawing, Ellipse, Finder, Point } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { paintShapes, type Colour } from './paint-shapes.js';
import type { Sheet } from './sheet.js';

interface Props {
  finder: Finder;
  drawing: CoverDrawing;
  sheet: Sheet;
  width: number;
  height: number;
}

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
    const px = 1 / Math.abs(sheet.scaleX);

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
    pen.fillStyle = colour('--paper');
    pen.fill();
    paintShapes(pen, finder.shapes, colour, px);
    // A veil over what lies round the frame: painting it all twice would cost twice the time.
    pen.beginPath();
    pen.rect(-FAR_MM, -FAR_MM, 2 * FAR_MM, 2 * FAR_MM);
    inFrame();
    pen.globalAlpha = VEIL;
    pen.fillStyle = colour('--glass');
    pen.fill('evenodd');
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

const known = new Map<string, Map<string, string>>();

/** Colours of a light by their names in the style sheet, each looked up once. */
export function coloursOf(light: string): Colour {
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
