import { fixed, placeOf, signed, standardMoved, type CoverDrawing } from '@gangway/station';
import { selectShownReport, selectShown } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import type { Sheet } from '../drawing/sheet.js';

interface Props {
  drawing: CoverDrawing;
  sheet: Sheet;
  width: number;
}

/** Lines that carry the numbers people measure: the margin at the corner, the reach of the rise. */
export function Dimensions(props: Props) {
  return (
    <>
      <MarginLine {...props} />
      <RiseLine {...props} />
    </>
  );
}

function MarginLine({ drawing, sheet, width }: Props) {
  const { coverage } = useAppSelector(selectShownReport);
  const { margin_mm: margin } = coverage;
  if (!drawing.margin || margin === null) return null;
  const { corner, edge } = drawing.margin;
  const [x1, y1, x2, y2] = [sheet.x(corner.x), sheet.y(corner.y), sheet.x(edge.x), sheet.y(edge.y)];
  const [tx, ty] = margin >= 0 ? [x2, y2] : [x1, y1];
  const left = tx < width / 2;
  const bend = left ? -18 : 18;
  // The sentence needs about this much room; where there is none it stays by the line.
  const room = left ? tx > 190 : width - tx > 190;
  const along = room ? bend * 8 : 0;
  // Away from the middle, so that the words do not lie on the circle.
  const above = ty < 40 || ty > sheet.y(0) ? 18 : -14;
  const words = `${signed(margin, 1)} mm ${margin >= 0 ? 'to the circle' : 'outside'}`;
  return (
    <g className={STANDING_TEXT[margin >= 0 ? (coverage.sharp ? 'within' : 'costs') : 'outside']}>
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="currentColor" strokeWidth={2} />
      {room && (
        <>
          <path
            d={`M${tx},${ty}l${bend},${above}h${along - bend}`}
            fill="none"
            stroke="currentColor"
          />
          <text
            x={tx + along}
            y={ty + above - 5}
            textAnchor={left ? 'start' : 'end'}
            className="font-semibold"
          >
            {words}
          </text>
        </>
      )}
    </g>
  );
}

/** Places labels down a line so that none covers another. */
function spread<T extends { y: number }>(labels: T[], apart: number): (T & { at: number })[] {
  let last = -Infinity;
  return labels
    .sort((a, b) => a.y - b.y)
    .map((label) => {
      const at = Math.max(label.y, last + apart);
      last = at;
      return { ...label, at };
    });
}

const ROOM_PX = 132;

function RiseLine({ drawing, sheet, width }: Props) {
  const { coverage } = useAppSelector(selectShownReport);
  const station = useAppSelector(selectShown);
  const { movements } = station;
  // Where both standards move, or the back alone, the line says whose it is.
  const standard = standardMoved(station, 'rise');
  const { rise_mm: rise, fall_mm: fall } = coverage.limits;
  const { circle, frame } = drawing;
  const right = Math.max(
    circle
      ? sheet.x(0) + (Math.abs(circle.centre.x) + circle.semiMajorMm) * Math.abs(sheet.scaleX)
      : 0,
    sheet.x(frame.centre.x) + (frame.widthMm / 2) * Math.abs(sheet.scaleX),
  );
  const x = right + 26;
  if (x + ROOM_PX > width || rise === null || fall === null) return null;
  const at = (rise_mm: number): number => sheet.y(placeOf(drawing, { ...movements, rise_mm }).y);
  const labels = spread(
    [
      { y: at(rise), text: `${fixed(rise, 1)} ${coverage.limited_by.rise}`, tone: '' },
      { y: at(-fall), text: `${fixed(fall, 1)} ${coverage.limited_by.fall}`, tone: '' },
      ...(Math.abs(movements.rise_mm) > 0.05 ? [{ y: at(0), text: '0', tone: 'text-quiet' }] : []),
      {
        y: at(movements.rise_mm),
        text: `${fixed(Math.abs(movements.rise_mm), 1)} set${standard === null ? '' : `, ${standard}`}`,
        tone: 'font-semibold',
      },
    ],
    16,
  );
  return (
    <g aria-hidden>
      <line x1={x} x2={x} y1={at(rise)} y2={at(-fall)} className="stroke-within" strokeWidth={3} />
      {labels.map(({ y, at: place, text, tone }, i) => (
        // Two ends may say the same.
        <g key={i} className={tone}>
          <path
            d={`M${x - 7},${y}h14${place === y ? '' : `l5,${place - y}`}`}
            fill="none"
            stroke="currentColor"
            strokeWidth={1.5}
          />
          <text x={x + 16} y={place + 4}>
            {text}
          </text>
        </g>
      ))}
    </g>
  );
}
