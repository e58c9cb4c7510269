import { useMemo } from 'react';
import type { Logged, Matched } from '@gangway/station';
import { wallS } from './now.js';
import type { Picture } from './picture-files.js';

/** Time against time: the log above, the files below as their camera’s clock has them once it is set right. */

const [WIDTH, HEIGHT, TOP, BOTTOM] = [1000, 170, 34, 136] as const;
const STEPS_S = [60, 300, 600, 900, 1800, 3600, 7200, 14_400, 28_800, 86_400];
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
    if (all.length === 0) return null;
    const [least, most] = all.reduce(([a, b], at) => [Math.min(a, at), Math.max(b, at)], [Infinity, -Infinity]); // prettier-ignore
    const span = Math.max(60, most - least);
    const [from, to] = [least - span * 0.02, most + span * 0.02];
    const x = (at: number): number => Math.round(((at - from) / (to - from)) * WIDTH * 4) / 4;
    const step = STEPS_S.find((each) => (to - from) / each <= LABELS) ?? STEPS_S.at(-1)!;
    const marks: number[] = [];
    for (let at = Math.ceil(from / step) * step; at <= to; at += step) marks.push(at);
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
      marks: marks.map((at) => ({ at, x: x(at) })),
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
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          className="absolute inset-0 size-full"
          role="img"
          aria-label={`Log above, files below, by their times: ${count(true)} sure, ${count(false)} unsure, ${matched.pairs.filter(({ line }) => line === null).length} files without a line`}
        >
          {drawn.marks.map(({ at, x }) => (
            <path
              key={at}
              d={`M${x} 0V${HEIGHT - 16}`}
              stroke="var(--rule)"
              vectorEffect="non-scaling-stroke"
            />
          ))}
          <Stroke d={`M0 ${TOP}H${WIDTH}M0 ${BOTTOM}H${WIDTH}`} colour="var(--rule-strong)" />
          <Stroke d={drawn.sure} colour="var(--within)" />
          <Stroke d={drawn.unsure} colour="var(--costs)" width={2} dash="2 3" />
          <Stroke d={drawn.lines} colour="var(--ink)" width={2} />
          <Stroke d={drawn.files} colour="var(--ink)" width={2} />
          <Stroke d={drawn.free} colour="var(--outside)" width={3} />
          <Stroke d={drawn.alone} colour="var(--outside)" width={3} />
        </svg>
        {drawn.marks.map(({ at, x }) => (
          <span
            key={at}
            className="figure absolute bottom-0 -translate-x-1/2 text-[12px] text-quiet"
            style={{ left: `${x / 10}%` }}
          >
            {new Date(at * 1000).toISOString().slice(11, 16)}
          </span>
        ))}
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
