import fc from 'fast-check';
import {
  circleDiameterMm,
  coneHalfAngleRad,
  degrees,
  engravedStops,
  equivalentFocalLengthMm,
  fieldOfView,
  meantFNumber,
  throughMultipliers,
  type CircleAtStop,
} from '../src/index.js';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const TABLE: CircleAtStop[] = [
  { fNumber: 5.6, diameterMm: 123 },
  { fNumber: 22, diameterMm: 166 },
];

describe('image circle by stop', () => {
  it('is the entry at an entry, and held outside the table', () => {
    expect(circleDiameterMm(TABLE, 5.6)).toBe(123);
    expect(circleDiameterMm(TABLE, 22)).toBe(166);
    expect(circleDiameterMm(TABLE, 2)).toBe(123);
    expect(circleDiameterMm(TABLE, 64)).toBe(166);
  });

  it('is linear in stops between: half way at the geometric mean', () => {
    expect(circleDiameterMm(TABLE, Math.sqrt(5.6 * 22))).toBeCloseTo((123 + 166) / 2, 9);
  });

  it('never leaves the range of its neighbours', () => {
    fc.assert(
      fc.property(
        fc.array(number(50, 400), { minLength: 1, maxLength: 8 }),
        number(1, 90),
        (diameters, fNumber) => {
          const table = diameters.map((diameterMm, i) => ({ fNumber: 2 * 1.5 ** i, diameterMm }));
          const got = circleDiameterMm(table, fNumber);
          expect(got).toBeGreaterThanOrEqual(Math.min(...diameters) - 1e-9);
          expect(got).toBeLessThanOrEqual(Math.max(...diameters) + 1e-9);
        },
      ),
    );
  });

  it('needs an entry', () => {
    expect(() => circleDiameterMm([], 8)).toThrow('at least one entry');
  });

  it('spans a cone whose base at one focal length is the circle', () => {
    fc.assert(
      fc.property(number(20, 500), number(10, 400), (circle, f) => {
        expect(2 * f * Math.tan(coneHalfAngleRad(circle, f))).toBeCloseTo(circle, 6);
      }),
    );
  });
});

describe('stops', () => {
  it('are listed within the lens’s range, its ends included', () => {
    expect(engravedStops(3.5, 22, 'whole')).toEqual([4, 5.6, 8, 11, 16, 22]);
    expect(engravedStops(8, 11, 'third')).toEqual([8, 9, 10, 11]);
    expect(engravedStops(9.1, 9.9, 'third')).toEqual([]);
  });

  it('mean the power of √2 they are rounded from; others mean themselves', () => {
    expect(meantFNumber(11)).toBeCloseTo(11.3137, 4);
    expect(meantFNumber(13)).toBeCloseTo(12.6992, 4);
    expect(meantFNumber(11.3)).toBe(11.3);
  });

  it('are a third of a stop apart when counted as meant', () => {
    const meant = engravedStops(1, 128, 'third').map(meantFNumber);
    for (let i = 1; i < meant.length; i++) {
      expect(2 * Math.log2(meant[i]! / meant[i - 1]!)).toBeCloseTo(1 / 3, 9);
    }
  });
});

describe('multipliers', () => {
  it('multiply in a row; each clips what reaches it', () => {
    const none = { factor: 1, bareCircleMm: 60 };
    expect(throughMultipliers([], 60)).toEqual(none);
    const two = throughMultipliers(
      [
        { factor: 0.7, circleLimitMm: null },
        { factor: 2, circleLimitMm: 70 },
      ],
      60,
    );
    expect(two.factor).toBeCloseTo(1.4, 12);
    expect(two.bareCircleMm * two.factor).toBeCloseTo(70, 9);
  });

  it('that clip nothing leave the circle as it is', () => {
    expect(throughMultipliers([{ factor: 1.4, circleLimitMm: 500 }], 60).bareCircleMm).toBe(60);
  });
});

describe('field of view', () => {
  it('straight, is twice the half-angle either way (trigonometry, worked here)', () => {
    const field = fieldOfView({ widthMm: 36, heightMm: 24, shiftMm: 0, riseMm: 0 }, 24);
    expect(field.horizontalDeg).toBeCloseTo(73.74, 2);
    expect(field.verticalDeg).toBeCloseTo(53.13, 2);
    expect(field.leftDeg).toBe(field.rightDeg);
  });

  it('shifted, gains on one side what it gives up on the sensor of the other', () => {
    fc.assert(
      fc.property(number(-30, 30), number(-30, 30), number(15, 200), (shiftMm, riseMm, v) => {
        const field = fieldOfView({ widthMm: 36, heightMm: 24, shiftMm, riseMm }, v);
        const tan = (angle: number): number => v * Math.tan((angle * Math.PI) / 180);
        expect(tan(field.leftDeg) + tan(field.rightDeg)).toBeCloseTo(36, 6);
        expect(tan(field.upDeg) - tan(field.downDeg)).toBeCloseTo(2 * riseMm, 6);
        expect(field.horizontalDeg).toBeCloseTo(field.leftDeg + field.rightDeg, 12);
      }),
    );
  });

  it('equivalents keep the diagonal angle', () => {
    const other = equivalentFocalLengthMm(150, 153, 43.27);
    expect(degrees(Math.atan(43.27 / 2 / other))).toBeCloseTo(
      degrees(Math.atan(153 / 2 / 150)),
      12,
    );
  });
});
