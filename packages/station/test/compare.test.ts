import fc from 'fast-check';
import {
  backgroundBlur,
  backgroundScale,
  fieldAt,
  figuresOf,
  matchDistance,
  matchFocalLength,
  matchFormat,
  pictureOf,
  sideOf,
  type MatchedSide,
} from '../src/index.js';
import { plain, rigOf } from './helpers/gear.js';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const side = fc.constantFrom<MatchedSide>('width', 'height', 'diagonal');
const sides = fc.record({ widthMm: number(10, 250), heightMm: number(10, 200) });

describe('figures of a rig', () => {
  it('a 50 mm on half the format is a 100 mm on the whole, by the side that is matched', () => {
    const rig = plain({}, [], { width_mm: 18, height_mm: 16 });
    expect(figuresOf(rig, 'width').equivalentMm).toBeCloseTo(100, 9);
    expect(figuresOf(rig, 'height').equivalentMm).toBeCloseTo(75, 9);
    expect(figuresOf(rig, 'width').equivalentFNumber).toBeCloseTo(16, 9);
  });

  it('adds up masses, and says when some are missing', () => {
    const whole = rigOf('Shift 24 f/3.5', [], 'Small format back');
    expect(figuresOf(whole)).toMatchObject({ massG: 1440, massWhole: true, stops: 0 });
    expect(figuresOf(plain({ mass_g: 300 }))).toMatchObject({ massG: 300, massWhole: false });
  });

  it('the field over a wall follows from the angles', () => {
    const { widthM } = fieldAt(figuresOf(plain()), 10);
    // 36 mm at v = 50: 10 m from the lens it takes in 7.2 m.
    expect(widthM).toBeCloseTo(7.2, 9);
  });
});

describe('matching a picture', () => {
  const taken = fc
    .record({ f: number(20, 300), n: number(1.4, 22), sides, far: number(5, 200), side })
    .map(({ f, n, sides: frame, far, side: by }) => ({
      by,
      picture: pictureOf({ focalLengthMm: f, fNumber: n, sides: frame, distanceMm: f * far }, by)!,
    }));

  it('frames the same in all three ways, and the thin lens holds', () => {
    fc.assert(
      fc.property(taken, sides, number(20, 300), ({ picture, by }, other, f) => {
        const lens = matchFocalLength(picture, other, by);
        const place = matchDistance(picture, f, other, by);
        for (const made of [lens, place]) {
          expect(sideOf(made.sides, by) / made.magnification / picture.fieldMm).toBeCloseTo(1, 9);
          const v = made.distanceMm - made.objectMm;
          expect((1 / made.objectMm + 1 / v) * made.focalLengthMm).toBeCloseTo(1, 9);
        }
        expect(lens.distanceMm).toBe(picture.distanceMm);
        if (picture.distanceMm < 4 * f) return;
        const format = matchFormat(picture, f, other, by);
        expect(sideOf(format.sides, by) / format.magnification / picture.fieldMm).toBeCloseTo(1, 9);
      }),
    );
  });

  it('from the same place with the same opening, blur differs only by where the lens stands', () => {
    fc.assert(
      fc.property(taken, sides, number(0.1, 50), ({ picture, by }, other, times) => {
        const lens = matchFocalLength(picture, other, by);
        const behind = picture.distanceMm * times;
        // Same opening, same field: only u/(u + Z) is left, and u is the distance less v.
        const moved = (picture.objectMm + behind) / (lens.objectMm + behind);
        const blur = backgroundBlur(lens, behind, by) / backgroundBlur(picture, behind, by);
        expect(blur / moved).toBeCloseTo(1, 9);
        const scale = backgroundScale(lens, behind) / backgroundScale(picture, behind);
        expect(scale / (moved * (lens.objectMm / picture.objectMm))).toBeCloseTo(1, 9);
      }),
    );
  });

  it('the crop, worked here: 50 mm at 3 m on 24 × 36, matched by width on half of it', () => {
    const picture = pictureOf(
      { focalLengthMm: 50, fNumber: 4, sides: { widthMm: 36, heightMm: 24 }, distanceMm: 3000 },
      'width',
    )!;
    const half = { widthMm: 18, heightMm: 12 };
    // m = v/u with v + u = 3000, 1/v + 1/u = 1/50: v = 50.863, so 2087 mm across.
    expect(picture.fieldMm).toBeCloseTo(2087.4, 0);
    expect(matchDistance(picture, 50, half, 'width').distanceMm / 1000).toBeCloseTo(5.9, 1);
    expect(matchFocalLength(picture, half, 'width').focalLengthMm).toBeCloseTo(25.4, 1);
  });

  it('blur of the far background is (f/N) m of the frame (Ray 2002: the disc of infinity)', () => {
    const picture = pictureOf(
      { focalLengthMm: 85, fNumber: 2, sides: { widthMm: 36, heightMm: 24 }, distanceMm: 2000 },
      'width',
    )!;
    expect(backgroundBlur(picture, Infinity, 'width')).toBeCloseTo(
      (42.5 * picture.magnification) / 36,
      12,
    );
    expect(pictureOf({ ...picture, distanceMm: 300 }, 'width')).toBeNull();
  });
});
