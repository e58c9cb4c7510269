import { pathOf, type SheetShape } from '@gangway/paper';

/** Greys of the paper in the light that is on. */
const strokeOf = (grey = 0): string =>
  grey < 0.25 ? 'var(--ink)' : grey < 0.45 ? 'var(--quiet)' : 'var(--rule-strong)';

const fillOf = (grey: number): string =>
  grey < 0.3 ? 'var(--ink)' : grey < 0.95 ? 'var(--stage)' : 'var(--paper)';

/** The shapes of a sheet, each grey in a colour of its own. */
export const Shapes = ({
  shapes,
  stroke,
  fill,
}: {
  shapes: readonly SheetShape[];
  stroke: (grey?: number) => string;
  fill: (grey: number) => string;
}) =>
  shapes.map((shape, i) => (
    <path
      key={i}
      d={pathOf(shape)}
      fill={shape.fill === undefined ? 'none' : fill(shape.fill)}
      stroke={shape.strokeMm === undefined ? 'none' : stroke(shape.grey)}
      strokeWidth={shape.strokeMm}
      strokeDasharray={shape.dashMm}
    />
  ));

/** A small drawing of a station as paper has it, in the colours of the light that is on. */
export function ShapesView({
  shapes,
  width,
  height,
  label,
  className,
}: {
  shapes: readonly SheetShape[];
  /** Of the drawing, in its own millimetres. */
  width: number;
  height: number;
  /** What it shows; left out where the words beside it say so. */
  label?: string;
  className?: string;
}) {
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={className}
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    >
      <Shapes shapes={shapes} stroke={strokeOf} fill={fillOf} />
    </svg>
  );
}
