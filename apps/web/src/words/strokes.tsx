import type { ReactNode, SVGProps } from 'react';

/** The few strokes that small drawings of terms are made of; 160 × 96, the middle at 0, 0. */

const line = 'fill-none stroke-ink';

export const Line = ({ d, ...rest }: { d: string } & SVGProps<SVGPathElement>) => (
  <path d={d} strokeWidth={1.5} className={line} {...rest} />
);
export const Good = ({ d }: { d: string }) => (
  <path d={d} strokeWidth={2.25} className="fill-none stroke-within" />
);
export const Soft = ({ d }: { d: string }) => (
  <path d={d} strokeWidth={1.75} strokeDasharray="2 3" className="fill-none stroke-costs" />
);
export const Thin = ({ d }: { d: string }) => (
  <path d={d} strokeWidth={1} className="fill-none stroke-rule-strong" />
);
export const Circle = ({ r, x = 0, y = 0 }: { r: number; x?: number; y?: number }) => (
  <circle cx={x} cy={y} r={r} strokeWidth={1.5} className="fill-glass stroke-ink" />
);
export const Dot = ({ x, y, r = 3 }: { x: number; y: number; r?: number }) => (
  <circle cx={x} cy={y} r={r} className="fill-ink" />
);

/** A lens from the side, leaned by so many degrees. */
export const Lens = ({ x = 0, y = 0, lean = 0 }: { x?: number; y?: number; lean?: number }) => (
  <g transform={`translate(${x} ${y}) rotate(${lean})`}>
    <ellipse rx={5} ry={20} strokeWidth={1.5} className="fill-glass stroke-ink" />
  </g>
);

/** The back from the side. */
export const Back = ({ x = 0, y = 0, lean = 0 }: { x?: number; y?: number; lean?: number }) => (
  <g transform={`translate(${x} ${y}) rotate(${lean})`}>
    <rect x={-2} y={-24} width={4} height={48} className="fill-ink" />
  </g>
);

/** An arrow from here by so much. */
export function Arrow({
  x,
  y,
  dx = 0,
  dy = 0,
}: {
  x: number;
  y: number;
  dx?: number;
  dy?: number;
}) {
  const deg = (Math.atan2(dy, dx) * 180) / Math.PI;
  return (
    <g className="stroke-within" strokeWidth={2} fill="none">
      <path d={`M${x},${y}l${dx},${dy}`} />
      <path d="M-6,-4L0,0L-6,4" transform={`translate(${x + dx} ${y + dy}) rotate(${deg})`} />
    </g>
  );
}

export const Name = ({ x, y, children }: { x: number; y: number; children: string }) => (
  <text x={x} y={y} className="narrow text-[11px] text-quiet">
    {children}
  </text>
);

export const Drawn = ({ children }: { children: ReactNode }) => (
  <svg viewBox="-80 -48 160 96" aria-hidden className="block w-40 shrink-0 bg-stage text-ink">
    {children}
  </svg>
);
