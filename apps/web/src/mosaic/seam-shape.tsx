import { fixed, type Seam, leastOf, mostOf } from '@gangway/station';
import { pathOf } from '../drawing/finder-sheet.js';
import type { Sheet } from '../drawing/sheet.js';

/** What two frames both see, tinted with its share, and the seam through its middle. */
export function SeamShape({
  seam: { shared, from, to, share },
  sheet,
  told,
  spoils,
}: {
  seam: Seam;
  sheet: Sheet;
  told: boolean;
  spoils: boolean;
}) {
  const low = shared.reduce((a, b) => (sheet.y(a.y) > sheet.y(b.y) ? a : b));
  const middle = shared.reduce((sum, p) => sum + p.x, 0) / shared.length;
  const span = mostOf(shared.map(({ x }) => x)) - leastOf(shared.map(({ x }) => x));
  const high = mostOf(shared.map(({ y }) => y)) - leastOf(shared.map(({ y }) => y));
  const roomy = Math.min(span / 38, high / 20) * Math.abs(sheet.scaleX) > 1;
  return (
    <g className={spoils ? 'text-costs' : 'text-within'}>
      <path d={pathOf(sheet, shared)} fill="currentColor" opacity={0.14} />
      {from && to && (
        <path
          d={`M${sheet.at(from)}L${sheet.at(to)}`}
          stroke="currentColor"
          strokeWidth={spoils ? 2.5 : 1}
          strokeDasharray="3 4"
        />
      )}
      {told && roomy && (
        <text
          x={sheet.x(middle)}
          y={sheet.y(low.y) - 10}
          textAnchor="middle"
          className="halo figure"
        >
          {fixed(100 * share, 0)} %
        </text>
      )}
    </g>
  );
}
