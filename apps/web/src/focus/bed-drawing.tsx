import { fixed, type BedAnswer, type Station } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { useSize } from '../drawing/use-size.js';
import { DimensionLine } from '../drawing/dimension-line.js';

/** Where the standards stand before anything is read. */
const EXAMPLE = { near_mm: 24, far_mm: 10, infinity_mm: 0 };

const NAMES = [
  ['infinity_mm', 'infinity'],
  ['far_mm', 'farthest'],
  ['near_mm', 'nearest'],
] as const;

/** The bed from the side: where the standard stood at each reading, and where to set it. */
export function BedDrawing({ bed, answer }: { bed: Station['bed']; answer: BedAnswer | null }) {
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const at = answer ? (bed ?? {}) : EXAMPLE;
  const read = NAMES.flatMap(([key, name]) => {
    const mm = at[key];
    return mm === undefined ? [] : [{ name, mm }];
  });
  const all = [...read.map(({ mm }) => mm), ...(answer ? [answer.focusAtMm] : [])];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = Math.max(1, high - low);
  const [left, right] = [0.34 * width, width - 64];
  const x = (mm: number): number => left + ((mm - low) / room) * (right - left);
  const rail = height - 34;
  const step = STEPS_MM.find((mm) => (mm / room) * (right - left) >= 7) ?? 1e4;
  const first = Math.ceil((low - 0.08 * room) / step);
  const ticks = Array.from(
    { length: Math.max(0, Math.floor((high + 0.08 * room) / step) - first + 1) },
    (_, i) => first + i,
  );
  return (
    <Drawn
      {...{ box, size }}
      label={
        answer
          ? `The standard on its bed: ${read.map(({ name, mm }) => `${name} at ${fixed(mm, 2)} mm`).join(', ')}; set it at ${fixed(answer.focusAtMm, 2)} mm`
          : 'The standard on its bed, drawn out farther for the nearest thing than for the farthest'
      }
      className="h-40 min-w-0 flex-1"
    >
      <path d={`M8,${rail}H${width - 8}`} className="stroke-ink" strokeWidth={2.5} />
      <path d={`M28,${rail}V40`} className="stroke-ink" strokeWidth={5} />
      <text x={40} y={rail - 8} className="fill-quiet">
        back
      </text>
      <path
        d={ticks
          .map((n) => `M${x(n * step)},${rail}v${n % 10 === 0 ? 11 : n % 5 === 0 ? 8 : 5}`)
          .join('')}
        className="stroke-quiet"
      />
      {answer &&
        ticks
          .filter((n) => n % 10 === 0)
          .map((n) => (
            <text
              key={n}
              x={x(n * step)}
              y={rail + 24}
              textAnchor="middle"
              className="figure fill-quiet"
            >
              {fixed(n * step, 0)}
            </text>
          ))}
      {read.map(({ name, mm }) => (
        <g key={name} className={name === 'infinity' ? 'text-faint' : 'text-ink'}>
          <path d={`M${x(mm)},${rail}V58`} stroke="currentColor" strokeWidth={2} />
          <text
            x={x(mm)}
            y={name === 'farthest' ? 30 : 50}
            textAnchor="middle"
            className="halo fill-quiet"
          >
            {name}
          </text>
          {name === 'farthest' && (
            <path d={`M${x(mm)},36V58`} className="stroke-rule-strong" strokeDasharray="1 3" />
          )}
        </g>
      ))}
      {answer && (
        <g className="text-within">
          <path d={`M${x(answer.focusAtMm)},${rail}V84`} stroke="currentColor" strokeWidth={4} />
          <text x={x(answer.focusAtMm) + 8} y={96} className="halo" fill="currentColor">
            set it here
          </text>
          <DimensionLine
            from={{ x: x(Math.min(at.far_mm!, at.near_mm!)), y: rail }}
            to={{ x: x(Math.max(at.far_mm!, at.near_mm!)), y: rail }}
            offset={rail - 72}
            words={`Δ ${fixed(answer.spreadMm, 2)} mm`}
            tone="text-ink"
          />
        </g>
      )}
    </Drawn>
  );
}

/** What the smallest strokes of the scale may stand for. */
const STEPS_MM = [0.01, 0.05, 0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000];
