import type { Look, Pictured } from '@gangway/station';

/** The colour of a name in the style sheet. */
export type Colour = (name: string) => string;

/** Strokes in CSS pixels and the colours they take from the light. */
const STROKES: Record<Look, { colour: string; width: number; dash?: number[] }> = {
  wall: { colour: '--ink', width: 1.25 },
  side: { colour: '--ink', width: 1.25 },
  detail: { colour: '--quiet', width: 0.9 },
  ground: { colour: '--rule-strong', width: 0.7 },
  level: { colour: '--within', width: 1.5, dash: [7, 3] },
};

const FILLS: Partial<Record<Look, string>> = { wall: '--paper', side: '--page', ground: '--glass' };

/** Every colour the shapes are painted in, for where there is no style sheet. */
export const SHAPE_COLOURS = [
  ...new Set([...Object.values(STROKES).map(({ colour }) => colour), ...Object.values(FILLS)]),
];

/**
 * The shapes alone, on a pen whose unit is a millimetre of the picture. Lines of one look that
 * follow each other are one stroke: strokes are what takes time.
 * @param px a pixel, in millimetres of the picture
 */
export function paintShapes(
  pen: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
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
