import isEqual from 'fast-deep-equal';
import { memo, useId } from 'react';
import {
  fixed,
  sceneStep,
  withMark,
  type Point,
  type Section,
  type SectionKind,
  type SectionMark,
  type Station,
  type Units,
} from '@gangway/station';
import { Handle } from '../drawing/handle.js';
import { keyStepM, tenthMm } from '../drawing/site-sheet.js';
import type { NamePlace, SectionSheet, Shared } from './section-sheet.js';
import { blurWords, nearOrFar } from './section-words.js';

/** Blur of the drawn target, px for each circle of confusion of blur. */
const SMEAR_PX = 0.55;
const MOST_SMEAR_PX = 9;

/** From so many on marks are drawn plainly, and named only where one rests on them. */
export const CROWD = 24;

/** Room that a name on the right of its mark may want, px. */
const BESIDE_PX = 170;

/** A mark at infinity stands at the right edge, in its direction. */
export function markAt({ infinite, at }: SectionMark, sheet: SectionSheet, width: number): Point {
  return infinite
    ? {
        x: width - EDGE_PX,
        y: sheet.y((at.y / at.x) * (sheet.right - EDGE_PX / sheet.scaleX)),
      }
    : { x: sheet.x(at.x), y: sheet.y(at.y) };
}

const EDGE_PX = 30;

/** What a mark asks for, in the few words there is room for. */
export function needsWords(
  { must, holds, blurUm, neededFNumber: n }: SectionMark,
  { widestFNumber }: Section,
): string {
  if (blurUm === null || n === null) return 'no focus';
  if (must === 'sharp' && n <= widestFNumber) return 'sharp wide open';
  if (must === 'sharp') return `needs f/${fixed(n, n < 10 ? 1 : 0)}${holds ? '' : ', soft'}`;
  return `${must === 'soft' ? 'soft, ' : ''}${fixed(blurUm, 0)} µm`;
}

/** A mark as it will look: the more it blurs, the more its target smears. */
interface MarkProps {
  mark: SectionMark;
  name: NamePlace;
  kind: SectionKind;
  cocUm: number;
  needs: string;
  crowd: boolean;
  /** Where it is drawn, and where the plane passes above or below it. */
  at: Point;
  planeY: number | null;
  /** Metres ahead at the right edge of the sheet. */
  rightM: number;
  units: Units;
  shared: Shared;
  width: number;
}

export const Mark = memo(function Mark(props: MarkProps) {
  const { mark, name, kind, cocUm, needs, crowd, at, planeY, rightM, units, shared, width } = props;
  const { x, y } = at;
  const id = useId();
  const times = mark.blurUm === null ? Infinity : mark.blurUm / cocUm;
  const smear = crowd ? 0 : Math.min(MOST_SMEAR_PX, SMEAR_PX * Math.max(0, times - 0.4));
  const tone = mark.must === 'free' ? 'text-quiet' : mark.holds ? 'text-within' : 'text-outside';
  return (
    <g className={tone}>
      {planeY !== null && (
        <line x1={x} x2={x} y1={y} y2={planeY} stroke="currentColor" strokeWidth={1} aria-hidden />
      )}
      <Handle
        {...shared}
        step={keyStepM(mark.distanceM)}
        label={kind === 'side' ? `${mark.label}, from the side` : `${mark.label}, in the plan`}
        value={mark.distanceM}
        valueText={`${mark.infinite ? 'at infinity' : nearOrFar(mark.distanceM, units)}, ${blurWords(mark)}`}
        write={(from, dx, dy) => moved(from, kind, mark, rightM, dx, dy)}
      >
        <title>{`${mark.label}, ${needs}`}</title>
        <circle cx={x} cy={y} r={crowd ? 8 : 16} fill="transparent" />
        {smear > 0.05 && (
          <filter id={id} x="-150%" y="-150%" width="400%" height="400%">
            <feGaussianBlur stdDeviation={smear} />
          </filter>
        )}
        <g {...(smear > 0.05 ? { filter: `url(#${id})` } : {})}>
          <circle
            cx={x}
            cy={y}
            r={crowd ? 4 : 8}
            className="fill-paper"
            stroke="currentColor"
            strokeWidth={2.5}
          />
          {!crowd && <circle cx={x} cy={y} r={2.5} fill="currentColor" />}
        </g>
        {/* A hair of outline stays, so that a smeared mark can still be found and held. */}
        {smear > 3 && (
          <circle cx={x} cy={y} r={8} fill="none" stroke="currentColor" strokeWidth={0.75} />
        )}
      </Handle>
      {!crowd && <Name {...{ mark, needs, name, width, x, y }} />}
    </g>
  );
}, isEqual);

function Name({
  mark: { label },
  needs,
  name: { up, beside },
  width,
  x,
  y,
}: {
  mark: SectionMark;
  needs: string;
  name: NamePlace;
  width: number;
  x: number;
  y: number;
}) {
  if (beside) {
    const left = x > width - BESIDE_PX;
    return (
      <text
        x={left ? x - 14 : x + 14}
        y={y + 4}
        textAnchor={left ? 'end' : 'start'}
        aria-hidden
        className="halo"
        fill="currentColor"
      >
        <tspan className="fill-ink font-semibold">{label}</tspan> {needs}
      </text>
    );
  }
  return (
    <g aria-hidden transform={`translate(${Math.min(x, width - 60)} ${y - up})`}>
      <text y={-30} textAnchor="middle" className="halo fill-ink font-semibold">
        {label}
      </text>
      <text y={-15} textAnchor="middle" className="halo" fill="currentColor">
        {needs}
      </text>
    </g>
  );
}

function moved(
  from: Station,
  kind: SectionKind,
  { index, infinite }: SectionMark,
  rightM: number,
  dx: number,
  dy: number,
): Station {
  const mark = from.marks![index]!;
  // One at infinity is drawn at the edge of the sheet; there it is turned, not carried.
  const far = Math.hypot(mark.x_m, mark.y_m - from.camera.height_m, mark.z_m) / rightM;
  const step = infinite ? sceneStep(from, kind, 0, dy * far) : sceneStep(from, kind, dx, dy);
  return withMark(from, index, {
    x_m: tenthMm(mark.x_m + step.x_m),
    y_m: tenthMm(mark.y_m + step.y_m),
    z_m: tenthMm(mark.z_m + step.z_m),
  });
}
