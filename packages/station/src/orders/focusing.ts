import {
  distanceAtMagnificationMm,
  focusedAtDistance,
  imageDistanceOnBed,
  UPRIGHT,
} from '@gangway/optics';
import { focusControl } from '../document/focusing.js';
import { stanceOfStation } from '../document/standards.js';
import type { Focus, Station } from '../document/station.js';
import { focusAt } from '../focus/apply.js';
import { settingOf, type Setup } from '../optical/setup.js';
import { rounded } from '../words/rounded.js';
import { ringStepM, type Units } from '../words/format.js';

/**
 * What a ring, a bed or a drawing adapter reads. All of them are engraved for the lens straight, and
 * count the draw before the lean; a plane’s distance straight ahead is another figure.
 */

/** Where the lens stands, by what a hand reads. */
export type FocusReading =
  /** The lens’s own ring by its distance, m; null at infinity. */
  | { readonly kind: 'ring'; readonly distanceM: number | null }
  /** By its magnification. */
  | { readonly kind: 'ratio'; readonly ratio: number }
  /** The standard on its own scale, mm. */
  | { readonly kind: 'bed'; readonly mm: number }
  /** Drawn out from where infinity is crisp, mm. */
  | { readonly kind: 'extension'; readonly mm: number }
  /** An adapter drawn out from its shortest, mm. */
  | { readonly kind: 'draw'; readonly mm: number };

/** What the bed’s own scale reads at infinity, lens and back straight; undefined: nobody read it. */
export const bedInfinityMm = ({ bed, lens }: Pick<Station, 'bed' | 'lens'>): number | undefined =>
  bed?.infinity_mm ?? lens.bed_infinity_mm;

/** Less than this nobody draws out, mm. */
const DRAW_SEEN_MM = 0.05;

const drawable = ({ chain }: Pick<Station, 'chain'>): number => {
  const mm = chain.reduce(
    (sum, part) => sum + (part.kind === 'adapter' ? (part.extends_mm ?? 0) : 0),
    0,
  );
  return mm < DRAW_SEEN_MM ? 0 : mm;
};

const onBellows = ({ chain }: Pick<Station, 'chain'>): boolean =>
  chain.some(({ kind }) => kind === 'view_camera');

/** Shorter than this the draw is none, as a magnification. */
const NO_DRAW = 1e-9;

/** Focal length that acts before any factor that is ahead of the movements. */
const bareMm = ({ focalLengthMm, ahead }: Setup): number => focalLengthMm / ahead;

/** Magnification that what stands behind the lens gives it by itself, its adapters at their shortest. */
function fixedM(s: Setup): number {
  const [least] = s.facts.lengths.bareExcessMm;
  return least / bareMm(s);
}

/** All that a lens’s ring has to add; the rest is drawn. */
function ownAndDrawn(s: Setup): { own: number; drawnShare: number } {
  const wanted = settingOf(s) - fixedM(s);
  const [least, most] = s.facts.lengths.bareExcessMm;
  const draw = (most - least) / bareMm(s);
  if (focusControl(s.station).by !== 'ring') {
    return { own: 0, drawnShare: draw > 0 ? wanted / draw : 0 };
  }
  const { greatestM } = s.facts.reach;
  const longest = greatestM === null ? Infinity : greatestM - most / bareMm(s);
  const own = Math.max(0, Math.min(wanted, longest));
  return { own, drawnShare: draw > 0 && wanted > longest ? (wanted - longest) / draw : 0 };
}

/** Past this a distance no longer says plainly where a ring stands. */
const BY_RATIO = 0.9;

/** What every part that focuses reads at a setting, in the order they are set. */
export function readingsOf(s: Setup): FocusReading[] {
  const { station } = s;
  const { by } = focusControl(station);
  const read: FocusReading[] = [];
  if (onBellows(station) || (by === 'bed' && drawable(station) === 0)) {
    const zero = bedInfinityMm(station);
    const out = s.bedMm - s.engravedMm;
    // A lens with a ring of its own stands at infinity on a bed: that is where the bed counts from.
    if (onBellows(station) && station.lens.focus_by === 'helicoid') {
      read.push({ kind: 'ring', distanceM: null });
    }
    read.push(
      zero === undefined ? { kind: 'extension', mm: out } : { kind: 'bed', mm: zero + out },
    );
    return read;
  }
  const { own, drawnShare } = ownAndDrawn(s);
  const drawn: FocusReading[] =
    drawable(station) > 0 ? [{ kind: 'draw', mm: drawnShare * drawable(station) }] : [];
  if (by === 'rail' && drawable(station) === 0) {
    return [{ kind: 'extension', mm: s.bedMm - s.engravedMm }];
  }
  if (by !== 'ring') return drawn;
  if (station.focus.magnification !== undefined || own > BY_RATIO) {
    return [...drawn, { kind: 'ratio', ratio: own }];
  }
  const mm = own <= NO_DRAW ? Infinity : distanceAtMagnificationMm(bareMm(s), own);
  return [...drawn, { kind: 'ring', distanceM: Number.isFinite(mm) ? mm / 1000 : null }];
}

/** Past this a ring reads infinity, m. */
const FAR_M = 100_000;

/** A reading as near as it is printed, a number of its own steps further out. */
export function printedReading(reading: FocusReading, units: Units, further = 0): FocusReading {
  switch (reading.kind) {
    case 'ring': {
      const m = reading.distanceM;
      if (m === null || m > FAR_M) return { kind: 'ring', distanceM: null };
      const step = ringStepM(m, units);
      return { kind: 'ring', distanceM: rounded(step * (Math.round(m / step) + further), 7) };
    }
    case 'ratio': {
      const ratio = Number(reading.ratio.toPrecision(3));
      const step = 10 ** (Math.floor(Math.log10(Math.max(ratio, 1e-6))) - 2);
      return { kind: 'ratio', ratio: rounded(Math.max(0, ratio - further * step), 7) };
    }
    case 'bed':
    case 'extension':
    case 'draw':
      return { ...reading, mm: rounded(reading.mm - further / 10, 1) };
  }
}

/** Where the lens stands straight for what is read: the acting focal length, and the bed in the setup’s terms. */
function placeOf(s: Setup, readings: readonly FocusReading[]): { bareMm: number; bedMm: number } {
  const { station, ahead } = s;
  const plain = { bareMm: bareMm(s), bedMm: s.bedMm };
  const onBed = readings.find(({ kind }) => kind === 'bed' || kind === 'extension');
  if (onBed?.kind === 'bed') {
    return { ...plain, bedMm: s.engravedMm + onBed.mm - bedInfinityMm(station)! };
  }
  if (onBed?.kind === 'extension') return { ...plain, bedMm: s.engravedMm + onBed.mm };
  let f = bareMm(s);
  let m = 0;
  for (const reading of readings) {
    if (reading.kind === 'ratio') m += reading.ratio;
    if (reading.kind === 'draw') {
      const [least, most] = s.facts.lengths.bareExcessMm;
      m += ((reading.mm / drawable(station)) * (most - least)) / f;
    }
    if (reading.kind === 'ring' && reading.distanceM !== null) {
      // By the bed nothing is known to shorten: the engraved lens acts.
      const lens = { ...s.facts.focusing, excessMm: 0 };
      const own = station.focus.image_distance_mm === undefined ? lens : { ...lens, close: null };
      const there = focusedAtDistance(own, UPRIGHT, reading.distanceM * 1000);
      f = there.focalLengthMm;
      m += there.imageDistanceMm / f - 1;
    }
  }
  const [least] = s.facts.lengths.bareExcessMm;
  return { bareMm: f, bedMm: f * ahead * (1 + ahead * (m + least / f)) };
}

/**
 * The focus of a station whose ring, bed or adapter stands at these readings.
 * @param s of the same rig
 */
export function focusAtReadings(
  s: Setup,
  readings: readonly FocusReading[],
  station: Station,
): Focus {
  const { ahead } = s;
  const stance = stanceOfStation(station);
  const { axis, perMm, plusMm } = stance;
  const [reading] = readings;
  const straight = perMm === 1 && plusMm === 0 && axis[2] === 1 && fixedM(s) === 0;
  // What a straight lens reads is its distance itself.
  const plainly = straight && readings.length === 1 && station.focus.distance_m !== undefined;
  if (plainly && reading!.kind === 'ring') return { distance_m: reading!.distanceM };
  const { bareMm: f, bedMm } = placeOf(s, readings);
  const imageDistanceMm = imageDistanceOnBed(stance, bedMm);
  return focusAt(station, { focalLengthMm: f * ahead, ahead }, { axis, imageDistanceMm, bedMm });
}
