import { useMemo } from 'react';
import type { Logged, Matched } from '@gangway/station';
import { wallS } from './now.js';
import type { Picture } from './picture-files.js';
import { AXIS_WIDTH, MarkLines, MarkWords, timeAxis } from './time-axis.js';

/** Time against time: the log above, the files below as their camera’s clock has them once it is set right. */

const [HEIGHT, TOP, BOTTOM] = [170, 34, 136] as const;
const LABELS = 9;

export function MatchDrawing({
  pictures,
  lines,
  matched,
}: {
  pictures: readonly Picture[];
  lines: readonly Logged[];
  matched: Matched;
}) {
  const drawn = useMemo(() => {
    const lineS = new Map(lines.map(({ id, at }) => [id, wallS(at)]));
    const byKey = new Map(pictures.map((each) => [each.key, each]));
    const shift = (camera: string): number => {
      const offset = matched.offsets[camera];
      if (!offset) return 0;
      return offset.kind === 'undecided' ? (offset.offsetsS[0] ?? 0) : offset.offsetS;
    };
    const fileS = (key: string): number | null => {
      const facts = byKey.get(key)?.facts;
      return facts?.clockS === undefined || facts.clockS === null ? null : facts.clockS - shift(facts.camera); // prettier-ignore
    };
    const all = [...lineS.values(), ...matched.pairs.flatMap(({ file }) => fileS(file) ?? [])];
    const axis = timeAxis(all, LABELS);
    if (!axis) return null;
    const x = (at: number): number => Math.round(axis.xOf(at) * 4) / 4;
    const links = { sure: new Set<string>(), unsure: new Set<string>() };
    const [alone, files] = [new Set<number>(), new Set<number>()];
    const taken = new Set<string>();
    for (const { file, line, sure } of matched.pairs) {
      const at = fileS(file);
      if (line !== null) taken.add(line);
      if (at === null) continue;
      files.add(x(at));
      if (line === null) alone.add(x(at));
      else links[sure ? 'sure' : 'unsure'].add(`M${x(lineS.get(line)!)} ${TOP}L${x(at)} ${BOTTOM}`);
    }
    const free = new Set([...lineS].flatMap(([id, at]) => (taken.has(id) ? [] : [x(at)])));
    return {
      axis,
      sure: [...links.sure].join(''),
      unsure: [...links.unsure].join(''),
      lines: ticks([...lineS.values()].map(x), TOP - 14, TOP),
      files: ticks(files, BOTTOM, BOTTOM + 14),
      free: ticks(free, TOP - 20, TOP),
      alone: ticks(alone, BOTTOM, BOTTOM + 20),
    };
  }, [pictures, lines, matched]);
  if (!drawn) return null;
  const count = (sure: boolean): number => matched.pairs.filter((each) => each.line !== null && each.sure === sure).length; // prettier-ignore
  return (
    <div className="relative bg-stage" style={{ height: HEIGHT }}>
      <div className="absolute inset-y-0 right-0 left-12">
        <svg
          viewBox={`0 0 ${AXIS_WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          className="absolute inset-0 size-full"
          role="img"
          aria-label={`Log above, files below, by their times: ${count(true)} sure, ${count(false)} unsure, ${matched.pairs.filter(({ line }) => line === null).length} files without a line`}
        >
          <MarkLines axis={drawn.axis} height={HEIGHT - 16} />
          <Stroke
            d={`M0 ${TOP}H${AXIS_WIDTH}M0 ${BOTTOM}H${AXIS_WIDTH}`}
            colour="var(--rule-strong)"
          />
          <Stroke d={drawn.sure} colour="var(--within)" />
          <Stroke d={drawn.unsure} colour="var(--costs)" width={2} dash="2 3" />
          <Stroke d={drawn.lines} colour="var(--ink)" width={2} />
          <Stroke d={drawn.files} colour="var(--ink)" width={2} />
          <Stroke d={drawn.free} colour="var(--outside)" width={3} />
          <Stroke d={drawn.alone} colour="var(--outside)" width={3} />
        </svg>
        <MarkWords axis={drawn.axis} />
      </div>
      <span className="absolute top-5 left-3 text-[13px]">Log</span>
      <span className="absolute bottom-6 left-3 text-[13px]">Files</span>
    </div>
  );
}

const ticks = (places: Iterable<number>, from: number, to: number): string =>
  [...new Set(places)].map((x) => `M${x} ${from}V${to}`).join('');

const Stroke = ({
  d,
  colour,
  width = 1,
  dash,
}: {
  d: string;
  colour: string;
  width?: number;
  dash?: string;
}) => (
  <path
    d={d}
    fill="none"
    stroke={colour}
    strokeWidth={width}
    strokeDasharray={dash}
    vectorEffect="non-scaling-stroke"
  />
);
