import clsx from 'clsx';
import { useRef, useState } from 'react';
import { useDrag } from '@use-gesture/react';
import {
  benchOf,
  trimmed,
  type Bench,
  type BenchBlock,
  type Rig,
  type RigProblem,
} from '@gangway/station';
import { useSize } from '../ui/use-size.js';

interface Props {
  rig: Rig;
  problems: readonly RigProblem[];
  picked: number | null;
  onPick: (index: number | null) => void;
  /** Moves a part of the chain to another place in it. */
  onMove: (from: number, to: number) => void;
}

const MARGIN_PX = 30;
const LABELS_PX = 64;
const FOOT_PX = 58;

interface Sheet {
  readonly x: (mm: number) => number;
  readonly y: (mm: number) => number;
  readonly scale: number;
}

/** Sensor to the right, light from the left; one scale for both directions. */
function sheetOf(bench: Bench, width: number, height: number): Sheet {
  const long = bench.frontMm + bench.behindMm;
  const scale = Math.min(
    (width - 2 * MARGIN_PX) / Math.max(60, long),
    (height - LABELS_PX - FOOT_PX) / (2 * bench.halfMm),
    4,
  );
  const middle = (bench.frontMm - bench.behindMm) / 2;
  const centre = LABELS_PX + (height - LABELS_PX - FOOT_PX) / 2;
  return {
    x: (mm) => width / 2 - (mm - middle) * scale,
    y: (mm) => centre - mm * scale,
    scale,
  };
}

/** Where a dragged part would land: the place whose joint is nearest. */
function placeAt(bench: Bench, mm: number, chain: number): number {
  const middles = bench.blocks
    .filter(({ index }) => index >= 0 && index < chain)
    .map(({ index, frontMm, rearMm }) => ({ index, middle: (frontMm + rearMm) / 2 }));
  return middles.filter(({ middle }) => middle > mm).length;
}

export function BenchDrawing({ rig, problems, picked, onPick, onMove }: Props) {
  const [box, { width, height }] = useSize<HTMLDivElement>();
  const bench = benchOf(rig);
  const sheet = width > 0 ? sheetOf(bench, width, height) : null;
  const words = `Bench, from the lens to the sensor: ${bench.blocks
    .map((block) => `${block.name}, ${block.words}`)
    .join('; ')}.`;
  return (
    <div ref={box} className="relative min-h-72 flex-1 bg-stage">
      {sheet && (
        <svg
          width={width}
          height={height}
          className="absolute inset-0 text-ink"
          role="group"
          aria-label={words}
        >
          <line
            x1={sheet.x(bench.frontMm) - 22}
            x2={sheet.x(-bench.behindMm) + 16}
            y1={sheet.y(0)}
            y2={sheet.y(0)}
            stroke="var(--rule-strong)"
            strokeDasharray="12 4 2 4"
          />
          {bench.bellows && <Draw bench={bench} sheet={sheet} />}
          {inOrder(bench.blocks).map((block) => (
            <Block
              key={`${block.index}-${block.name}`}
              block={block}
              bench={bench}
              sheet={sheet}
              chain={rig.chain.length}
              picked={picked === block.index}
              onPick={() => onPick(picked === block.index ? null : block.index)}
              onMove={onMove}
            />
          ))}
          {bench.protrusion && (
            <rect
              x={sheet.x(bench.protrusion.fromMm)}
              width={(bench.protrusion.fromMm - bench.protrusion.toMm) * sheet.scale}
              y={sheet.y(bench.protrusion.halfMm)}
              height={2 * bench.protrusion.halfMm * sheet.scale}
              fill="var(--ink)"
              fillOpacity="0.25"
              stroke="var(--ink)"
            />
          )}
          <Sensor bench={bench} sheet={sheet} />
          <Register bench={bench} sheet={sheet} height={height} />
          <Joints bench={bench} sheet={sheet} problems={problems} />
        </svg>
      )}
    </div>
  );
}

/** The bellows first, so that a board in their front is seen. */
const inOrder = (blocks: readonly BenchBlock[]): BenchBlock[] =>
  [...blocks].sort((a, b) => Number(b.kind === 'view_camera') - Number(a.kind === 'view_camera'));

const SHAPES: Partial<Record<BenchBlock['kind'], string>> = {
  lens: 'var(--glass)',
  back: 'var(--paper)',
  multiplier: 'var(--glass)',
};

function Block({
  block,
  bench,
  sheet,
  chain,
  picked,
  onPick,
  onMove,
}: {
  block: BenchBlock;
  bench: Bench;
  sheet: Sheet;
  chain: number;
  picked: boolean;
  onPick: () => void;
  onMove: (from: number, to: number) => void;
}) {
  const [dragged, setDragged] = useState(0);
  const moved = useRef(false);
  const inChain = block.index >= 0 && block.index < chain;
  const bind = useDrag(
    ({ movement: [dx], first, last }) => {
      if (first) moved.current = false;
      if (Math.abs(dx) > 4) moved.current = true;
      if (!last) {
        setDragged(dx);
        return;
      }
      setDragged(0);
      if (!moved.current) return;
      const mm = (block.frontMm + block.rearMm) / 2 - dx / sheet.scale;
      const to = placeAt(bench, mm, chain);
      const at = to > block.index ? to - 1 : to;
      if (at !== block.index) onMove(block.index, at);
    },
    { enabled: inChain, pointer: { keys: false } },
  );
  const left = sheet.x(block.frontMm);
  const right = sheet.x(block.rearMm);
  const wide = Math.max(5, right - left);
  const top = sheet.y(block.halfMm);
  const high = 2 * block.halfMm * sheet.scale;
  const camera = block.kind === 'view_camera';
  const label = `${block.name}, ${block.words}${inChain ? '; arrows move it along the chain' : ''}`;
  return (
    <g
      {...(inChain ? bind() : {})}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={picked}
      onClick={() => {
        if (!moved.current) onPick();
        moved.current = false;
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          onPick();
        }
        const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
        const to = block.index + step;
        if (step !== 0 && inChain && to >= 0 && to < chain) {
          event.preventDefault();
          onMove(block.index, to);
        }
      }}
      transform={dragged === 0 ? undefined : `translate(${dragged} 0)`}
      className={clsx('touch-none outline-offset-4', inChain ? 'cursor-grab' : 'cursor-pointer')}
    >
      {camera ? (
        <Bellows left={left} right={right} top={top} high={high} picked={picked} />
      ) : (
        <rect
          x={left}
          y={top}
          width={wide}
          height={high}
          rx={2}
          fill={SHAPES[block.kind] ?? 'var(--paper)'}
          stroke="var(--ink)"
          strokeWidth={picked ? 3 : 1.4}
        />
      )}
      {block.kind === 'lens' && <Glass left={left} wide={wide} sheet={sheet} half={block.halfMm} />}
      {block.kind === 'multiplier' && (
        <Glass left={left} wide={wide} sheet={sheet} half={block.halfMm * 0.7} />
      )}
    </g>
  );
}

/** A hint of a lens element in the middle of a barrel. */
function Glass({
  left,
  wide,
  sheet,
  half,
}: {
  left: number;
  wide: number;
  sheet: Sheet;
  half: number;
}) {
  const x = left + wide / 2;
  const h = half * 0.72 * sheet.scale;
  const bulge = Math.min(wide * 0.35, h * 0.3);
  const y = sheet.y(0);
  return (
    <path
      d={`M ${x} ${y - h} Q ${x + bulge} ${y} ${x} ${y + h} Q ${x - bulge} ${y} ${x} ${y - h} Z`}
      fill="none"
      stroke="var(--ink)"
      strokeWidth="1"
      pointerEvents="none"
    />
  );
}

function Bellows({
  left,
  right,
  top,
  high,
  picked,
}: {
  left: number;
  right: number;
  top: number;
  high: number;
  picked: boolean;
}) {
  const standard = 7;
  const inner = right - left - 2 * standard;
  const folds = Math.max(3, Math.round(inner / 16));
  const step = inner / folds;
  const edge = (y: number, out: number): string =>
    Array.from({ length: folds }, (_, i) => {
      const x = left + standard + i * step;
      return `${x} ${y + (i % 2 === 0 ? 0 : out)}`;
    })
      .concat(`${right - standard} ${y}`)
      .join(' L ');
  const inset = high * 0.14;
  return (
    <>
      <path
        d={`M ${edge(top + inset, 7)} L ${right - standard} ${top + high - inset} L ${edge(
          top + high - inset,
          -7,
        )
          .split(' L ')
          .reverse()
          .join(' L ')} Z`}
        fill="var(--glass)"
        stroke="var(--ink)"
        strokeWidth={picked ? 2.4 : 1}
      />
      <rect
        x={left}
        y={top}
        width={standard}
        height={high}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={picked ? 3 : 1.4}
      />
      <rect
        x={right - standard}
        y={top}
        width={standard}
        height={high}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={picked ? 3 : 1.4}
      />
    </>
  );
}

/** The bellows' draw between least and greatest, below the bellows. */
function Draw({ bench, sheet }: { bench: Bench; sheet: Sheet }) {
  const { rearMm, leastMm, greatestMm, drawMm } = bench.bellows!;
  const y = sheet.y(-bench.halfMm) + 14;
  const [from, least, now, most] = [
    rearMm,
    rearMm + leastMm,
    rearMm + drawMm,
    rearMm + greatestMm,
  ].map(sheet.x) as [number, number, number, number];
  const end = Math.max(6, most);
  return (
    <g fontSize="11">
      <line x1={from} x2={end} y1={y} y2={y} stroke="var(--within)" strokeWidth="2" />
      <line
        x1={from}
        x2={least}
        y1={y}
        y2={y}
        stroke="var(--outside)"
        strokeWidth="3"
        strokeDasharray="2 3"
      />
      {most >= 6 && <line x1={most} x2={most} y1={y - 5} y2={y + 5} stroke="var(--ink)" />}
      <line x1={least} x2={least} y1={y - 5} y2={y + 5} stroke="var(--ink)" />
      <circle cx={now} cy={y} r="4" fill="var(--ink)" />
      <text x={from + 10} y={y + 4} className="narrow">
        draw {trimmed(drawMm, 1)} of {trimmed(leastMm, 0)} to {trimmed(greatestMm, 0)} mm
      </text>
    </g>
  );
}

function Sensor({ bench, sheet }: { bench: Bench; sheet: Sheet }) {
  if (bench.sensorHalfMm === null) return null;
  const x = sheet.x(0);
  return (
    <g pointerEvents="none">
      <line
        x1={x}
        x2={x}
        y1={sheet.y(bench.sensorHalfMm)}
        y2={sheet.y(-bench.sensorHalfMm)}
        stroke="var(--ink)"
        strokeWidth="4"
      />
    </g>
  );
}

/** The register the lens asks for, from its flange; where it ends, infinity is sharp. */
function Register({ bench, sheet, height }: { bench: Bench; sheet: Sheet; height: number }) {
  const { flangeMm, infinityMm } = bench;
  if (flangeMm === null || infinityMm === null) return null;
  const [from, to] = [sheet.x(flangeMm), sheet.x(infinityMm)];
  const y = height - 20;
  const off = Math.abs(infinityMm) > 0.005;
  const colour = off ? 'var(--outside)' : 'var(--within)';
  const half = (bench.sensorHalfMm ?? 12) * 1.15;
  return (
    <g pointerEvents="none" fontSize="12">
      <line
        x1={from}
        x2={from}
        y1={sheet.y(-bench.halfMm) - 8}
        y2={y + 5}
        stroke="var(--rule-strong)"
        strokeDasharray="2 3"
      />
      <line x1={from} x2={to} y1={y} y2={y} stroke={colour} strokeWidth="1.4" />
      <line x1={to} x2={to} y1={y - 5} y2={y + 5} stroke={colour} strokeWidth="1.4" />
      <line x1={from} x2={from} y1={y - 5} y2={y + 5} stroke={colour} strokeWidth="1.4" />
      <line
        x1={to}
        x2={to}
        y1={sheet.y(half)}
        y2={sheet.y(-half)}
        stroke={colour}
        strokeWidth="1.6"
        strokeDasharray={off ? '5 3' : undefined}
      />
      <text x={(from + to) / 2} y={y - 6} textAnchor="middle" className="narrow">
        {trimmed(flangeMm - infinityMm, 2)} mm from flange to infinity’s picture
        {off
          ? `, ${trimmed(Math.abs(infinityMm), 2)} mm ${infinityMm > 0 ? 'before' : 'behind'} the sensor`
          : ''}
      </text>
    </g>
  );
}

/** Problems at the joint where they occur, by number as in the list. */
function Joints({
  bench,
  sheet,
  problems,
}: {
  bench: Bench;
  sheet: Sheet;
  problems: readonly RigProblem[];
}) {
  const at = new Map<number, number[]>();
  problems.forEach(({ joint }, index) => {
    if (joint === null) return;
    at.set(joint, [...(at.get(joint) ?? []), index]);
  });
  const y = LABELS_PX - 22;
  return (
    <g fontSize="12" pointerEvents="none">
      {[...at].map(([joint, indices]) => {
        const x = sheet.x(bench.jointsMm[joint] ?? 0);
        return (
          <g key={joint}>
            <line
              x1={x}
              x2={x}
              y1={y + 10}
              y2={sheet.y(-bench.halfMm)}
              stroke="var(--outside)"
              strokeDasharray="3 3"
            />
            {indices.map((index, i) => {
              const stop = problems[index]!.severity === 'stop';
              return (
                <g
                  key={index}
                  transform={`translate(${x + (i - (indices.length - 1) / 2) * 24} ${y})`}
                >
                  <circle
                    r="10"
                    fill={stop ? 'var(--outside)' : 'var(--page)'}
                    stroke={stop ? 'var(--outside)' : 'var(--costs)'}
                    strokeWidth="2"
                  />
                  <text
                    y="4"
                    textAnchor="middle"
                    style={{ fill: stop ? 'var(--on-strong)' : 'var(--ink)' }}
                    fontWeight="600"
                  >
                    {index + 1}
                  </text>
                </g>
              );
            })}
          </g>
        );
      })}
    </g>
  );
}
