import {
  airyDiameterUm,
  axisFromSensor,
  bellowsStops,
  bestImageDistanceMm,
  blurDiameterMm,
  circleOfConfusionMm,
  combinedSpot,
  coneHalfAngleRad,
  degrees,
  depthOfField,
  DIAGONAL_24X36_MM,
  effectiveFNumber,
  engravedStops,
  falloffStops,
  fNumberNeeded,
  frameCovered,
  hingeDistanceMm,
  hyperfocalMm,
  imageDistanceFromDistance,
  lensAxis,
  planeOfSharpFocus,
  radians,
  ringFNumber,
  ringRoomMm,
  sensorBasis,
  spreadWhereSchoolsMeetMm,
  stackFrames,
  stackStepMm,
  stopForSpread,
  stopForSpreadAndCoc,
  stopsBetween,
  stretchAt,
  throughMultipliers,
  travelPerBlur,
  type Cone,
} from '../src/index.js';

/** Values from outside this code; each names where it is from. */
/** Both pupils at the lens centre, the lens straight. */
const plain = (focalLengthMm: number) => ({ focalLengthMm, ratio: 1, axisZ: 1 });

describe('published values', () => {
  it('hinge distance: f = 150 mm at 5° is 1721 mm (Merklinger, Focusing the View Camera, 1993)', () => {
    expect(hingeDistanceMm(150, lensAxis({ tiltDeg: 5, swingDeg: 0 }))).toBeCloseTo(1721, 0);
  });

  it('tilt by thumb, f / (5 J in feet), reads about 6 % high (Merklinger 1993, from memory)', () => {
    for (const tilt of [2, 4, 6, 8]) {
      const hingeFeet = hingeDistanceMm(150, lensAxis({ tiltDeg: tilt, swingDeg: 0 })) / 304.8;
      expect(150 / (5 * hingeFeet) / tilt).toBeCloseTo(1.06, 1);
    }
  });

  it('at the hyperfocal distance each limit lies J f/v from the plane (Merklinger 1993)', () => {
    const [f, n, c, tilt] = [150, 22, 0.1, 6];
    const axis = lensAxis({ tiltDeg: tilt, swingDeg: 0 });
    const z = (f * f) / (n * c);
    const v = imageDistanceFromDistance(f, axis[2], 5000);
    // Height at depth z of the plane focused at image depth q: P·(q a − f n) = q f.
    const heightAt = (q: number): number => (q * f - z * (q * axis[2] - f)) / (q * axis[1]);
    const apart = Math.abs(heightAt(v) - heightAt(v / (1 + (n * c) / f)));
    expect(apart).toBeCloseTo((hingeDistanceMm(f, axis) * f) / v, 6);
  });

  it('hyperfocal distance f²/(N c) + f (Ray, Applied Photographic Optics, 3rd ed., 2002)', () => {
    expect(hyperfocalMm(50, 8, 0.03)).toBeCloseTo(50 ** 2 / 0.24 + 50, 9);
    const h = hyperfocalMm(50, 8, 0.03);
    const v = imageDistanceFromDistance(50, 1, h + 50);
    const { nearMm, farMm } = depthOfField(plain(50), v, 8, 0.03);
    expect(farMm).toBeGreaterThan(1e6);
    // Half the hyperfocal distance, from the sensor instead of the lens.
    expect(nearMm / (h / 2)).toBeCloseTo(1.01, 2);
  });

  it('natural falloff: 45° loses 2.00 stops (Ray 2002)', () => {
    const cone: Cone = { axis: [0, 0, 1], imageDistanceMm: 50, halfAngleRad: 1 };
    expect(falloffStops(cone, { x: 50, y: 0 })).toBeCloseTo(2, 10);
  });

  it('stretch at the edge: 24 mm lens, 18 mm out, 1.25 (Kingslake, Optics in Photography, 1992)', () => {
    expect(stretchAt(18, 0, 24)).toBeCloseTo(1.25, 12);
  });

  it('Airy disc 2.44 λ N (any optics text, e.g. Hecht, Optics)', () => {
    expect(airyDiameterUm(8)).toBeCloseTo(2.44 * 0.546 * 8, 12);
  });

  it('f-number series are powers of √2 (ISO 517)', () => {
    engravedStops(1, 64, 'whole').forEach((engraved, i) => {
      expect(engraved / Math.SQRT2 ** i).toBeGreaterThan(0.97);
      expect(engraved / Math.SQRT2 ** i).toBeLessThan(1.03);
    });
    expect(stopsBetween(8, 11.3137085)).toBeCloseTo(1, 6);
    // Counted as engraved: f/5.6 to f/11 is two stops, f/11 to f/13 a third of one.
    expect(stopsBetween(5.6, 11)).toBeCloseTo(2, 12);
    expect(stopsBetween(11, 13)).toBeCloseTo(1 / 3, 12);
  });

  it('frame of 135 film: diagonal 43.27 mm (ISO 1007)', () => {
    expect(DIAGONAL_24X36_MM).toBeCloseTo(43.27, 2);
  });
});

/** Facts of the trade: common practice, no source. */
describe('facts of the trade (common practice, no source)', () => {
  it('bellows, 110 mm lens, subject 1 m from the film: read as half a stop, exactly 0.39', () => {
    const v = imageDistanceFromDistance(110, 1, 1000);
    expect(bellowsStops(v / 110 - 1, 1)).toBeCloseTo(0.39, 2);
  });

  it('0.71 × reducer on 10 mm f/4.5: 7.1 mm, f/3.2', () => {
    const { factor } = throughMultipliers([{ factor: 0.71, circleLimitMm: null }], 20);
    expect(10 * factor).toBeCloseTo(7.1, 9);
    expect(4.5 * factor).toBeCloseTo(3.2, 1);
  });

  // Engraved depth scales are read to about 20 %.
  const within20 = (got: number, engraved: number): void => {
    expect(got / engraved).toBeGreaterThan(0.8);
    expect(got / engraved).toBeLessThan(1.2);
  };

  it('engraved depth scale, 110 mm on 6×7 cm: f/32 at 3 m, f/8 at 5 m', () => {
    const c = circleOfConfusionMm(
      { kind: 'diagonal', divisor: 1500 },
      { widthMm: 70, heightMm: 56, pixelPitchMm: null },
    );
    const at = (distanceMm: number, n: number) =>
      depthOfField(plain(110), imageDistanceFromDistance(110, 1, distanceMm), n, c);
    within20(at(3000, 32).nearMm, 2000);
    within20(at(5000, 8).nearMm, 4100);
    within20(at(5000, 8).farMm, 7500);
  });

  it('a 52 mm ring clips a shifted wide lens, a 77 mm one on a step-up ring does not', () => {
    const corner = Math.atan(Math.hypot(18, 12 + 11) / 24);
    expect(ringRoomMm(48, 20, 24 / 8, corner)).toBeLessThan(0);
    expect(ringRoomMm(73, 23, 24 / 8, corner)).toBeGreaterThan(0);
  });

  it('a sheet of 95 × 120 mm without movement needs a circle of its diagonal, 153 mm', () => {
    const at = (circle: number): Cone => ({
      axis: [0, 0, 1],
      imageDistanceMm: 150,
      halfAngleRad: coneHalfAngleRad(circle, 150),
    });
    const frame = { widthMm: 120, heightMm: 95, shiftMm: 0, riseMm: 0 };
    expect(frameCovered(at(153), frame)).toBe(false);
    expect(frameCovered(at(153.1), frame)).toBe(true);
  });
});

describe('by hand', () => {
  it('print school: 600 mm wide, seen from 600 mm, at one minute of arc', () => {
    const c = circleOfConfusionMm(
      { kind: 'print', printWidthMm: 600, viewingDistanceMm: 600 },
      { widthMm: 36, heightMm: 24, pixelPitchMm: null },
    );
    expect(c).toBeCloseTo((600 * 0.000290888 * 36) / 600, 6);
  });

  it('life size doubles the f-number and costs two stops', () => {
    expect(effectiveFNumber(8, 1, 1)).toBe(16);
    expect(bellowsStops(1, 1)).toBe(2);
  });

  it('rear tilt leans the lens by as much; rear swing turns it back', () => {
    const tilted = axisFromSensor({ tiltDeg: 0, swingDeg: 0 }, { tiltDeg: 5, swingDeg: 0 });
    expect(tilted).toEqual(lensAxis({ tiltDeg: 5, swingDeg: 0 }).map((n) => expect.closeTo(n, 12)));
    const swung = axisFromSensor({ tiltDeg: 0, swingDeg: 7 }, { tiltDeg: 0, swingDeg: 7 });
    expect(swung).toEqual([0, 0, 1].map((n) => expect.closeTo(n, 12)));
    const { normal } = sensorBasis(5, 0);
    expect(degrees(Math.asin(normal[1]))).toBeCloseTo(5, 12);
  });

  it('a straight lens at infinity has its plane of sharp focus at infinity', () => {
    expect(planeOfSharpFocus(90, [0, 0, 1], 90).distanceMm).toBe(Infinity);
    expect(radians(180)).toBeCloseTo(Math.PI, 15);
  });
});

describe('the stop for a focus spread', () => {
  it('N = √(375 Δ): 1 mm f/19.4, 2 mm f/27.4, 4 mm f/38.7 (Hansma 1996, from memory)', () => {
    for (const [spread, stop] of [
      [1, 19.4],
      [2, 27.4],
      [4, 38.7],
    ] as const) {
      expect(stopForSpread(spread)).toBeCloseTo(stop, 1);
    }
  });

  it('is where blur and Airy disc of two marks make the smallest spot together', () => {
    for (const spreadMm of [0.2, 1, 3]) {
      const [f, v] = [300, 310];
      const depth = v - spreadMm / 2;
      const spot = (n: number): number =>
        combinedSpot(1000 * blurDiameterMm(plain(f), n, v, 1 / depth), airyDiameterUm((n * v) / f));
      // Both are taken on the sensor, where the f-number that acts is N v/f.
      let [low, high] = [2, 200];
      for (let i = 0; i < 100; i++) {
        const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
        if (spot(a) < spot(b)) high = b;
        else low = a;
      }
      expect((low * v) / f / stopForSpread(spreadMm)).toBeCloseTo(1, 1);
    }
  });

  it('by circle of confusion is Δ/(2c), and the schools meet at Δ = 1500 c²', () => {
    const c = 0.1;
    const meet = spreadWhereSchoolsMeetMm(c);
    expect(meet).toBeCloseTo(15, 9);
    expect(stopForSpread(meet)).toBeCloseTo(stopForSpreadAndCoc(meet, c), 9);
    expect(stopForSpread(meet / 2)).toBeGreaterThan(stopForSpreadAndCoc(meet / 2, c));
  });

  it('best focus between two marks is 2 q₁ q₂/(q₁ + q₂), where both need the same stop', () => {
    const v = bestImageDistanceMm([152, 158, 155]);
    expect(v).toBeCloseTo((2 * 152 * 158) / (152 + 158), 9);
    const needs = (q: number): number => fNumberNeeded(plain(150), v, 1 / q, 0.1);
    expect(needs(152)).toBeCloseTo(needs(158), 9);
    expect(needs(152)).toBeCloseTo((150 * 6) / (0.1 * (152 + 158)), 9);
    // With one of them at infinity.
    expect(bestImageDistanceMm([150, Infinity])).toBeCloseTo(300, 9);
  });

  it('a stack of ⌈Δ / (2 N c (1 + m/p)(1 − overlap))⌉ frames leaves no gap', () => {
    const step = (n: number, c: number, overlap: number, m: number, p = 1) =>
      stackStepMm(n, c, overlap, travelPerBlur({ ...plain(100), ratio: p }, 100 * (1 + m)));
    expect(step(8, 0.0288, 0.2, 0.5)).toBeCloseTo(2 * 8 * 0.0288 * 1.5 * 0.8, 12);
    expect(step(8, 0.0288, 0.2, 0.5, 2)).toBeCloseTo(2 * 8 * 0.0288 * 1.25 * 0.8, 12);
    expect(stackFrames(7.78, 0.5)).toBe(16);
    expect(stackFrames(0, 0.5)).toBe(1);
    expect(stackFrames(4.8, 4.8)).toBe(1);
    expect(stackFrames(4.81, 4.8)).toBe(2);
  });

  it('stands on the ring as that over 1 + m/p', () => {
    expect(ringFNumber(32, 1, 1)).toBe(16);
    expect(ringFNumber(30, 1, 2)).toBe(20);
  });
});
