import type { ProvedFrame, ProvedOverlap } from '@gangway/frames';
import { Fragment } from 'react';
import type { Sheet } from '../drawing/sheet.js';
import { STANDING_TEXT } from '../ui/standing.js';
import type { Proved } from './proof-messages.js';
import { PROOF_STANDING, verdictMark } from './proof-standing.js';

/** The longest arrow, px of the screen. */
const LONGEST = 34;
/** Arrows are at least drawn as if this were the most that anything is off, pixels. */
const LEAST_PX = 1;

/** Outlines as planned and as found, arrows of what is left over, and the verdict on each overlap. */
export function ProofMarks({ proved, sheet }: { proved: Proved; sheet: Sheet }) {
  const { proof, plan } = proved;
  const { frames, overlaps, pitchMm } = proof;
  const left = overlaps.flatMap(({ tiles }) =>
    tiles.flatMap(({ leftPx }) => (leftPx ? [Math.hypot(leftPx.x, leftPx.y)] : [])),
  );
  const most = Math.max(
    LEAST_PX,
    ...left,
    ...frames.map(({ offPx }) => Math.hypot(offPx.x, offPx.y)),
  );
  const perPx = LONGEST / most;
  const planned = new Map(plan.frames.map((frame) => [frame.order, frame]));
  return (
    <>
      <path
        fill="none"
        className="stroke-quiet"
        strokeWidth={1}
        strokeDasharray="5 4"
        d={frames
          .map((frame) => outline({ ...frame, ...at(planned.get(frame.order)!) }, sheet, pitchMm))
          .join('')}
      />
      {overlaps.map((overlap) => (
        <OverlapMark
          key={`${overlap.a} ${overlap.b}`}
          {...{ overlap, sheet, perPx, pitchMm }}
          of={frames}
        />
      ))}
      {frames.map((frame) => {
        const [x, y] = [sheet.x(frame.xMm), sheet.y(frame.yMm)];
        const { x: dx, y: dy } = frame.offPx;
        const off = Math.hypot(dx, dy) * perPx > 4;
        return (
          <g key={frame.order}>
            {off && (
              <path
                d={arrow(x, y, dx * perPx, -dy * perPx, 5)}
                fill="none"
                className="stroke-paper"
                strokeWidth={6}
              />
            )}
            {off && (
              <path
                d={arrow(x, y, dx * perPx, -dy * perPx, 5)}
                fill="none"
                className="stroke-ink"
                strokeWidth={2.5}
              />
            )}
            <circle cx={x} cy={y} r={11} className="fill-paper stroke-ink" strokeWidth={1.5} />
            <text x={x} y={y + 4} textAnchor="middle" className="figure text-[11px]">
              {frame.order}
            </text>
          </g>
        );
      })}
      <Key perPx={perPx} />
    </>
  );
}

const at = ({ xMm, yMm }: { xMm: number; yMm: number }) => ({ xMm, yMm });

function outline(
  { xMm, yMm, widthPx, heightPx }: Pick<ProvedFrame, 'xMm' | 'yMm' | 'widthPx' | 'heightPx'>,
  sheet: Sheet,
  pitchMm: number,
): string {
  const [w, h] = [(widthPx * pitchMm) / 2, (heightPx * pitchMm) / 2];
  return `M${sheet.x(xMm - w)},${sheet.y(yMm + h)}H${sheet.x(xMm + w)}V${sheet.y(yMm - h)}H${sheet.x(xMm - w)}Z`;
}

/** From a place on, with a head. */
function arrow(x: number, y: number, dx: number, dy: number, head = 3): string {
  const [tipX, tipY] = [x + dx, y + dy];
  // Too short for a head: a dot says that it was looked at.
  if (Math.hypot(dx, dy) < 1.5 * head) return `M${x - 1},${y}h2M${x},${y}L${tipX},${tipY}`;
  const angle = Math.atan2(dy, dx);
  const side = (by: number): string =>
    `${tipX - head * Math.cos(angle + by)},${tipY - head * Math.sin(angle + by)}`;
  return `M${x},${y}L${tipX},${tipY}M${side(0.6)}L${tipX},${tipY}L${side(-0.6)}`;
}

/** Where two frames lie over each other, as found. */
function sharedBox(a: ProvedFrame, b: ProvedFrame, pitchMm: number) {
  const edge = (of: ProvedFrame, sign: 1 | -1) => ({
    x: of.xMm + (sign * of.widthPx * pitchMm) / 2,
    y: of.yMm + (sign * of.heightPx * pitchMm) / 2,
  });
  const [left, foot] = [Math.max(edge(a, -1).x, edge(b, -1).x), Math.max(edge(a, -1).y, edge(b, -1).y)]; // prettier-ignore
  const [right, top] = [Math.min(edge(a, 1).x, edge(b, 1).x), Math.min(edge(a, 1).y, edge(b, 1).y)];
  return right > left && top > foot ? { left, right, foot, top } : null;
}

const DASHES = { within: undefined, costs: '2 4', outside: '7 3' } as const;

function OverlapMark({
  overlap,
  of,
  sheet,
  perPx,
  pitchMm,
}: {
  overlap: ProvedOverlap;
  of: readonly ProvedFrame[];
  sheet: Sheet;
  perPx: number;
  pitchMm: number;
}) {
  const [a, b] = [of.find(({ order }) => order === overlap.a)!, of.find(({ order }) => order === overlap.b)!]; // prettier-ignore
  const shared = sharedBox(a, b, pitchMm);
  if (!shared) return null;
  const standing = PROOF_STANDING[overlap.verdict];
  const [x, y] = [sheet.x(shared.left), sheet.y(shared.top)];
  const [width, height] = [sheet.x(shared.right) - x, sheet.y(shared.foot) - y];
  const words = verdictMark(overlap);
  // Between the numbers of its frames there is room for a word; close up it goes along.
  const [labelX, labelY] = [x + width / 2, Math.max(44, y + Math.min(height - 10, Math.max(16, height * 0.28)))]; // prettier-ignore
  const matched = overlap.tiles.filter(({ state, leftPx }) => state === 'matched' && leftPx);
  return (
    <g className={STANDING_TEXT[standing]}>
      <rect
        {...{ x, y, width, height }}
        fill={standing === 'outside' ? 'url(#hatch)' : 'none'}
        fillOpacity={0.35}
        stroke="currentColor"
        strokeWidth={1.5}
        strokeDasharray={DASHES[standing]}
      />
      {[false, true].map((odd) => (
        <Fragment key={String(odd)}>
          {['halo', ''].map((under) => (
            <path
              key={under}
              d={matched
                .filter((tile) => tile.odd === odd)
                .map(({ atMm, leftPx }) =>
                  arrow(sheet.x(atMm.x), sheet.y(atMm.y), leftPx!.x * perPx, -leftPx!.y * perPx),
                ) // prettier-ignore
                .join('')}
              fill="none"
              className={under ? 'stroke-paper' : odd ? 'stroke-outside' : ''}
              stroke={under || odd ? undefined : 'currentColor'}
              strokeWidth={(odd ? 2.5 : 1.5) + (under ? 2.5 : 0)}
            />
          ))}
        </Fragment>
      ))}
      <path
        d={overlap.tiles
          .filter(({ state }) => state === 'lost')
          .map(({ atMm }) => `M${sheet.x(atMm.x) - 3},${sheet.y(atMm.y) - 3}l6,6m0,-6l-6,6`)
          .join('')}
        className="stroke-outside"
        strokeWidth={1.5}
      />
      <g transform={`translate(${labelX} ${labelY})`}>
        <rect
          x={-words.length * 3.25 - 6}
          y={-11}
          width={words.length * 6.5 + 12}
          height={19}
          className="fill-paper"
          stroke="currentColor"
        />
        <text y={3} textAnchor="middle" className="figure text-[12px]">
          {words}
        </text>
      </g>
    </g>
  );
}

/** How long a pixel is drawn. */
function Key({ perPx }: { perPx: number }) {
  const px = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].findLast((each) => each * perPx <= 60) ?? 0.1;
  return (
    <g transform="translate(14 18)">
      <rect x={-6} y={-13} width={px * perPx + 96} height={22} className="fill-stage" opacity={0.9} />
      <path d={arrow(0, -2, px * perPx, 0, 4)} className="stroke-ink" fill="none" strokeWidth={2} />
      <text x={px * perPx + 8} y={2} className="text-[12px]">
        {px} px in the files
      </text>
    </g>
  );
} // prettier-ignore
