import {
  distance,
  fStop,
  partTitle,
  trimmed,
  type Rig,
  type RigFigures,
  type Units,
} from '@gangway/station';

const UNKNOWN = 'not known';

const movement = (value: number | null): string =>
  value === null ? 'not covered' : Number.isFinite(value) ? `${trimmed(value, 1)} mm` : 'free';

/** What a rig becomes and can do, a line each: on the bench and side by side. */
export const rigRows = (
  units: Units,
  reference: string,
): readonly (readonly [label: string, write: (figures: RigFigures) => string])[] => [
  ['Sees, across', (f) => `${trimmed(f.horizontalDeg, 1)}°`],
  ['Up and down', (f) => `${trimmed(f.verticalDeg, 1)}°`],
  ['Corner to corner', (f) => `${trimmed(f.diagonalDeg, 1)}°`],
  [
    `Like, on ${reference}`,
    (f) => `${trimmed(f.equivalentMm, 1)} mm ${fStop(f.equivalentFNumber)}`,
  ],
  ['Widest stop', (f) => fStop(f.widestFNumber)],
  ['Circle on the back', (f) => `${trimmed(f.circleMm, 1)} mm`],
  ['Rise to spare', (f) => movement(f.riseMm)],
  ['Shift to spare', (f) => movement(f.shiftMm)],
  [
    'Focuses as far as',
    (f) =>
      f.reachesInfinity ? '∞' : f.farthestM === null ? 'nowhere' : distance(f.farthestM, units),
  ],
  [
    'Fully drawn out, to',
    (f) => {
      if (f.closestM === null) return UNKNOWN;
      const m = f.largestMagnification;
      return `${distance(f.closestM, units)}${m === null ? '' : `, ${trimmed(m, 2)} ×`}`;
    },
  ],
  [
    'Weight',
    (f) =>
      f.massG === null
        ? UNKNOWN
        : `${trimmed(f.massG / 1000, 2)} kg${f.massWhole ? '' : ' at least'}`,
  ],
];

/** What a rig is made of, from the lens to the back. */
export const partsOf = ({ lens, chain, back }: Rig): string =>
  [
    lens?.name ?? (lens ? 'lens' : 'no lens yet'),
    ...chain.map(partTitle),
    back?.name ?? (back ? 'back' : 'no back yet'),
  ].join(' → ');
