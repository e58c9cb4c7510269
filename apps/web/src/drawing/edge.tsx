import type { SVGProps } from 'react';
import type { CoverDrawing } from '@gangway/station';
import { ellipseProps, pathOf } from './finder-sheet.js';
import type { Sheet } from './sheet.js';

/** The edge of circle or core: an ellipse, or an open line when the lens leans too far to close it. */
export function Edge({
  drawing,
  sheet,
  of,
  ...look
}: { drawing: CoverDrawing; sheet: Sheet; of: 'circle' | 'core' } & SVGProps<SVGElement>) {
  const ellipse = drawing[of];
  if (ellipse) return <ellipse {...ellipseProps(sheet, ellipse)} {...(look as object)} />;
  return drawing.open && <path d={pathOf(sheet, drawing.open[of])} {...(look as object)} />;
}

/** The circle, and the sharp core dotted in it. */
export const CircleAndCore = (laid: { drawing: CoverDrawing; sheet: Sheet }) => (
  <>
    <Edge
      {...laid}
      of="core"
      fill="none"
      className="stroke-costs"
      strokeWidth={2}
      strokeDasharray="2 5"
    />
    <Edge {...laid} of="circle" fill="none" className="stroke-ink" strokeWidth={1.75} />
  </>
);
