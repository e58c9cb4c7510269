import { scaleLinear, scaleLog } from 'd3-scale';
import {
  CONTROLS,
  engravedStops,
  fStop,
  fixed,
  trimmed,
  type ControlId,
  type Scale,
  type Units,
} from '@gangway/station';

/** The engraved part of a distance scale ends this share short of the end, which is infinity. */
const INFINITY_SHARE = 0.06;

export interface Engraving {
  /** Place of a value along the scale, px. */
  readonly toX: (value: number) => number;
  readonly fromX: (x: number) => number;
  readonly ticks: readonly { value: number; label: string | null }[];
}

const METRES_PER_FOOT = 0.3048;

export function engrave(scale: Scale, width: number, units: Units): Engraving {
  const { spacing } = CONTROLS[scale.id];
  const [from] = scale.domain;
  const to = scale.lastFinite;
  const open = scale.domain[1] === Infinity;
  const last = open ? width * (1 - INFINITY_SHARE) : width;
  const map =
    spacing === 'log'
      ? scaleLog().domain([from, to]).range([0, last]).clamp(true)
      : scaleLinear().domain([from, to]).range([0, last]).clamp(true);
  return {
    toX: (value) => (value > to && open ? width : map(value)),
    fromX: (x) => (open && x > (last + width) / 2 ? Infinity : map.invert(Math.min(x, last))),
    ticks: ticksFor(scale.id, from, to, width, units, map),
  };
}

function ticksFor(
  id: ControlId,
  from: number,
  to: number,
  width: number,
  units: Units,
  map: (value: number) => number,
): Engraving['ticks'] {
  if (id === 'aperture') {
    const whole = new Set(engravedStops(from, to, 'whole'));
    return thin(
      engravedStops(from, to, 'third').map((value) => ({
        value,
        label: whole.has(value) || value === from ? fStop(value).slice(2) : null,
      })),
      map,
    );
  }
  if (id === 'distance') {
    const unit = units === 'feet' ? METRES_PER_FOOT : 1;
    const values: { value: number; label: string | null }[] = [];
    for (let power = -2; power <= 3; power++) {
      for (const lead of [1, 1.5, 2, 3, 5, 7]) {
        const shown = lead * 10 ** power;
        const value = shown * unit;
        if (value < from || value > to) continue;
        values.push({ value, label: [1, 2, 5].includes(lead) ? trimmed(shown, 2) : null });
      }
    }
    return [...thin(values, map), { value: Infinity, label: '∞' }];
  }
  const linear = scaleLinear().domain([from, to]);
  const major = linear.ticks(Math.max(4, Math.floor(width / 55)));
  const step = (major[1] ?? 1) - (major[0] ?? 0);
  const minor = step / 5;
  const values: { value: number; label: string | null }[] = [];
  for (let i = Math.ceil(from / minor - 1e-9); i * minor <= to + 1e-9; i++) {
    const value = i * minor;
    const isMajor = i % 5 === 0;
    values.push({
      value,
      label: isMajor ? fixed(Math.abs(value), step < 1 ? 1 : 0) : null,
    });
  }
  return values;
}

const APART_PX = 24;

/** Takes away labels that would run into the one before. */
function thin(
  ticks: { value: number; label: string | null }[],
  map: (value: number) => number,
): { value: number; label: string | null }[] {
  let last = -Infinity;
  return ticks.map((tick) => {
    if (tick.label === null) return tick;
    const x = map(tick.value);
    if (x - last < APART_PX) return { ...tick, label: null };
    last = x;
    return tick;
  });
}
