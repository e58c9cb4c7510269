import { allowedTravel } from '@gangway/optics';
import {
  CONTROL_IDS,
  CONTROLS,
  farEndM,
  settable,
  settableStop,
  type Control,
  type ControlId,
} from './controls.js';
import type { Station } from '../document/station.js';
import { setup, setupOf, type Setup } from '../optical/setup.js';
import { standingOf, type Standing } from '../optical/state.js';
import { focusWalk, leanWalk, shiftWalk, stopWalk, type Walk } from '../optical/walk.js';

/** A stretch of a scale and how the frame would stand there, all other settings held. */
export interface Segment {
  readonly from: number;
  readonly to: number;
  readonly standing: Standing;
  /** True where the mechanism does not go, whatever the circle allows. */
  readonly beyond: boolean;
}

export interface Scale {
  readonly id: ControlId;
  readonly value: number;
  /** `to` of a distance scale is Infinity. */
  readonly domain: readonly [number, number];
  /** Where the engraved part of a distance scale ends. */
  readonly lastFinite: number;
  readonly segments: readonly Segment[];
  /** The rig has the movement, and the others as they are set leave none of it. */
  readonly blocked: boolean;
}

type Classify = (value: number) => Standing;

const SAMPLES = 64;
const BISECTIONS = 24;

/** How the frame stands at a value of a scale, as the scale would set it. */
function walkOf(id: ControlId, s: Setup): Walk {
  const made = (station: Station): Setup => setup(s.facts, station);
  switch (id) {
    case 'tilt':
    case 'swing': {
      const walk = leanWalk(s, `${id}_deg`);
      return (deg) => walk(settable(deg));
    }
    case 'aperture': {
      const walk = stopWalk(s);
      return (fNumber) => walk(settableStop(fNumber));
    }
    case 'distance':
      return focusWalk(s);
    case 'rise':
    case 'shift': {
      const walk = shiftWalk(s, made, `${id}_mm`);
      return (mm) => walk(settable(mm));
    }
  }
}

function classifier(id: ControlId, s: Setup): Classify {
  const walk = walkOf(id, s);
  return (value) => standingOf(walk(value));
}

/** Values to look at: evenly spaced as engraved, with the present one among them. */
function samples(control: Control, from: number, to: number, now: number): number[] {
  const values: number[] = [];
  for (let i = 0; i <= SAMPLES; i++) {
    const t = i / SAMPLES;
    values.push(control.spacing === 'log' ? from * (to / from) ** t : from + (to - from) * t);
  }
  values[SAMPLES] = to;
  if (now > from && now < to && !values.includes(now)) values.push(now);
  return values.sort((a, b) => a - b);
}

function crossing(classify: Classify, low: number, high: number, below: Standing): number {
  let [inside, outside] = [low, high];
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (inside + outside) / 2;
    if (classify(middle) === below) inside = middle;
    else outside = middle;
  }
  return (inside + outside) / 2;
}

function sampled(control: Control, s: Setup, from: number, to: number): Segment[] {
  const { station } = s;
  const classify = classifier(control.id, s);
  const segments: Segment[] = [];
  const values = samples(control, from, to, control.read(station));
  let start = from;
  let standing = classify(from);
  for (let i = 1; i < values.length; i++) {
    const here = classify(values[i]!);
    if (here === standing) continue;
    const edge = crossing(classify, values[i - 1]!, values[i]!, standing);
    segments.push({ from: start, to: edge, standing, beyond: false });
    [start, standing] = [edge, here];
  }
  segments.push({ from: start, to, standing, beyond: false });
  return segments;
}

/** Rise and shift need no search: the cone's section gives the spans outright. */
function spans(s: Setup, id: 'rise' | 'shift', from: number, to: number): Segment[] {
  const now = id === 'rise' ? s.set.riseMm : s.set.shiftMm;
  const outer = allowedTravel(s.cone, s.frame, s.placing[id]);
  const inner = allowedTravel(s.core, s.frame, s.placing[id]);
  const within = (span: { low: number; high: number }, value: number): boolean =>
    value >= now + span.low && value <= now + span.high;
  const edges = [outer, inner]
    .filter((span) => span.low <= span.high)
    .flatMap((span) => [now + span.low, now + span.high])
    .filter((edge) => edge > from && edge < to);
  const stops = [from, ...edges.sort((a, b) => a - b), to];
  const segments: Segment[] = [];
  for (let i = 1; i < stops.length; i++) {
    const middle = (stops[i - 1]! + stops[i]!) / 2;
    const standing = within(inner, middle) ? 'within' : within(outer, middle) ? 'costs' : 'outside';
    segments.push({ from: stops[i - 1]!, to: stops[i]!, standing, beyond: false });
  }
  return segments;
}

function segmentsOf(control: Control, s: Setup, from: number, to: number): Segment[] {
  const { id } = control;
  return (id === 'rise' || id === 'shift') && !s.facts.lens.filter
    ? spans(s, id, from, to)
    : sampled(control, s, from, to);
}

/** Whether a rig has a movement at all, whatever else is set. */
function has({ movement_limits: limits }: Station, id: ControlId): boolean {
  if (id === 'aperture' || id === 'distance') return true;
  const own = {
    rise: limits.rise_mm,
    shift: limits.shift_mm,
    tilt: limits.tilt_deg,
    swing: limits.swing_deg,
  };
  const [least, most] = own[id] ?? [-1, 1];
  const linear = id === 'rise' || id === 'shift';
  const length = (linear ? limits.radial_shift_mm : limits.radial_tilt_deg) ?? 1;
  return least < most && length > 0;
}

/** One scale with the stretches the other settings still allow. */
export function scaleOf(station: Station, id: ControlId): Scale {
  const s = setupOf(station);
  const control = CONTROLS[id];
  const domain = control.domain(station);
  const lastFinite = id === 'distance' ? farEndM(station) : domain[1];
  const [least, most] = control.mechanism(station);
  const from = Math.max(domain[0], least);
  const to = Math.min(lastFinite, most);
  const segments: Segment[] = [];
  if (from > domain[0]) {
    segments.push({
      from: domain[0],
      to: Math.min(from, lastFinite),
      standing: 'outside',
      beyond: true,
    });
  }
  if (from < to) segments.push(...segmentsOf(control, s, from, to));
  if (to < lastFinite)
    segments.push({ from: to, to: lastFinite, standing: 'outside', beyond: true });
  if (domain[1] === Infinity) {
    const beyond = most < Infinity;
    const standing = beyond ? 'outside' : classifier(id, s)(Infinity);
    const last = segments.at(-1);
    if (last && last.standing === standing && last.beyond === beyond) {
      segments[segments.length - 1] = { ...last, to: Infinity };
    } else segments.push({ from: lastFinite, to: Infinity, standing, beyond });
  }
  const blocked = segments.every(({ beyond }) => beyond) && has(station, id);
  return { id, value: control.read(station), domain, lastFinite, segments, blocked };
}

export function scalesOf(station: Station): Record<ControlId, Scale> {
  return Object.fromEntries(CONTROL_IDS.map((id) => [id, scaleOf(station, id)])) as Record<
    ControlId,
    Scale
  >;
}

/** The run of covered stretches around the value, or the nearest one; null when there is none. */
export function allowedRun(scale: Scale): { from: number; to: number } | null {
  const runs: { from: number; to: number }[] = [];
  for (const segment of scale.segments) {
    if (segment.standing === 'outside') continue;
    const last = runs.at(-1);
    if (last && last.to === segment.from) last.to = segment.to;
    else runs.push({ from: segment.from, to: segment.to });
  }
  const off = (run: { from: number; to: number }): number =>
    Math.max(0, run.from - scale.value, scale.value - run.to) || 0;
  return runs.sort((a, b) => off(a) - off(b))[0] ?? null;
}

/** Where `M` goes: the last allowed value on the side the movement is on. */
export function lastAllowed(scale: Scale): number | null {
  const run = allowedRun(scale);
  if (!run) return null;
  if (scale.id === 'distance') return run.from;
  if (scale.id === 'aperture') return run.from;
  const inward = (value: number): number =>
    (Math.sign(value) * Math.floor(Math.abs(value) * 100 + 1e-6)) / 100 + 0;
  const end = scale.value < 0 ? run.from : run.to;
  const moved = inward(end);
  return moved >= run.from && moved <= run.to ? moved : end;
}
