import { prove } from '../src/prove/prove.js';
import type { Proof } from '../src/prove/result.js';
import type { Plan } from '../src/prove/plan.js';
import { quarterTurned } from '../src/planes/plane.js';
import { fileOf, gridPlan, shoot, shotPlane, type Shot } from './helpers/mosaic.js';
import { random } from './helpers/random.js';
import { lookAt, scene, type Scene } from './helpers/scene.js';

const GRID = { columns: 3, rows: 2, widthPx: 320, heightPx: 240, overlap: 0.3 };
const ROW = { columns: 3, rows: 1, widthPx: 320, heightPx: 240, overlap: 0.35 };

const verdicts = ({ overlaps }: Proof): Record<string, string> =>
  Object.fromEntries(overlaps.map(({ a, b, verdict }) => [`${a}-${b}`, verdict]));

const tenths = (draw: () => number, most: number): number => Math.round(10 * most * (2 * draw() - 1)) / 10; // prettier-ignore

describe('a mosaic that holds', () => {
  it('gives places to a quarter of a pixel and exposure to 0.02 stops, through noise and falloff', async () => {
    const draw = random(11);
    for (let round = 0; round < 3; round++) {
      const plan = gridPlan(GRID);
      const shots: Record<number, Shot> = {};
      for (let i = 1; i < plan.frames.length; i++) {
        shots[i] = { off: { x: tenths(draw, 2), y: tenths(draw, 2) }, stops: 0.3 * draw() - 0.15 };
      }
      const look = { noise: 0.012, falloff: 0.8 };
      const proof = await prove(shoot(plan, { seed: 20 + round, shots, look }), plan);
      for (const { order, offPx, exposureStops } of proof.frames) {
        const { off = { x: 0, y: 0 }, stops = 0 } = shots[order - 1] ?? {};
        expect(Math.abs(offPx.x - off.x)).toBeLessThan(0.25);
        expect(Math.abs(offPx.y - off.y)).toBeLessThan(0.25);
        expect(Math.abs(exposureStops! - stops)).toBeLessThan(0.02);
      }
      expect([proof.verdict, proof.orderBy]).toEqual(['still', 'name']);
      expect([proof.setAside, proof.missing]).toEqual([[], []]);
    }
  });
});

/** What lies left of a wavy line is near, and goes by `parts` pixels with the lens. */
const near =
  (parts: number) =>
  (of: Scene, x: number, y: number): number =>
    y > 20 * Math.sin(x / 90) ? of.at(x - parts + 900, y + 500) : of.at(x, y);

describe('what went wrong is named', () => {
  it('near and far that part along the travel, by how much', async () => {
    const plan = gridPlan(ROW, { lensTravels: true });
    for (const parts of [3, 5, 9, 20]) {
      const shots = { 1: { seen: near(parts) }, 0: { seen: near(0) }, 2: { seen: near(2 * parts) } }; // prettier-ignore
      const proof = await prove(shoot(plan, { seed: 30 + parts, shots }), plan);
      expect(verdicts(proof)).toEqual({ '1-2': 'parallax', '2-3': 'parallax' });
      for (const { parallaxPx } of proof.overlaps) expect(Math.abs(parallaxPx - parts)).toBeLessThan(0.5); // prettier-ignore
      expect(proof.verdict).toBe('parallax');
    }
  });

  it('a floor that comes nearer row by row', async () => {
    const plan = gridPlan({ ...ROW, widthPx: 400, heightPx: 320 }, { lensTravels: true });
    const floor = (k: number) => (of: Scene, x: number, y: number) =>
      of.at(x - k * 8 * (y / 320), y);
    const shots = { 0: { seen: floor(0) }, 1: { seen: floor(1) }, 2: { seen: floor(2) } };
    const proof = await prove(shoot(plan, { seed: 41, shots }), plan);
    expect(verdicts(proof)).toEqual({ '1-2': 'parallax', '2-3': 'parallax' });
    // From the upper tiles' middles to the lower ones'.
    for (const { parallaxPx, turnDeg } of proof.overlaps) {
      expect(parallaxPx).toBeGreaterThan(5);
      expect(parallaxPx).toBeLessThan(8.1);
      expect(turnDeg).toBe(0);
    }
  });

  it('a frame that slipped, its overlaps and no other', async () => {
    const plan = gridPlan({ ...GRID, pitchMm: 0.02 });
    const shots = { 2: { off: { x: 1.5, y: -7.2 } } };
    const proof = await prove(shoot(plan, { seed: 50, shots }), plan);
    expect(verdicts(proof)).toEqual({
      ...{ '1-2': 'still', '2-3': 'slipped', '1-4': 'still', '2-5': 'still' },
      ...{ '3-6': 'slipped', '4-5': 'still', '5-6': 'still' },
    });
    const third = proof.frames.find(({ order }) => order === 3)!;
    expect(third.offPx.y).toBeCloseTo(-7.2, 0);
    // With small pixels a tenth of a millimetre is more than that.
    const fine = gridPlan({ ...GRID, pitchMm: 0.01 });
    expect((await prove(shoot(fine, { seed: 50, shots }), fine)).verdict).toBe('still');
  });

  it('light that changed', async () => {
    const plan = gridPlan(ROW);
    const proof = await prove(shoot(plan, { seed: 60, shots: { 2: { stops: -0.5 } } }), plan);
    expect(verdicts(proof)).toEqual({ '1-2': 'still', '2-3': 'light' });
    expect(proof.overlaps[1]!.exposureStops).toBeCloseTo(-0.5, 1);
    expect(proof.verdict).toBe('light');
  });

  it.each([
    ['went aside', 5, 7],
    ['went along the travel, where nothing near can', 6, 0],
  ])('a thing that %s', async (_, dx, dy) => {
    const plan = gridPlan({ ...ROW, widthPx: 480, heightPx: 400 });
    const other = scene(999);
    // A cart in the overlap of the first two: there in both, and not in the same place.
    const cart = (x0: number, y0: number) => (of: Scene, x: number, y: number) =>
      Math.hypot(x - x0, y - y0) < 42 ? other.at(x - x0, y - y0) : of.at(x, y);
    const shots = { 0: { seen: cart(-156, 40) }, 1: { seen: cart(-156 + dx, 40 + dy) } };
    const proof = await prove(shoot(plan, { seed: 70, shots }), plan);
    expect(verdicts(proof)).toEqual({ '1-2': 'moving', '2-3': 'still' });
    expect(proof.verdict).toBe('moving');
    expect(proof.overlaps[0]!.tiles.some(({ odd }) => odd)).toBe(true);
  });

  it('a thing that went away altogether', async () => {
    const plan = gridPlan({ ...ROW, widthPx: 480, heightPx: 400 });
    const other = scene(998);
    const cart = (of: Scene, x: number, y: number) =>
      Math.hypot(x + 156, y - 40) < 50 ? other.at(x, y) : of.at(x, y);
    const proof = await prove(shoot(plan, { seed: 71, shots: { 0: { seen: cart } } }), plan);
    expect(verdicts(proof)).toEqual({ '1-2': 'moving', '2-3': 'still' });
  });

  it('a sky that tells nothing, which does not spoil the rest', async () => {
    const plan = gridPlan(GRID);
    const sky = (of: Scene, x: number, y: number) =>
      x > -175 && x < -50 && y < 45 ? 0.6 : of.at(x, y);
    const shots = Object.fromEntries(plan.frames.map((_, i) => [i, { seen: sky }]));
    const proof = await prove(shoot(plan, { seed: 80, shots }), plan);
    expect(verdicts(proof)).toMatchObject({ '1-2': 'unsure', '2-3': 'still', '1-4': 'still' });
    expect(proof.verdict).toBe('still');
  });
});

describe('frames that are not as planned', () => {
  const plan = gridPlan(GRID);
  const named = (seed: number) => shoot(plan, { seed });

  it('in another order are told by what overlaps what', async () => {
    const files = named(90).map((file, i) => ({ ...file, name: `${[4, 2, 6, 1, 3, 5][i]}.jpg` }));
    const proof = await prove(files, plan);
    expect(proof.orderBy).toBe('overlap');
    expect(proof.frames.map(({ file }) => file)).toEqual(['4.jpg', '2.jpg', '6.jpg', '1.jpg', '3.jpg', '5.jpg']); // prettier-ignore
    expect(proof.verdict).toBe('still');
  });

  it('by their times before their names', async () => {
    const files = named(91).map((file, i) => ({ ...file, name: `${9 - i}.jpg`, takenS: i }));
    const proof = await prove(files, plan);
    expect([proof.orderBy, proof.verdict]).toEqual(['name', 'still']);
  });

  it.each([0, 4])('with frame %i missing', async (gone) => {
    const proof = await prove(named(92).filter((_, i) => i !== gone), plan); // prettier-ignore
    expect(proof.missing).toEqual([gone + 1]);
    expect(proof.setAside).toEqual([]);
    expect(proof.frames.map(({ order, file }) => file === `frame-${order}.tif`)).not.toContain(false); // prettier-ignore
    expect(proof.verdict).toBe('unsure');
  });

  it('with one shot twice', async () => {
    const files = named(93);
    const again = { ...shoot(plan, { seed: 93, look: { seed: 5 } })[1]!, name: 'frame-9.tif' }; // prettier-ignore
    const proof = await prove([...files, again], plan);
    expect(proof.setAside).toEqual([{ file: 'frame-9.tif', why: 'it shows the same as frame-2.tif' }]); // prettier-ignore
    expect(proof.verdict).toBe('still');
  });

  it('with one that is from elsewhere', async () => {
    const alien = fileOf('0-alien.tif', lookAt(scene(7), { width: 320, height: 240, x: 5000, y: 5000, noise: 0.004 })); // prettier-ignore
    const proof = await prove([alien, ...named(94)], plan);
    expect(proof.setAside).toEqual([{ file: '0-alien.tif', why: 'it overlaps none of the others' }]); // prettier-ignore
    expect([proof.verdict, proof.missing]).toEqual(['still', []]);
  });

  it('with one of another size, and one that breaks when it is read', async () => {
    const small = fileOf('small.tif', lookAt(scene(7), { width: 100, height: 80, x: 0, y: 0 }));
    const broken = { ...named(95)[0]!, name: 'broken.jpg', load: () => Promise.reject(new Error('it ends too early')) }; // prettier-ignore
    const proof = await prove([small, broken, ...named(95)], plan);
    expect(proof.setAside).toEqual([
      { file: 'small.tif', why: 'it has 100 × 80 pixels, the others 320 × 240' },
      { file: 'broken.jpg', why: 'it ends too early' },
    ]);
    expect(proof.verdict).toBe('still');
  });

  it.each([90, 180, -90])('with one turned by %i°', async (deg) => {
    const files = named(96).map((file, i) =>
      i === 3 ? fileOf(file.name, quarterTurned(shotPlane(plan, scene(96), 3), -deg / 90)) : file,
    );
    const proof = await prove(files, plan);
    const fourth = proof.frames.find(({ order }) => order === 4)!;
    expect(fourth.turnedDeg === deg || (deg === 180 && Math.abs(fourth.turnedDeg) === 180)).toBe(true); // prettier-ignore
    expect(proof.frames.filter(({ turnedDeg }) => turnedDeg !== 0)).toHaveLength(1);
    expect(proof.verdict).toBe('still');
  });

  it('with one leaning a little: by how much, and its place', async () => {
    const big = gridPlan({ ...ROW, widthPx: 640, heightPx: 480 });
    const proof = await prove(shoot(big, { seed: 97, shots: { 1: { turnDeg: 0.4, off: { x: 1, y: -0.5 } } } }), big); // prettier-ignore
    const [, second, third] = proof.frames;
    expect(second!.rotationDeg).toBeCloseTo(0.4, 1);
    expect(Math.abs(second!.offPx.x - 1)).toBeLessThan(0.25);
    expect(Math.abs(second!.offPx.y + 0.5)).toBeLessThan(0.25);
    expect(Math.abs(third!.rotationDeg)).toBeLessThan(0.03);
    expect(Math.hypot(third!.offPx.x, third!.offPx.y)).toBeLessThan(0.25);
  });

  it('pinwheels: each frame turned a quarter further', async () => {
    const base = gridPlan({ columns: 2, rows: 2, widthPx: 360, heightPx: 280, overlap: 0.3 });
    const [r, u] = [0.0035 * 300, 0.0035 * 260];
    const wheel: Plan = {
      ...base,
      frames: [0, 1, 2, 3].map((k) => {
        const [c, s] = [[1, 0, -1, 0][k]!, [0, 1, 0, -1][k]!];
        // Clockwise from the first.
        return { order: k + 1, xMm: 1.2 * (r * c + u * s), yMm: 1.2 * (u * c - r * s), rotationDeg: 90 * k }; // prettier-ignore
      }),
      pairs: [
        [0, 1],
        [1, 2],
        [2, 3],
        [0, 3],
        [0, 2],
        [1, 3],
      ].map(([a, b]) => ({ a: a!, b: b!, partsMm: 0, farMm: 0 })),
    };
    const shots = { 2: { off: { x: 1, y: -1 } } };
    const proof = await prove(shoot(wheel, { seed: 98, shots }), wheel);
    expect([proof.verdict, proof.orderBy]).toEqual(['still', 'name']);
    expect(proof.frames[2]!.offPx.x).toBeCloseTo(1, 0);
    const mixed = shoot(wheel, { seed: 98 }).map((file, i) => ({ ...file, name: `${[3, 1, 4, 2][i]}.tif` })); // prettier-ignore
    const other = await prove(mixed, wheel);
    expect([other.orderBy, other.verdict]).toEqual(['overlap', 'still']);
    expect(other.frames.map(({ file }) => file)).toEqual(['3.tif', '1.tif', '4.tif', '2.tif']);
  });
});

describe('work', () => {
  it('tells how far it is and stops when asked', async () => {
    const plan = gridPlan(ROW);
    const told: number[] = [];
    await prove(shoot(plan, { seed: 1 }), plan, { progress: (done, of) => told.push(done / of) });
    expect(told.at(-1)).toBe(1);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    await expect(prove(shoot(plan, { seed: 1 }), plan, { signal: { aborted: true } })).rejects.toThrow('Stopped.'); // prettier-ignore
  });

  it('of no file at all, and of one', async () => {
    const plan = gridPlan(ROW);
    expect(await prove([], plan)).toMatchObject({ frames: [], missing: [1, 2, 3], verdict: 'unsure' }); // prettier-ignore
    const one = await prove(shoot(plan, { seed: 1 }).slice(0, 1), plan);
    expect(one).toMatchObject({ missing: [2, 3], verdict: 'unsure' });
  });
});
