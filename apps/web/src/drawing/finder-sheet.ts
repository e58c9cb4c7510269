import { sheetAt, type Sheet } from './sheet.js';
import type { CoverDrawing, Ellipse, PlacedFrame, Point } from '@gangway/station';

const STEP = 1.2;
const ROOM = 1.06;

/** How far from the middle it must be possible to see, mm. */
function needMm({ circle, frame }: CoverDrawing): number {
  const ellipse = circle
    ? Math.max(Math.abs(circle.centre.x), Math.abs(circle.centre.y)) + circle.semiMajorMm
    : 0;
  return Math.max(
    ellipse,
    Math.abs(frame.centre.x) + frame.widthMm / 2,
    Math.abs(frame.centre.y) + frame.heightMm / 2,
  );
}

/**
 * A sheet that stands still while settings change: its size goes by the rig, and grows by
 * steps only when something would leave it.
 */
export function makeSheet(
  drawing: CoverDrawing,
  width: number,
  height: number,
  groundGlass: boolean,
): Sheet {
  let half = drawing.baseMm * ROOM;
  const need = needMm(drawing) * 1.02;
  // A circle open on one side has no end to show.
  while (half < Math.min(need, drawing.baseMm * 4)) half *= STEP;
  const pxPerMm = Math.max(0.01, Math.min(width - 40, height - 24) / (2 * half));
  // On the ground glass it stands on its head, and left is right.
  return sheetAt(width / 2, height / 2, groundGlass ? -pxPerMm : pxPerMm);
}

export function ellipseProps(sheet: Sheet, ellipse: Ellipse) {
  const [cx, cy] = [sheet.x(ellipse.centre.x), sheet.y(ellipse.centre.y)];
  return {
    cx,
    cy,
    rx: ellipse.semiMajorMm * Math.abs(sheet.scaleX),
    ry: ellipse.semiMinorMm * Math.abs(sheet.scaleX),
    transform: `rotate(${-ellipse.turnDeg} ${cx} ${cy})`,
  };
}

export const pathOf = (sheet: Sheet, points: readonly Point[]): string =>
  points.length === 0 ? '' : `M${points.map(sheet.at).join('L')}Z`;

/** A frame as it lies on the screen. */
export function frameBox(sheet: Sheet, { centre, widthMm, heightMm }: PlacedFrame) {
  const scale = Math.abs(sheet.scaleX);
  const [width, height] = [widthMm * scale, heightMm * scale];
  return {
    x: sheet.x(centre.x) - width / 2,
    y: sheet.y(centre.y) - height / 2,
    width,
    height,
  };
}
