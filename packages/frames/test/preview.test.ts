import { toSrgb, type Samples } from '../src/planes/light.js';
import { boxOf, composed, type LaidFrame } from '../src/preview/compose.js';
import { halved, levelsOf, shownOf, type Shown } from '../src/preview/shown.js';

const PITCH = 0.01;
const LAYING = { pitchMm: PITCH, cylinderMm: null, blend: 0 };

/** A picture of a function of its pixels, grey. */
const pictureOf = (
  width: number,
  height: number,
  value: (x: number, y: number) => number,
): Shown => {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let i = 0; i < width * height; i++) {
    const grey = value(i % width, Math.floor(i / width));
    data.set([grey, grey, grey, 255], 4 * i);
  }
  return { width, height, data };
};

const frameAt = (xPx: number, yPx: number, more: Partial<LaidFrame['frame']> = {}): LaidFrame['frame'] => ({
  xMm: xPx * PITCH,
  yMm: yPx * PITCH,
  rotationDeg: 0,
  widthPx: 40,
  heightPx: 30,
  exposureStops: 0,
  ...more,
}); // prettier-ignore

/** The red of a pixel that comes out. */
const red = ({ width, data }: Shown, x: number, y: number): number => data[4 * (y * width + x)]!;

describe('frames laid together', () => {
  const value = (x: number, y: number): number => 5 * x + y;
  const look = { leftMm: -0.2, topMm: 0.15, pitchMm: PITCH, width: 40, height: 30 };

  it('show a file pixel for pixel where one lies on the other', () => {
    const out = composed(look, [{ frame: frameAt(0, 0), levels: [pictureOf(40, 30, value)] }], LAYING); // prettier-ignore
    for (const [x, y] of [[0, 0], [39, 29], [17, 4]] as const) expect(red(out, x, y)).toBe(value(x, y)); // prettier-ignore
  });

  it('lie where their place says, up being up, and are clear where none lies', () => {
    const out = composed(look, [{ frame: frameAt(3, 2), levels: [pictureOf(40, 30, value)] }], LAYING); // prettier-ignore
    expect(red(out, 10, 8)).toBe(value(7, 10));
    expect(out.data[4 * (29 * 40 + 20) + 3]).toBe(0);
    expect(out.data[4 * (5 * 40 + 1) + 3]).toBe(0);
  });

  it.each([90, 180, 270])('turn a file of %i° upright', (deg) => {
    const upright = { 90: (x: number, y: number) => value(y, 39 - x), 180: (x: number, y: number) => value(39 - x, 29 - y), 270: (x: number, y: number) => value(29 - y, x) }[deg]!; // prettier-ignore
    const [w, h] = deg === 180 ? [40, 30] : [30, 40];
    const file = pictureOf(w, h, value);
    const out = composed(look, [{ frame: frameAt(0, 0, { rotationDeg: deg }), levels: [file] }], LAYING); // prettier-ignore
    for (const [x, y] of [[0, 0], [39, 0], [12, 21]] as const) expect(red(out, x, y)).toBe(upright(x, y)); // prettier-ignore
  });

  it('are evened in exposure', () => {
    const light = (value: number): number => Math.round(255 * toSrgb(value));
    const one = { frame: frameAt(-15, 0), levels: [pictureOf(40, 30, () => light(0.2))] };
    const other = { frame: frameAt(15, 0, { exposureStops: 1 }), levels: [pictureOf(40, 30, () => light(0.4))] }; // prettier-ignore
    const out = composed({ ...look, leftMm: -0.35, width: 70 }, [one, other], LAYING);
    for (const x of [2, 34, 36, 68]) expect(Math.abs(red(out, x, 15) - light(0.2))).toBeLessThan(2);
  });

  it('are cut half way between their edges, or run into each other there', () => {
    const one = { frame: frameAt(-15, 0), levels: [pictureOf(40, 30, () => 40)] };
    const other = { frame: frameAt(15, 0), levels: [pictureOf(40, 30, () => 200)] };
    const wide = { ...look, leftMm: -0.35, width: 70 };
    const hard = composed(wide, [one, other], LAYING);
    expect([red(hard, 34, 15), red(hard, 35, 15)]).toEqual([40, 200]);
    const drawn = composed(wide, [one, other], { ...LAYING, seams: true });
    expect([red(drawn, 34, 2), red(drawn, 34, 8), red(drawn, 33, 2), red(drawn, 35, 2)]).toEqual([255, 0, 40, 200]); // prettier-ignore
    const soft = composed(wide, [one, other], { ...LAYING, blend: 0.6 });
    const row = [30, 33, 34, 35, 36, 39].map((x) => red(soft, x, 15));
    expect(row).toEqual([...row].sort((a, b) => a - b));
    expect([row[0], row.at(-1)]).toEqual([40, 200]);
    expect(row[2]! > 40 && row[3]! < 200).toBe(true);
  });

  it('roll onto the cylinder that the camera turned along', () => {
    const v = 50;
    const file = pictureOf(40, 30, (x) => 6 * x);
    const out = composed(look, [{ frame: frameAt(0, 0), levels: [file] }], { ...LAYING, cylinderMm: v * PITCH }); // prettier-ignore
    // 10.5 pixels along the cylinder are 10.5/50 of a radian.
    const x = 20 + v * Math.tan(10.5 / v) - 0.5;
    expect(Math.abs(red(out, 30, 15) - 6 * x)).toBeLessThan(1.5);
    const box = boxOf([frameAt(0, 0)], { pitchMm: PITCH, cylinderMm: v * PITCH })!;
    expect(box.rightMm).toBeCloseTo(v * Math.atan(20 / v) * PITCH, 10);
  });

  it('are read from the smallest copy that still shows everything, and as squares close up', () => {
    const levels = levelsOf(
      pictureOf(40, 30, (x, y) => ((x + y) % 2 === 0 ? 0 : 200)),
      40,
      8,
    );
    expect(levels.map(({ width }) => width)).toEqual([40, 20, 10, 5]);
    const far = composed({ ...look, pitchMm: 4 * PITCH, width: 10, height: 7 }, [{ frame: frameAt(0, 0), levels }], LAYING); // prettier-ignore
    // A chequer too fine to be seen is its mean.
    for (const x of [2, 5, 7]) expect(Math.abs(red(far, x, 3) - 100)).toBeLessThan(4);
    const near = composed({ ...look, pitchMm: PITCH / 4, width: 16, height: 4 }, [{ frame: frameAt(0, 0), levels }], LAYING); // prettier-ignore
    expect([0, 3, 4, 7, 8].map((x) => red(near, x, 0))).toEqual([0, 0, 200, 200, 0]);
  });
});

describe('a file on the screen', () => {
  it('keeps its values, undoes light without a curve, and leaves out opacity', () => {
    const of = (more: Pick<Samples, 'data' | 'channels' | 'linear'>): Uint8ClampedArray => shownOf({ width: 1, height: 1, ...more }).data; // prettier-ignore
    expect([...of({ data: Uint8Array.of(10, 20, 30), channels: 3, linear: false })]).toEqual([10, 20, 30, 255]); // prettier-ignore
    expect([...of({ data: Uint8Array.of(10, 0), channels: 2, linear: false })]).toEqual([10, 10, 10, 255]); // prettier-ignore
    expect([...of({ data: Uint16Array.of(32_768, 0, 65_535, 0), channels: 4, linear: false })]).toEqual([128, 0, 255, 255]); // prettier-ignore
    // 18 % of light is 46 % of the curve. Source: IEC 61966-2-1.
    expect(of({ data: Uint16Array.of(11_796), channels: 1, linear: true })[0]).toBe(118);
  });

  it('is halved to means', () => {
    expect([...halved(pictureOf(4, 2, (x) => 10 * x)).data.filter((_, i) => i % 4 === 0)]).toEqual([5, 25]); // prettier-ignore
    expect(halved(pictureOf(1, 5, (_, y) => y)).height).toBe(2);
  });
});
