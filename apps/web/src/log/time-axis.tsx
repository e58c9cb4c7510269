/** An axis of time under a drawing: where it runs from and to, and its marks. */

export const AXIS_WIDTH = 1000;
const STEPS_S = [1, 5, 15, 60, 300, 600, 900, 1800, 3600, 7200, 14_400, 28_800, 86_400, 604_800, 2_592_000]; // prettier-ignore
const DAY_S = 86_400;
const LEAST_SPAN_S = 60;

export interface TimeAxis {
  /** The moments it has to hold, wall clock, s. */
  readonly leastS: number;
  readonly mostS: number;
  readonly xOf: (seconds: number) => number;
  readonly marks: readonly { readonly x: number; readonly said: string }[];
}

/** @returns null where there is no moment at all */
export function timeAxis(moments: Iterable<number>, labels: number): TimeAxis | null {
  let [leastS, mostS] = [Infinity, -Infinity];
  for (const at of moments) {
    leastS = Math.min(leastS, at);
    mostS = Math.max(mostS, at);
  }
  if (leastS === Infinity) return null;
  const span = Math.max(LEAST_SPAN_S, mostS - leastS);
  const [from, to] = [leastS - span * 0.02, mostS + span * 0.02 + (span - (mostS - leastS))];
  const xOf = (seconds: number): number => ((seconds - from) / (to - from)) * AXIS_WIDTH;
  const step = STEPS_S.find((each) => (to - from) / each <= labels) ?? to - from;
  const marks: { x: number; said: string }[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) {
    marks.push({ x: xOf(at), said: markSaid(at, step) });
  }
  return { leastS, mostS, xOf, marks };
}

/** The day at its beginning, the time within it. */
const markSaid = (at: number, step: number): string =>
  at % DAY_S === 0 || step >= DAY_S ? daySaid(at) : clockSaid(at, step < 60);

const clockSaid = (at: number, exact: boolean): string =>
  new Date(at * 1000).toISOString().slice(11, exact ? 19 : 16);

/** `3 Oct`; with its year, `3 October 2026`. */
const daySaid = (at: number, year = false): string =>
  new Date(at * 1000).toLocaleDateString('en-GB', {
    timeZone: 'UTC',
    day: 'numeric',
    month: year ? 'long' : 'short',
    ...(year ? { year: 'numeric' } : {}),
  });

/** The days something lasted: `3 October 2026`, `3 Oct to 5 October 2026`. */
export function daysSaid({ leastS, mostS }: TimeAxis): string {
  const [first, last] = [daySaid(leastS, true), daySaid(mostS, true)];
  if (first === last) return last;
  const sameYear = first.slice(-4) === last.slice(-4);
  return `${sameYear ? daySaid(leastS) : first} to ${last}`;
}

export function MarkLines({ axis, height }: { axis: TimeAxis; height: number }) {
  return axis.marks.map(({ x }) => (
    <path key={x} d={`M${x} 0V${height}`} stroke="var(--rule)" vectorEffect="non-scaling-stroke" />
  ));
}

export function MarkWords({ axis }: { axis: TimeAxis }) {
  return axis.marks.map(({ x, said }) => (
    <span
      key={x}
      className="figure absolute bottom-0 -translate-x-1/2 text-[12px] whitespace-nowrap text-quiet"
      style={{ left: `${(100 * x) / AXIS_WIDTH}%` }}
    >
      {said}
    </span>
  ));
}
