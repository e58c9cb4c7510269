import type { Point } from '@gangway/station';

/** A length told beside what it measures: shoulders, a line with a stroke at each end, a figure. */
export function DimensionLine({
  from,
  to,
  offset,
  words,
  tone = 'text-quiet',
}: {
  from: Point;
  to: Point;
  /** How far the line stands beside what it measures, px, left of the way from one to the other. */
  offset: number;
  words: string;
  tone?: string;
}) {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const size = Math.hypot(dx, dy);
  if (size < LEAST_PX) return null;
  const [nx, ny] = [(dy / size) * offset, (-dx / size) * offset];
  const past = 1 + 4 / Math.abs(offset || 1);
  const shoulder = (p: Point): string => `M${p.x},${p.y}l${nx * past},${ny * past}`;
  const [a, b] = [from, to].map((p) => ({ x: p.x + nx, y: p.y + ny })) as [Point, Point];
  // The stroke leans by 45° against the line, as it does on a builder's drawing.
  const [sx, sy] = [((dx - dy) / size) * 4, ((dx + dy) / size) * 4];
  const stroke = (p: Point): string => `M${p.x - sx},${p.y - sy}l${2 * sx},${2 * sy}`;
  const level = Math.abs(dx) > Math.abs(dy);
  // Far enough beside a slanting line that it does not run through the words.
  const clear = 9 + (level ? (words.length * HALF_LETTER_PX * Math.abs(dy)) / size : 0);
  const side = Math.sign(offset) || 1;
  const middle = {
    x: (a.x + b.x) / 2 + (dy / size) * side * clear,
    y: (a.y + b.y) / 2 - (dx / size) * side * clear,
  };
  return (
    <g aria-hidden className={`pointer-events-none ${tone}`}>
      <path d={shoulder(from) + shoulder(to)} stroke="currentColor" strokeWidth={0.75} />
      <path d={`M${a.x},${a.y}L${b.x},${b.y}`} stroke="currentColor" strokeWidth={1} />
      <path d={stroke(a) + stroke(b)} stroke="currentColor" strokeWidth={1.5} />
      <text
        x={middle.x}
        y={middle.y + 4}
        textAnchor={level ? 'middle' : nx < 0 ? 'end' : 'start'}
        className="halo figure"
        fill="currentColor"
      >
        {words}
      </text>
    </g>
  );
}

/** Shorter lengths are not told: there is no room for them. */
const LEAST_PX = 12;

/** Half of the usual letter, px. */
const HALF_LETTER_PX = 3.3;
