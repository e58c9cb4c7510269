import { allowedTravel, bisect, toPicture, type Cone, type Span } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { stateOf } from '../optical/state.js';
import { setup, setupLike, setupOf, type Setup } from '../optical/setup.js';
import { allowedRise, movementsAsked, facadeView, type MovementsAsked } from './facade.js';
import { framedWell } from './verdict.js';
import { rounded } from '../words/rounded.js';

/** Movements are not overstretched: this share of what is allowed is preferred. */
export const SENSIBLE = 0.9;

/** The part of a span that lies within a share of its reach from zero. */
function eased({ low, high }: Span, share: number): Span {
  return { low: low < 0 ? low * share : low, high: high > 0 ? high * share : high };
}

/** A value inside a span, the nearest to `now`, at the coarsest of 0.1, 0.01, 0.001 that fits. */
export function settableIn({ low, high }: Span, now: number): number | null {
  if (low > high) return null;
  // Not right at an end where there is room: a tenth of it is left.
  const room = Math.min(0.1 * (high - low), 0.3) || 0;
  const aim = Math.min(high - room, Math.max(low + room, now));
  for (const decimals of [1, 2, 3]) {
    const unit = 10 ** -decimals;
    for (const round of [Math.round, Math.ceil, Math.floor]) {
      const value = rounded(round(aim / unit) * unit, decimals);
      if (value >= low - 1e-12 && value <= high + 1e-12) return value;
    }
  }
  return null;
}

/** Shifts allowed with nothing risen, as set. */
function shiftSpan(s: Setup, cone: Cone): Span {
  const { x, y } = toPicture(s.placing, { ...s.set, riseMm: 0 });
  const level = { ...s.frame, shiftMm: x, riseMm: y };
  const circle = allowedTravel(cone, level, s.placing.shift);
  const [least, most] = s.mechanism.shift;
  return {
    low: Math.max(circle.low + s.set.shiftMm, least),
    high: Math.min(circle.high + s.set.shiftMm, most),
  };
}

const within = (a: Span, b: Span): Span => ({
  low: Math.max(a.low, b.low),
  high: Math.min(a.high, b.high),
});

/** A set value that stays as it is when it serves, unrounded. */
const keptOr = (span: Span, now: number): number | null =>
  now >= span.low && now <= span.high ? now : settableIn(span, now);

/** A station before its movements are found: what its façade asks for. */
interface Asked {
  readonly s: Setup;
  readonly asks: MovementsAsked;
}

/** Null where no movement at all has the whole façade in the frame. */
function askedOf(s: Setup): Asked | null {
  const { facade } = s.station;
  if (!facade) return null;
  const asks = movementsAsked(facadeView(s, facade));
  return asks && asks.top <= asks.foot && asks.right <= asks.left ? { s, asks } : null;
}

/**
 * The station with rise and shift that frame its façade, moved as little as need be; null when
 * no allowed movement does. Where it can be, no corner is left past the sharp core.
 * @param share of the allowed rise that may be used
 */
export function movedToFrame(station: Station, share = 1): Station | null {
  const asked = askedOf(setupOf(station));
  return asked && (crispWithin(asked, share) ?? movedWithin(asked, share, 'cone'));
}

/** Whether {@link movedToFrame} finds anything, at half the cost. */
export function canBeFramed(s: Setup, share: number): boolean {
  const asked = askedOf(s);
  if (!asked) return false;
  // The circle is the wider of the two: asked first, it seldom leaves anything to the core.
  const across = shifted(asked, 'cone');
  const wide = across && risen(across, asked, share, 'cone');
  if (wide && framedWell(wide)) return true;
  if (!wide && s.core.halfAngleRad <= s.cone.halfAngleRad) {
    // Where the circle has no room at a shift, the core in it has none either.
    const narrow = shifted(asked, 'core');
    if (!narrow || narrow.set.shiftMm === across?.set.shiftMm) return false;
  }
  return crispWithin(asked, share) !== null;
}

function crispWithin(asked: Asked, share: number): Station | null {
  const crisp = movedWithin(asked, share, 'core');
  return crisp && stateOf(crisp) === 'sharp' ? crisp : null;
}

function movedWithin(asked: Asked, share: number, edge: 'core' | 'cone'): Station | null {
  const across = shifted(asked, edge);
  const after = across && risen(across, asked, share, edge);
  return after && framedWell(after) ? after : null;
}

/** With a shift that has both sides of the façade in; null where none does. */
function shifted({ s, asks }: Asked, edge: 'core' | 'cone'): Setup | null {
  const { station } = s;
  const now = station.movements.shift_mm;
  const shift = keptOr(within({ low: asks.right, high: asks.left }, shiftSpan(s, s[edge])), now);
  if (shift === null) return null;
  if (shift === now) return s;
  return setup(s.facts, { ...station, movements: { ...station.movements, shift_mm: shift } });
}

/** With a rise that has top and foot in; null where none does. */
function risen(
  across: Setup,
  { asks }: Asked,
  share: number,
  edge: 'core' | 'cone',
): Station | null {
  const { station } = across;
  const rise = keptOr(
    within({ low: asks.top, high: asks.foot }, eased(allowedRise(across, across[edge]), share)),
    station.movements.rise_mm,
  );
  return rise === null ? null : { ...station, movements: { ...station.movements, rise_mm: rise } };
}

/**
 * The smallest amount, in steps of `unit`, at which a change lets the façade be framed: first
 * within a sensible part of the movements, else with all of them.
 * @param change the station changed by an amount; null where it cannot be
 */
export function leastThatFrames(
  change: (amount: number) => Station | null,
  most: number,
  unit: number,
): { amount: number; after: Station } | null {
  const at = (amount: number, share: number): Station | null => {
    const station = change(amount);
    return station && movedToFrame(station, share);
  };
  const amounts = Array.from(
    { length: STEPS },
    (_, i) => unit * (most / unit) ** (i / (STEPS - 1)),
  );
  let known: Setup | undefined;
  const serves = (amount: number, share: number): boolean => {
    const station = change(amount);
    if (!station) return false;
    // A step or a turn of the tripod leaves lens and back as they are set.
    known = known ? setupLike(known, station) : setupOf(station);
    return canBeFramed(known, share);
  };
  const whole = amounts.findIndex((amount) => serves(amount, 1));
  if (whole < 0) return null;
  for (const share of [SENSIBLE, 1]) {
    const first = amounts.findIndex((amount, i) => i >= whole && serves(amount, share));
    if (first < 0) continue;
    const below = first === 0 ? 0 : amounts[first - 1]!;
    const good = bisect(amounts[first]!, below, (amount) => serves(amount, share), unit / 2);
    const up = rounded(Math.ceil(good / unit - 1e-9) * unit, 6);
    const after = at(up, share);
    if (after) return { amount: up, after };
  }
  return null;
}

/** Amounts looked at between the least and the most, each a little more than the last. */
const STEPS = 32;
