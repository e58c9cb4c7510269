import clsx from 'clsx';
import { useRef, useState } from 'react';
import { useDrag } from '@use-gesture/react';
import { benchOf, type Bench, type BenchBlock, type Rig, type RigProblem } from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt, type Sheet } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';
import { Draw, Joints, LABELS_PX, Register, Sensor } from './bench-marks.js';

interface Props {
  rig: Rig;
  problems: readonly RigProblem[];
  picked: number | null;
  onPick: (index: number | null) => void;
  /** Moves a part of the chain to another place in it. */
  onMove: (from: number, to: number) => void;
}

const MARGIN_PX = 30;
const FOOT_PX = 58;

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
  return sheetAt(width / 2 + middle * scale, centre, -scale, scale);
}

/** Where a dragged part would land: the place whose joint is nearest. */
function placeAt(bench: Bench, mm: number, chain: number): number {
  const middles = bench.blocks
    .filter(({ index }) => index >= 0 && index < chain)
    .map(({ index, frontMm, rearMm }) => ({ index, middle: (frontMm + rearMm) / 2 }));
  return middles.filter(({ middle }) => middle > mm).length;
}

export function BenchDrawing({ rig, problems, picked, onPick, onMove }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const bench = benchOf(rig);
  const sheet = sheetOf(bench, size.width, size.height);
  const words = `Bench, from the lens to the sensor: ${bench.blocks
    .map((block) => `${block.name}, ${block.words}`)
    .join('; ')}.`;
  return (
    <Drawn
      {...{ box, size }}
      label={words}
      role="group"
      className="min-h-72 flex-1 bg-stage text-ink"
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
          width={(bench.protrusion.fromMm - bench.protrusion.toMm) * sheet.scaleY}
          y={sheet.y(bench.protrusion.halfMm)}
          height={2 * bench.protrusion.halfMm * sheet.scaleY}
          fill="var(--ink)"
          fillOpacity="0.25"
          stroke="var(--ink)"
        />
      )}
      <Sensor bench={bench} sheet={sheet} />
      <Register bench={bench} sheet={sheet} height={size.height} />
      <Joints bench={bench} sheet={sheet} problems={problems} />
    </Drawn>
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
      const mm = (block.frontMm + block.rearMm) / 2 - dx / sheet.scaleY;
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
  const high = 2 * block.halfMm * sheet.scaleY;
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
  const h = half * 0.72 * sheet.scaleY;
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
