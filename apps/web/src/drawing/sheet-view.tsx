import type { Sheet } from '@gangway/paper';
import { Shapes } from './shapes-view.js';

const grey = (value = 0): string => {
  const byte = Math.round(255 * value);
  return `rgb(${byte},${byte},${byte})`;
};

/** A sheet of paper as it will be printed: black on white in either light. */
export function SheetView({
  sheet,
  label,
  className,
}: {
  sheet: Sheet;
  /** What it shows; its title, when left out. */
  label?: string;
  className?: string;
}) {
  const { widthMm, heightMm, shapes = [], lines, texts, title } = sheet;
  return (
    <svg
      viewBox={`0 0 ${widthMm} ${heightMm}`}
      role="img"
      aria-label={label ?? `${title}, as it is printed`}
      className={className}
    >
      <rect width={widthMm} height={heightMm} fill="white" />
      <Shapes shapes={shapes} stroke={grey} fill={grey} />
      {lines.map(({ strokeMm, ...ends }, i) => (
        <line key={i} {...ends} stroke="black" strokeWidth={strokeMm} />
      ))}
      {texts.map(({ x, y, text, sizeMm, anchor, strong, grey: tone }, i) => (
        <text
          key={i}
          x={x}
          y={y}
          fontSize={sizeMm}
          textAnchor={anchor}
          fontWeight={strong ? 600 : 400}
          style={{ fill: grey(tone) }}
        >
          {text}
        </text>
      ))}
    </svg>
  );
}
