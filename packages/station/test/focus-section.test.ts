import {
  blurAt,
  blurRaster,
  boxFaceMarks,
  focusedThrough,
  hingedAt,
  leanedTo,
  pickablePlaces,
  readings,
  sceneStep,
  sectionOf,
  solvedFor,
  solveStation,
  withMarks,
} from '../src/index.js';
import { parsed } from './helpers/rigs.js';
import { mark, table, THREE } from './helpers/table.js';

describe('the sections', () => {
  const set = solvedFor(table(THREE, { solve: { tilt: true, swing: false } }));

  it('carry the plane through the marks it holds, and the hinge where it lies', () => {
    const section = sectionOf(solvedFor(table(THREE), solveStation(table(THREE))), 'side');
    for (const { at, plane } of section.marks) {
      expect(plane!.x).toBeCloseTo(at.x, 4);
      expect(plane!.y).toBeCloseTo(at.y, 3);
    }
    const side = sectionOf(set, 'side');
    const { nx, ny, k } = side.plane!;
    expect(nx * side.hinge!.x + ny * side.hinge!.y).toBeCloseTo(k, 6);
    expect(Math.hypot(side.hinge!.x, side.hinge!.y) * 1000).toBeCloseTo(
      readings(set).focus.hinge_mm!,
      6,
    );
    // Sensor plane, lens plane and plane of sharp focus share one line.
    expect(nx * side.meeting!.x + ny * side.meeting!.y).toBeCloseTo(k, 6);
    const [a, b] = side.sensor;
    const cross = (side.meeting!.x - a.x) * (b.y - a.y) - (side.meeting!.y - a.y) * (b.x - a.x);
    expect(cross).toBeCloseTo(0, 9);
    expect(side.groundM).toBeLessThan(-1.3);
    expect(sectionOf(set, 'plan').hinge).toBeNull();
  });

  it('lie level: a thing as high as the lens stands as high in the drawing', () => {
    const { at } = sectionOf(withMarks(set, [mark('a', 0, 1.5, 3)]), 'side').marks[0]!;
    const lensHeight = -sectionOf(set, 'side').groundM!;
    expect(at.y).toBeCloseTo(1.5 - lensHeight, 9);
  });

  it('focus where the plane is dragged to, swinging it about the hinge', () => {
    const to = { x: 1, y: -0.1 };
    const after = focusedThrough(set, 'side', to)!;
    const before = sectionOf(set, 'side');
    const now = sectionOf(after, 'side');
    expect(after.movements).toEqual(set.movements);
    expect(now.hingeMm).toBeCloseTo(before.hingeMm!, 6);
    // The lens centre moved by the change of focus; the place stood still.
    const shift =
      (readings(after).focus.image_distance_mm - readings(set).focus.image_distance_mm) / 1000;
    const { nx, ny, k } = now.plane!;
    const pitch = (14 * Math.PI) / 180;
    const here = { x: to.x - shift * Math.cos(pitch), y: to.y + shift * Math.sin(pitch) };
    expect(nx * here.x + ny * here.y).toBeCloseTo(k, 8);
    expect(focusedThrough(set, 'side', { x: -1, y: 0 })).toBeNull();
  });

  it('lean where hinge or lens are dragged to, as far as the mechanism goes', () => {
    expect(sectionOf(hingedAt(set, 'side', -600), 'side').hingeMm).toBeCloseTo(-600, -1);
    expect(leanedTo(set, 'side', 90).movements.tilt_deg).toBe(25);
    expect(leanedTo(set, 'plan', -3).movements.swing_deg).toBe(-3);
    const plan = sectionOf(hingedAt(set, 'plan', 900), 'plan');
    expect(plan.hingeMm!).toBeCloseTo(900, -1);
  });

  it('move things along the drawing’s own directions', () => {
    expect(sceneStep(set, 'side', 0, 0.1).y_m).toBeCloseTo(0.1, 9);
    expect(sceneStep(set, 'side', 0.1, 0).z_m).toBeCloseTo(0.1, 9);
    expect(sceneStep(set, 'plan', 0, 0.1).x_m).toBeCloseTo(0.1, 9);
  });

  it('have limits at which a thing just holds', () => {
    const side = sectionOf(set, 'side');
    const { x_m, y_m, z_m } = sceneStep(set, 'side', 1, 0);
    expect([x_m, y_m]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    for (const limit of side.limits) {
      const { nx, ny, k } = limit!;
      const x = 1.1;
      const y = (k - nx * x) / ny;
      // Back into the scene: the section's origin is the lens centre.
      const v = readings(set).focus.image_distance_mm / 1000;
      const pitch = (-14 * Math.PI) / 180;
      const [cy, cz] = [1.5 + v * Math.sin(pitch), v * Math.cos(pitch)];
      expect(blurAt(set)(0, cy + y, cz + x * z_m) * 1000).toBeCloseTo(30, 3);
    }
  });
});

describe('the blur picture', () => {
  it('has the blur of a wall where it stands, and of the far where nothing does', () => {
    const station = parsed({
      ...table([]),
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
      facade: { distance_m: 6, top_m: 1.6, width_m: 1, base_m: 1.4 },
    });
    const { width, height, blurUm } = blurRaster(station);
    const at = (x: number, y: number): number => blurUm[y * width + x]!;
    const wall = blurAt(station)(0, 1.5, 6) * 1000;
    expect(at(Math.floor(width / 2), Math.floor(height / 2))).toBeCloseTo(wall, 0);
    const far = blurAt(station)(0, 1.5, 1e7) * 1000;
    expect(at(2, 2) / far).toBeCloseTo(1, 2);
    expect(width / height).toBeCloseTo(1.5, 1);
  });

  it('meets the nearest of boxes, turned or not', () => {
    const station = parsed({
      ...table([]),
      camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0 },
      site: {
        boxes: [
          { name: 'far', x_m: 0, z_m: 9, width_m: 9, depth_m: 2, height_m: 6 },
          { name: 'near', x_m: 0, z_m: 4, width_m: 1, depth_m: 1, height_m: 3, turn_deg: 45 },
        ],
      },
    });
    const { width, height, blurUm } = blurRaster(station);
    const middle = blurUm[Math.floor(height / 2) * width + Math.floor(width / 2)]!;
    expect(middle / (blurAt(station)(0, 1.5, 4 - Math.SQRT1_2) * 1000)).toBeCloseTo(1, 1);
    expect(
      blurUm[Math.floor(height / 2) * width]! / (blurAt(station)(0, 1.5, 8) * 1000),
    ).toBeCloseTo(1, 2);
  });
});

describe('marks from the site', () => {
  const station = parsed({
    ...table([]),
    site: {
      boxes: [
        { name: 'Table', x_m: 0.1, z_m: 2, width_m: 1.2, depth_m: 0.8, height_m: 0.75 },
        { name: 'Tin', x_m: 0, z_m: 2, width_m: 0.2, depth_m: 0.1, height_m: 0.3, base_m: 0.75 },
      ],
    },
    facade: { distance_m: 9, top_m: 5, width_m: 6, base_m: 0, x_m: 1 },
  });

  it('four corners of a top lie level, four of a front upright and nearest', () => {
    const top = boxFaceMarks(station, 0, 'top');
    expect(top.map(({ y_m }) => y_m)).toEqual([0.75, 0.75, 0.75, 0.75]);
    expect(new Set(top.map(({ label }) => label)).size).toBe(4);
    const front = boxFaceMarks(station, 1, 'front');
    expect(front.every(({ z_m }) => z_m === 1.95)).toBe(true);
    expect(Math.max(...front.map(({ y_m }) => y_m))).toBeCloseTo(1.05, 9);
    expect(boxFaceMarks(station, 7, 'top')).toEqual([]);
  });

  it('places may be picked from boxes and façade', () => {
    const places = pickablePlaces(station);
    expect(places.filter(({ of }) => of === 'Tin')).toHaveLength(10);
    expect(places.find(({ of, name }) => of === 'Façade' && name === 'top right')!.at).toEqual({
      x_m: 4,
      y_m: 5,
      z_m: 9,
    });
  });
});
