import type { RigFigures } from '@gangway/station';
import { rigRows } from '../src/rigs/rig-rows.js';

const FIGURES: RigFigures = {
  name: 'x',
  focalLengthMm: 90,
  fNumber: 8,
  widestFNumber: 5.6,
  horizontalDeg: 67.38,
  verticalDeg: 55.6,
  diagonalDeg: 80.7,
  equivalentMm: 25.4,
  equivalentFNumber: 2.26,
  normalMm: 153.1,
  hyperfocalM: 9.9,
  assumed: [],
  circleMm: 203.7,
  riseMm: 34.82,
  shiftMm: null,
  closestM: 0.4435,
  largestMagnification: 2.533,
  reachesInfinity: true,
  farthestM: null,
  massG: 2730,
  massWhole: true,
  stops: 0,
  warnings: 1,
};

const written = (figures: Partial<RigFigures>, units: 'metric' | 'feet' = 'metric') =>
  Object.fromEntries(
    rigRows(units, '24 × 36 mm').map(({ label, write }) => [
      label,
      write({ ...FIGURES, ...figures }),
    ]),
  );

describe('what a rig can do, in lines', () => {
  it('is written as people read it', () => {
    expect(written({})).toMatchObject({
      'Sees, across': '67.4°',
      'Like, on 24 × 36 mm': '25.4 mm f/2.3',
      'Rise to spare': '34.8 mm',
      'Shift to spare': 'not covered',
      'Focuses as far as': '∞',
      'Fully drawn out, to': '0.444 m, 2.53 ×',
      Weight: '2.73 kg',
    });
  });

  it('says what is not known, not reached, without end', () => {
    expect(
      written({
        riseMm: Infinity,
        closestM: null,
        reachesInfinity: false,
        farthestM: 0.45,
        massG: null,
      }),
    ).toMatchObject({
      'Rise to spare': 'free',
      'Fully drawn out, to': 'not known',
      'Focuses as far as': '0.450 m',
      Weight: 'not known',
    });
    expect(written({ reachesInfinity: false, farthestM: null })['Focuses as far as']).toBe(
      'nowhere',
    );
    expect(written({ massWhole: false }).Weight).toBe('2.73 kg at least');
  });

  it('in feet where distances are meant', () => {
    expect(written({ reachesInfinity: false, farthestM: 3.048 }, 'feet')['Focuses as far as']).toBe(
      '10′ 0″',
    );
    expect(written({}, 'feet')['Circle on the back']).toBe('203.7 mm');
  });
});
