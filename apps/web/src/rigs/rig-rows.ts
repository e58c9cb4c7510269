import {
  distance,
  fStop,
  partTitle,
  trimmed,
  type Rests,
  type Rig,
  type RigFigures,
  type Units,
} from '@gangway/station';
import type { TermId } from '../words/terms.js';

const UNKNOWN = 'not known';

const movement = (value: number | null): string =>
  value === null ? 'not covered' : Number.isFinite(value) ? `${trimmed(value, 1)} mm` : 'free';

/** One figure of a rig: what it is called, how it is written, what it means and what it rests on. */
export interface RigRow {
  readonly label: string;
  readonly write: (figures: RigFigures) => string;
  readonly term?: TermId;
  readonly rests?: readonly Rests[];
}

/** What a rig becomes and can do, a line each: on the bench and side by side. */
export const rigRows = (units: Units, reference: string): readonly RigRow[] => [
  { label: 'Sees, across', write: (f) => `${trimmed(f.horizontalDeg, 1)}°` },
  { label: 'Up and down', write: (f) => `${trimmed(f.verticalDeg, 1)}°` },
  { label: 'Corner to corner', write: (f) => `${trimmed(f.diagonalDeg, 1)}°` },
  {
    label: `Like, on ${reference}`,
    write: (f) => `${trimmed(f.equivalentMm, 1)} mm ${fStop(f.equivalentFNumber)}`,
    term: 'equivalent',
  },
  {
    label: 'Normal lens on this back',
    write: (f) => `${trimmed(f.normalMm, 0)} mm`,
    term: 'normal-lens',
  },
  {
    label: 'Hyperfocal distance',
    write: (f) => distance(f.hyperfocalM, units),
    term: 'hyperfocal',
    rests: ['sharpness'],
  },
  { label: 'Widest stop', write: (f) => fStop(f.widestFNumber) },
  {
    label: 'Circle on the back',
    write: (f) => `${trimmed(f.circleMm, 1)} mm`,
    term: 'image-circle',
    rests: ['circle'],
  },
  {
    label: 'Rise to spare',
    write: (f) => movement(f.riseMm),
    term: 'rise',
    rests: ['circle'],
  },
  {
    label: 'Shift to spare',
    write: (f) => movement(f.shiftMm),
    term: 'shift',
    rests: ['circle'],
  },
  {
    label: 'Focuses as far as',
    write: (f) =>
      f.reachesInfinity ? '∞' : f.farthestM === null ? 'nowhere' : distance(f.farthestM, units),
    rests: ['reach'],
  },
  {
    label: 'Fully drawn out, to',
    write: (f) => {
      if (f.closestM === null) return UNKNOWN;
      const m = f.largestMagnification;
      return `${distance(f.closestM, units)}${m === null ? '' : `, ${trimmed(m, 2)} ×`}`;
    },
    rests: ['reach'],
  },
  {
    label: 'Weight',
    write: (f) =>
      f.massG === null
        ? UNKNOWN
        : `${trimmed(f.massG / 1000, 2)} kg${f.massWhole ? '' : ' at least'}`,
  },
];

/** What a rig is made of, from the lens to the back. */
export const partsOf = ({ lens, chain, back }: Rig): string =>
  [
    lens?.name ?? (lens ? 'lens' : 'no lens yet'),
    ...chain.map(partTitle),
    back?.name ?? (back ? 'back' : 'no back yet'),
  ].join(' → ');
