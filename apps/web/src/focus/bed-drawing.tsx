import { fixed, type BedAnswer, type Station, leastOf, mostOf } from '@gangway/station';
import { useState } from 'react';
import { Drawn } from '../drawing/drawn.js';
import { Handle } from '../drawing/handle.js';
import { useSize } from '../drawing/use-size.js';
import { DimensionLine } from '../drawing/dimension-line.js';

type Bed = NonNullable<Station['bed']>;
type Reading = 'infinity_mm' | 'far_mm' | 'near_mm';

/** Where the standards stand before anything is read. */
const EXAMPLE: Record<Reading, number> = { near_mm: 24, far_mm: 10, infinity_mm: 0 };

const NAMES = [
  ['infinity_mm', 'infinity'],
  ['far_mm', 'farthest'],
  ['near_mm', 'nearest'],
] as const satisfies readonly (readonly [Reading, string])[];

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

const readAt = (bed: Bed | undefined, key: Reading, mm: number): Bed => ({
  ...bed,
  [key]: hundredth(mm),
});

interface Span {
  readonly low: number;
  readonly high: number;
}

/** The bed from the side: where the standard stood at each reading, drawn along it by hand, and where to set it. */
export function BedDrawing({ bed, answer }: { bed: Station['bed']; answer: BedAnswer | null }) {
  const [box, size] = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<Span | null>(null);
  const { width, height } = size;
  const at: Partial<Record<Reading, number>> = {
    near_mm: bed?.near_mm ?? EXAMPLE.near_mm,
    far_mm: bed?.far_mm ?? EXAMPLE.far_mm,
    ...(bed?.infinity_mm !== undefined
      ? { infinity_mm: bed.infinity_mm }
      : answer
        ? {}
        : { infinity_mm: EXAMPLE.infinity_mm }),
  };
  const all = [...Object.values(at), ...(answer ? [answer.focusAtMm] : [])];
  const span = held ?? { low: leastOf(all), high: mostOf(all) };
  const room = Math.max(1, span.high - span.low);
  const [left, right] = [0.3 * width, width - 80];
  const scale = (right - left) / room;
  const x = (mm: number): number => left + (mm - span.low) * scale;
  const rail = Math.max(150, height * 0.68);
  const top = Math.max(70, rail - 240);
  return (
    <Drawn
      {...{ box, size }}
      role="group"
      label={
        answer
          ? `The standard on its bed: ${NAMES.map(([key, name]) => (at[key] === undefined ? '' : `${name} at ${fixed(at[key], 2)} mm, `)).join('')}set it at ${fixed(answer.focusAtMm, 2)} mm`
          : 'The standard on its bed, drawn out farther for the nearest thing than for the farthest'
      }
      className="min-h-64 flex-1"
    >
      <text x={16} y={20} className="halo text-quiet">
        The bed, from the side; along it true to scale
      </text>
      <path d={`M16,${rail}H${width - 16}`} className="stroke-ink" strokeWidth={3} />
      <path d={`M40,${rail}V${top}`} className="stroke-ink" strokeWidth={6} />
      <text x={52} y={rail - 10} className="fill-quiet">
        back
      </text>
      <Scale {...{ x, span, room, scale, rail }} />
      {NAMES.map(([key, name], i) => {
        const mm = at[key];
        if (mm === undefined) return null;
        const given = bed?.[key] !== undefined;
        return (
          <Handle
            key={key}
            label={`Reading, ${name}`}
            value={mm}
            valueText={given ? `${fixed(mm, 2)} mm` : 'not read yet'}
            pointer={`/bed/${key}`}
            step={0.1}
            {...{ scale }}
            onHold={(hold) => setHeld(hold ? span : null)}
            write={(from, dx) => ({ ...from, bed: readAt(from.bed, key, mm + dx) })}
            writeStep={(from, dx, dy) => ({
              ...from,
              bed: readAt(from.bed, key, (from.bed?.[key] ?? mm) + (dx || dy)),
            })}
          >
            <path d={`M${x(mm)},${rail}V${top + 24}`} stroke="transparent" strokeWidth={28} />
            <path
              d={`M${x(mm)},${rail}V${top + 24}`}
              className={given ? 'stroke-ink' : 'stroke-faint'}
              strokeWidth={3}
              {...(given ? {} : { strokeDasharray: '3 4' })}
            />
            <ellipse
              cx={x(mm)}
              cy={top + 60}
              rx={6}
              ry={30}
              className={given ? 'fill-glass stroke-ink' : 'fill-stage stroke-faint'}
              strokeWidth={1.5}
            />
            <text
              x={x(mm)}
              y={top + (i % 2 === 0 ? 18 : 2)}
              textAnchor="middle"
              className={`halo ${given ? 'fill-ink font-semibold' : 'fill-quiet'}`}
            >
              {name}
              {given ? ` ${fixed(mm, 2)}` : ''}
            </text>
          </Handle>
        );
      })}
      {answer && (
        <g className="pointer-events-none text-within">
          <path
            d={`M${x(answer.focusAtMm)},${rail}V${top + 96}`}
            stroke="currentColor"
            strokeWidth={5}
          />
          <text
            x={x(answer.focusAtMm) + 10}
            y={rail - 14}
            className="halo text-[15px] font-semibold"
            fill="currentColor"
          >
            set it at {fixed(answer.focusAtMm, 2)}
          </text>
          <DimensionLine
            from={{ x: x(Math.min(at.far_mm!, at.near_mm!)), y: rail }}
            to={{ x: x(Math.max(at.far_mm!, at.near_mm!)), y: rail }}
            offset={-54}
            words={`Δ ${fixed(answer.spreadMm, 2)} mm`}
            tone="text-ink"
          />
        </g>
      )}
    </Drawn>
  );
}

/** The engraving of the rail. */
function Scale({
  x,
  span: { low, high },
  room,
  scale,
  rail,
}: {
  x: (mm: number) => number;
  span: Span;
  room: number;
  scale: number;
  rail: number;
}) {
  const step = STEPS_MM.find((mm) => mm * scale >= 7) ?? 1e4;
  const first = Math.ceil((low - 0.2 * room) / step);
  const count = Math.max(0, Math.floor((high + 0.12 * room) / step) - first + 1);
  const ticks = Array.from({ length: count }, (_, i) => first + i);
  return (
    <>
      <path
        d={ticks
          .map((n) => `M${x(n * step)},${rail}v${n % 10 === 0 ? 14 : n % 5 === 0 ? 10 : 6}`)
          .join('')}
        className="stroke-quiet"
      />
      {ticks
        .filter((n) => n % 10 === 0)
        .map((n) => (
          <text
            key={n}
            x={x(n * step)}
            y={rail + 29}
            textAnchor="middle"
            className="figure fill-quiet"
          >
            {fixed(n * step, step < 0.1 ? 1 : 0)}
          </text>
        ))}
    </>
  );
}

/** What the smallest strokes of the scale may stand for. */
const STEPS_MM = [0.01, 0.05, 0.1, 0.5, 1, 5, 10, 50, 100, 500, 1000];
