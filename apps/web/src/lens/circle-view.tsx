import { useMemo } from 'react';
import { centreSaid, fixed, fStop, sharpFraction, type Station, mostOf } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';
import { atStop, type Measured } from './use-lens.js';

/** Room round the largest circle, px. */
const PAD = 10;

interface Rings {
  readonly litMm: number | null;
  readonly sharpMm: number | null;
  /** The part of the circle that is taken to be sharp where nobody measured it. */
  readonly usualMm: number | null;
  readonly givenMm: number | null;
  readonly frame: { readonly width: number; readonly height: number };
}

const acrossOf = (ellipse: { semiMajorMm: number } | null): number | null =>
  ellipse && 2 * ellipse.semiMajorMm;

/** What is lit and what is sharp at a stop, true to scale. */
export function ringsAt(given: Station, own: Station, measured: Measured | undefined, stop: number): Rings {
  const [ideal, real] = [atStop(given, stop), atStop(own, stop)];
  const lit = acrossOf(real.circle);
  const sharp = (measured?.sharpness ?? []).length > 0;
  return {
    litMm: lit,
    sharpMm: sharp ? acrossOf(real.core) : null,
    usualMm: lit === null ? null : lit * sharpFraction(given.lens),
    givenMm: acrossOf(ideal.circle),
    frame: { width: real.frame.widthMm, height: real.frame.heightMm },
  };
} // prettier-ignore

interface Props {
  readonly given: Station;
  readonly own: Station;
  readonly measured: Measured | undefined;
  readonly stops: readonly number[];
  readonly stop: number;
  readonly onStop: (stop: number) => void;
  /** Its largest circle; the same for two lenses side by side. */
  readonly widestMm?: number;
}

/** The circle of a lens at a stop, with those of the other stops faint behind it. */
export function CircleView({ given, own, measured, stops, stop, onStop, widestMm }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const all = useMemo(
    () => stops.map((each) => ({ each, rings: ringsAt(given, own, measured, each) })),
    [given, own, measured, stops],
  );
  const now = all.find(({ each }) => each === stop)?.rings ?? all[0]?.rings;
  if (!now) return null;
  const widest = widestMm ?? mostOf(all.flatMap(({ rings }) => [rings.litMm ?? 0, rings.givenMm ?? 0])); // prettier-ignore
  const { width, height } = size;
  const scale = Math.max(0.1, (Math.min(width, height) - 2 * PAD) / Math.max(widest, 1));
  const centre = measured?.centre_mm;
  const sheet = sheetAt(width / 2, height / 2, scale);
  const ring = (across: number | null, look: string, strokeWidth: number, dash?: string, at = { x: 0, y: 0 }) =>
    across === null ? null : (
      <circle
        cx={sheet.x(at.x)}
        cy={sheet.y(at.y)}
        r={(across / 2) * scale}
        fill="none"
        className={look}
        strokeWidth={strokeWidth}
        strokeDasharray={dash}
      />
    ); // prettier-ignore
  const { frame } = now;
  const off = centre ?? { x: 0, y: 0 };
  return (
    <figure className="flex min-h-0 min-w-0 flex-1 flex-col">
      <figcaption className="flex flex-wrap items-center gap-x-3 text-[13px] text-quiet">
        At{' '}
        <select
          aria-label="Stop that is shown"
          value={String(stop)}
          onChange={({ target }) => onStop(Number(target.value))}
          className="min-h-8 border-b border-rule bg-transparent font-semibold text-ink pointer-coarse:min-h-11"
        >
          {stops.map((each) => (
            <option key={each} value={String(each)}>
              {fStop(each)}
            </option>
          ))}
        </select>
        <RingLegend rings={now} />
      </figcaption>
      <Drawn
        {...{ box, size }}
        label={`Circle at ${fStop(stop)}: ${saidOf(now)}`}
        className="min-h-56 flex-1"
      >
        {all.map(({ each, rings }) => (
          <g key={each} opacity={0.6}>
            {ring(rings.litMm, 'stroke-rule-strong', 0.75, undefined, off)}
          </g>
        ))}
        {now.givenMm !== now.litMm && ring(now.givenMm, 'stroke-quiet', 1.25, '6 4')}
        {ring(now.litMm, 'stroke-ink', 2.5, undefined, off)}
        {ring(now.sharpMm, 'stroke-within', 2.5, undefined, off)}
        {ring(now.usualMm, 'stroke-costs', 1.75, '2 5', off)}
        <rect
          x={sheet.x(-frame.width / 2)}
          y={sheet.y(frame.height / 2)}
          width={frame.width * scale}
          height={frame.height * scale}
          fill="none"
          className="stroke-ink"
          strokeWidth={1.5}
        />
        <path d={`M${sheet.x(0) - 5},${sheet.y(0)}h10m-5,-5v10`} className="stroke-ink" />
        {centre && <circle cx={sheet.x(off.x)} cy={sheet.y(off.y)} r={3} className="fill-within" />}
      </Drawn>
      {measured && centreSaid(measured) && (
        <p className="text-[13px] text-quiet">{centreSaid(measured)}</p>
      )}
    </figure>
  );
}

const across = (value: number): string => `${fixed(value, 1)} mm`;

const saidOf = ({ litMm, sharpMm, givenMm }: Rings): string =>
  [
    ...(litMm === null ? [] : [`lit to ${across(litMm)}`]),
    ...(sharpMm === null ? [] : [`sharp to ${across(sharpMm)}`]),
    ...(givenMm === null || givenMm === litMm ? [] : [`given as ${across(givenMm)}`]),
  ].join(', ');

/** The figures of the rings, each in the look of its ring. */
function RingLegend({ rings }: { rings: Rings }) {
  const { litMm, sharpMm, usualMm, givenMm } = rings;
  const lines = [
    [litMm, 'lit to', 'text-ink'],
    [sharpMm, 'sharp to', 'text-within'],
    [usualMm, sharpMm === null ? 'taken to be sharp to' : 'by the rule', 'text-costs'],
    [givenMm === litMm ? null : givenMm, 'given, dashed', 'text-quiet'],
  ] as const;
  return (
    <>
      {lines.map(
        ([mm, words, tone]) =>
          mm !== null && (
            <span key={words} className={tone}>
              {words} <span className="figure">{across(mm)}</span>
            </span>
          ),
      )}
    </>
  );
}
