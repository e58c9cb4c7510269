import { type CoverDrawing, type Finder, type PlacedFrame } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { frameBox } from './finder-sheet.js';
import type { Sheet } from './sheet.js';

interface Props {
  drawing: CoverDrawing;
  finder: Finder;
  sheet: Sheet;
  width: number;
  height: number;
}

/** What is laid over the picture: thirds, vanishing points, marks, a crop's rest. */
export function Overlays({ drawing, finder, sheet, width, height }: Props) {
  const grid = useAppSelector((state) => state.preferences.grid);
  return (
    <g aria-hidden>
      {drawing.whole && <Outline sheet={sheet} frame={drawing.whole} />}
      {grid && <Thirds drawing={drawing} sheet={sheet} />}
      {!finder.empty && <Vanishing finder={finder} sheet={sheet} width={width} height={height} />}
      <MarkSigns {...{ finder, sheet }} />
    </g>
  );
}

/** Marks where they are pictured, by name. */
export const MarkSigns = ({ finder, sheet }: { finder: Finder; sheet: Sheet }) =>
  finder.marks.map(({ label, at, must }, i) => (
    <g key={i} transform={`translate(${sheet.x(at.x)} ${sheet.y(at.y)})`}>
      <path
        d={must === 'sharp' ? 'M-5,0h10M0,-5v10' : 'M-4,-4l8,8M-4,4l8,-8'}
        className="stroke-ink"
        strokeWidth={1.5}
      />
      <text x={7} y={-4} className="text-[11px]">
        {label}
      </text>
    </g>
  ));

const Outline = ({ sheet, frame }: { sheet: Sheet; frame: PlacedFrame }) => (
  <rect {...frameBox(sheet, frame)} fill="none" className="stroke-quiet" strokeDasharray="6 4" />
);

function Thirds({ drawing, sheet }: { drawing: CoverDrawing; sheet: Sheet }) {
  const { x, y, width, height } = frameBox(sheet, drawing.frame);
  const lines = [1, 2].map(
    (i) => `M${x + (i * width) / 3},${y}v${height}M${x},${y + (i * height) / 3}h${width}`,
  );
  return <path d={lines.join('')} className="stroke-quiet" strokeWidth={0.8} opacity={0.7} />;
}

/** Where lines ahead meet needs no words. */
const NAMES = {
  verticals: 'uprights meet',
  ahead: '',
  across: 'lines across meet',
};

/** Vanishing points in sight as small rings; those off the sheet say how far and which way. */
function Vanishing({
  finder,
  sheet,
  width,
  height,
}: {
  finder: Finder;
  sheet: Sheet;
  width: number;
  height: number;
}) {
  return finder.vanishing.map(({ of, at }) => {
    if (!at) return null;
    const [x, y] = [sheet.x(at.x), sheet.y(at.y)];
    if (x < 8 || y < 8 || x > width - 8 || y > height - 8) return null;
    return (
      <g key={of} transform={`translate(${x} ${y})`} className="text-quiet">
        <circle r={4} fill="none" stroke="currentColor" strokeWidth={1.5} />
        <circle r={1} fill="currentColor" />
        <text x={8} y={13} className="halo text-[11px]">
          {NAMES[of]}
        </text>
      </g>
    );
  });
}
