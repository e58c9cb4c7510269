import { ticks } from 'd3-array';
import {
  CONTROLS,
  engravedStops,
  fStop,
  fixed,
  trimmed,
  type ControlId,
  type Scale,
  type Spacing,
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
  const { map, back } = mapping(spacing, [from, to], last);
  return {
    toX: (value) => (value > to && open ? width : map(value)),
    fromX: (x) => (open && x > (last + width) / 2 ? Infinity : back(x)),
    ticks: ticksFor(scale.id, from, to, width, units, map),
  };
}

/**
 * Places along a scale and back, held to its ends. The library for this brings colours and formats
 * along that nothing here uses, a tenth of what a station loads first.
 */
function mapping(spacing: Spacing, [from, to]: readonly [number, number], length: number) {
  const [out, back] = spacing === 'log' ? [Math.log, Math.exp] : [same, same];
  const held = (value: number, low: number, high: number): number =>
    Math.min(high, Math.max(low, value));
  const [low, high] = [out(from), out(to)];
  return {
    map: (value: number): number => (length * (out(held(value, from, to)) - low)) / (high - low),
    back: (x: number): number =>
      held(back(low + ((high - low) * held(x, 0, length)) / length), from, to),
  };
}

const same = (value: number): number => value;

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
  const major = ticks(from, to, Math.max(4, Math.floor(width / 55)));
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
