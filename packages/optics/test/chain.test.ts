import fc from 'fast-check';
import {
  adapterThicknessMm,
  bellowsDrawMm,
  closeFocalLengthMm,
  distanceAtMagnificationMm,
  focalLengthAtSetting,
  focusedAtDistance,
  focusedAtMagnification,
  focusingLens,
  focusReach,
  leastDistanceMm,
  magnificationAt,
  momentNm,
  throatNeededMm,
  UPRIGHT,
} from '../src/index.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('close-focus breathing', () => {
  it('a 100 mm macro at twice life size, 250 mm from the sensor, acts as 55.6 mm (common practice, no source)', () => {
    expect(closeFocalLengthMm(250, 2)).toBeCloseTo(55.6, 1);
  });

  it('acts with that focal length at its closest, however it is set', () => {
    const lens = focusingLens(100, { distanceMm: 250, magnification: 2 });
    for (const set of [
      focusedAtDistance(lens, UPRIGHT, 250),
      focusedAtMagnification(lens, UPRIGHT, 2),
    ]) {
      expect(set.focalLengthMm).toBeCloseTo(250 / 4.5, 9);
      expect(set.imageDistanceMm).toBeCloseTo((250 / 4.5) * 3, 6);
    }
    expect(leastDistanceMm(lens, UPRIGHT)).toBeCloseTo(250, 9);
  });

  it('far off it is the engraved lens', () => {
    const lens = focusingLens(100, { distanceMm: 250, magnification: 2 });
    expect(focusedAtDistance(lens, UPRIGHT, 3000)).toEqual(
      focusedAtDistance(focusingLens(100, null), UPRIGHT, 3000),
    );
    expect(focalLengthAtSetting(lens, 0)).toBe(100);
  });

  it('leaned so far that none of its settings focuses, it can be focused from where the engraved lens can', () => {
    const lens = focusingLens(50.78, { distanceMm: 173.9, magnification: 0.4155 });
    const leaned = { axisZ: Math.cos((80 * Math.PI) / 180), perMm: 1, plusMm: 0 };
    // 4 f / a_z of the engraved lens.
    expect(leastDistanceMm(lens, leaned)).toBeCloseTo((4 * 50.78) / leaned.axisZ, 9);
    for (const times of [1 - 1e-9, 1, 1.01, 3]) {
      const at = leastDistanceMm(lens, leaned) * times;
      expect(focusedAtDistance(lens, leaned, at).imageDistanceMm).toBeGreaterThan(0);
    }
    expect(
      focusedAtDistance(lens, leaned, 0.99 * leastDistanceMm(lens, leaned)).imageDistanceMm,
    ).toBeNaN();
  });

  it('never jumps: neighbouring distances give neighbouring settings, and the equation holds', () => {
    fc.assert(
      fc.property(
        number(20, 200),
        number(0.1, 0.9),
        number(0.75, 0.99),
        number(0, 1),
        (f, m, share, at) => {
          const close = { distanceMm: share * distanceAtMagnificationMm(f, m), magnification: m };
          const lens = focusingLens(f, close);
          const d = close.distanceMm * (1 + 4 * at);
          fc.pre(d >= leastDistanceMm(lens, UPRIGHT));
          const one = focusedAtDistance(lens, UPRIGHT, d);
          const two = focusedAtDistance(lens, UPRIGHT, d * (1 + 1e-7));
          expect(Math.abs(one.imageDistanceMm - two.imageDistanceMm)).toBeLessThan(f * 1e-4);
          const now = magnificationAt(one.focalLengthMm, 1, one.imageDistanceMm);
          expect(distanceAtMagnificationMm(one.focalLengthMm, now) / d).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: runs(300) },
    );
  });

  it('a lens whose data say no less than engraved does not breathe', () => {
    expect(focusingLens(24, { distanceMm: 210, magnification: 0.34 }).close).toBeNull();
  });
});

describe('reach', () => {
  it('its ends agree with the image distances they come from, for random draws', () => {
    fc.assert(
      fc.property(number(20, 600), number(0.02, 0.5), number(0.01, 0.4), (f, near, more) => {
        // Both ends short of life size, where a distance names one setting only.
        const [least, greatest] = [f * near, f * (near + more)];
        const reach = focusReach(f, [least, greatest], 'none');
        const plain = focusingLens(f, null);
        const far = focusedAtDistance(plain, UPRIGHT, reach.farthestMm!);
        const close = focusedAtDistance(plain, UPRIGHT, reach.closestMm!);
        expect(far.imageDistanceMm).toBeCloseTo(f + least, 6);
        expect(close.imageDistanceMm).toBeCloseTo(f + greatest, 6);
        expect(reach.largestMagnification).toBeCloseTo(greatest / f, 9);
        expect(reach.reachesInfinity).toBe(false);
      }),
    );
  });

  it('things come no nearer past life size, whether the lens or a tube takes it there', () => {
    // 100 mm drawn out to 1.4 times: nearest at life size, 4 f.
    expect(focusReach(100, [0, 140], 'none').closestMm).toBe(400);
    expect(focusReach(100, [120, 140], 'none').closestMm).toBeCloseTo(100 * (2 + 1.2 + 1 / 1.2), 9);
    // A lens to 0.9 times on a tube of 50 mm passes life size on the way.
    const own = { focalLengthMm: 100, magnification: 0.9, gapMm: 0 };
    expect(focusReach(100, [50, 50], own).closestMm).toBeCloseTo(400, 0);
    // One that shortens as it goes comes nearer all the way: 250 mm at twice life size.
    const macro = { focalLengthMm: 250 / 4.5, magnification: 2, gapMm: 0 };
    expect(focusReach(100, [0, 0], macro).closestMm).toBeCloseTo(250, 9);
  });

  it('infinity lies between the ends of the draw, or it is not reached', () => {
    expect(focusReach(150, [-40, 150], 'none')).toMatchObject({
      reachesInfinity: true,
      pastInfinity: true,
      farthestMm: Infinity,
      closestMm: 600,
      largestMagnification: 1,
    });
    expect(focusReach(150, [-80, -10], 'none')).toMatchObject({
      reachesInfinity: false,
      farthestMm: null,
      closestMm: null,
      largestMagnification: 0,
    });
    expect(focusReach(50, [0, 0], 'unknown')).toMatchObject({
      reachesInfinity: true,
      pastInfinity: false,
      closestMm: null,
      largestMagnification: null,
    });
  });

  it('an extension of e brings the far end to v = f + e and adds e/f to the magnification (worked here)', () => {
    const reach = focusReach(50, [10, 10], { focalLengthMm: 50, magnification: 0.15, gapMm: 0 });
    // 50 mm, 10 mm out: m = 0.2, 50 (2 + 0.2 + 5) = 360 mm.
    expect(reach.farthestMm).toBeCloseTo(360, 9);
    expect(reach.largestMagnification).toBeCloseTo(0.35, 12);
  });
});

describe('the chain by length', () => {
  it('an adapter is as thick as the registers part; a negative one cannot be (common practice, no source)', () => {
    expect(adapterThicknessMm(44, 18)).toBe(26);
    expect(adapterThicknessMm(18, 44)).toBe(-26);
  });

  it('boards of 10, 15 and 20 mm let a 72 mm lens work where 75 was the shortest (common practice, no source)', () => {
    const leastDraw = 75;
    expect(bellowsDrawMm(72, 0, 0)).toBeLessThan(leastDraw);
    for (const recess of [10, 15, 20]) {
      expect(bellowsDrawMm(72, 0, -recess)).toBe(72 + recess);
      expect(bellowsDrawMm(72, 0, -recess)).toBeGreaterThan(leastDraw);
    }
    // A lens of telephoto design needs less than its focal length.
    expect(bellowsDrawMm(262, 0, 0)).toBe(262);
    expect(bellowsDrawMm(150, 30, 35, 18)).toBe(127);
  });

  it('moments add up about the flange: 1 kg at 100 mm is 0.981 N m (statics)', () => {
    expect(momentNm([{ massG: 1000, aheadMm: 100 }])).toBeCloseTo(0.981, 9);
    expect(
      momentNm([
        { massG: 1000, aheadMm: 100 },
        { massG: 500, aheadMm: -200 },
      ]),
    ).toBeCloseTo(0, 9);
  });

  it('a throat passes the whole stop when no ray from its rim to a corner is cut (traced here)', () => {
    fc.assert(
      fc.property(
        number(20, 120),
        number(2, 40),
        number(0.1, 0.9),
        number(0, 15),
        number(0, 15),
        (v, stop, share, dx, dy) => {
          const z = v * share;
          const corners = [-1, 1].flatMap((i) => [-1, 1].map((j) => ({ x: 18 * i, y: 12 * j })));
          const needed = throatNeededMm(stop, v, z, corners, { x: dx, y: dy });
          let widest = 0;
          for (const corner of corners) {
            for (let k = 0; k < 720; k++) {
              const a = (k * Math.PI) / 360;
              const rim = { x: dx + (stop / 2) * Math.cos(a), y: dy + (stop / 2) * Math.sin(a) };
              const x = corner.x + ((rim.x - corner.x) * z) / v;
              const y = corner.y + ((rim.y - corner.y) * z) / v;
              widest = Math.max(widest, Math.hypot(x, y));
            }
          }
          expect(needed / 2).toBeGreaterThanOrEqual(widest - 1e-9);
          expect(needed / 2 - widest).toBeLessThan(stop * 1e-3);
        },
      ),
      { numRuns: 40 },
    );
    expect(throatNeededMm(10, 20, 44, [{ x: 18, y: 12 }], { x: 0, y: 0 })).toBeNaN();
  });
});
