import fc from 'fast-check';
import { newStation, parseStation, sectionOf, type Station } from '@gangway/station';
import {
  along,
  ends,
  firstZoom,
  heightAt,
  namePlaces,
  nameRect,
  onSheet,
  ordinates,
  overlap,
  sectionSheet,
} from '../src/focus/section-sheet.js';

const scene = (marks: object[], more: object = {}): Station => {
  const read = parseStation({ ...newStation('check'), marks, ...more });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
};

const mark = (x_m: number, y_m: number, z_m: number, more: object = {}) => ({
  label: 'm',
  x_m,
  y_m,
  z_m,
  must: 'sharp',
  ...more,
});

describe('the sheet of a section', () => {
  it('holds camera and marks, true to scale', () => {
    const section = sectionOf(scene([mark(0, 1.2, 2), mark(0, 2.4, 3)]), 'side');
    const sheet = sectionSheet(section, 'scene', 800, 500);
    expect(sheet.stretch).toBe(1);
    for (const { at } of section.marks) {
      expect(sheet.x(at.x)).toBeGreaterThan(0);
      expect(sheet.x(at.x)).toBeLessThan(800);
      expect(sheet.y(at.y)).toBeGreaterThan(0);
      expect(sheet.y(at.y)).toBeLessThan(500);
    }
    expect(sheet.x(0)).toBeGreaterThan(0);
    expect(sheet.x(1) - sheet.x(0)).toBeCloseTo(sheet.scaleX, 9);
    expect(sheet.y(0) - sheet.y(1)).toBeCloseTo(sheet.scaleY, 9);
    expect(sheet.x(sheet.left)).toBeCloseTo(0, 9);
    expect(sheet.x(sheet.right)).toBeCloseTo(800, 9);
  });

  it('draws heights larger where the scene is flat, and tells by how much', () => {
    const section = sectionOf(scene([mark(0, 1.5, 4), mark(0, 1.5, 400)]), 'side');
    const sheet = sectionSheet(section, 'scene', 800, 500);
    expect(sheet.stretch).toBeGreaterThan(3);
    expect(sectionSheet(section, 'camera', 800, 500).stretch).toBe(1);
  });

  it('shows the camera large when it is looked at', () => {
    const section = sectionOf(scene([mark(0, 1.5, 4)]), 'side');
    const [scene800, camera] = (['scene', 'camera'] as const).map((zoom) =>
      sectionSheet(section, zoom, 800, 500),
    );
    expect(camera!.scaleX).toBeGreaterThan(10 * scene800!.scaleX);
  });

  it('reaches past the marks to where one at infinity is shown', () => {
    const near = sectionOf(scene([mark(0, 1.5, 4)]), 'side');
    const far = sectionOf(scene([mark(0, 1.5, 4), mark(0, 1.6, 1, { infinite: true })]), 'side');
    const right = (section: typeof near) => sectionSheet(section, 'scene', 800, 500).right;
    expect(right(far)).toBeGreaterThan(right(near) * 1.1);
    expect(right(sectionOf(scene([]), 'side'))).toBeGreaterThan(1);
  });
});

describe('lines on a sheet', () => {
  const line = { nx: 1, ny: -2, k: 0.5 };

  it('run ahead, and through the height told for a distance', () => {
    const d = along(line);
    expect(d.x).toBeGreaterThan(0);
    expect(line.nx * d.x + line.ny * d.y).toBeCloseTo(0, 12);
    const y = heightAt(line, 3)!;
    expect(line.nx * 3 + line.ny * y).toBeCloseTo(line.k, 12);
    expect(heightAt({ nx: 1, ny: 0, k: 2 }, 3)).toBeNull();
    expect(along({ nx: 1, ny: 0, k: 2 }).y).toBe(1);
    expect(along(line, { x: -1, y: 0 }).x).toBeLessThan(0);
  });

  it('begin at the hinge, or cross the whole sheet without one', () => {
    const hinge = { x: 0, y: -0.25 };
    const [from, to] = ends(line, hinge, 2);
    expect(from).toEqual(hinge);
    expect(to.x).toBeGreaterThan(20);
    const [a, b] = ends({ nx: 1, ny: 0, k: 2 }, null, 2);
    expect([a.x, b.x]).toEqual([2, 2]);
    expect(a.y).toBeLessThan(-20);
    expect(b.y).toBeGreaterThan(20);
  });
});

describe('what of a line lies on the sheet', () => {
  const p = (x: number, y: number) => ({ x, y });

  it('is all of it, a part, or nothing', () => {
    expect(onSheet([p(10, 10), p(90, 40)], 100, 50)).toEqual([p(10, 10), p(90, 40)]);
    expect(onSheet([p(-100, 25), p(300, 25)], 100, 50)).toEqual([p(0, 25), p(100, 25)]);
    expect(onSheet([p(50, -1e6), p(50, 1e6)], 100, 50)).toEqual([
      p(50, expect.closeTo(0, 6) as number),
      p(50, expect.closeTo(50, 6) as number),
    ]);
    expect(onSheet([p(-10, 60), p(300, 60)], 100, 50)).toBeNull();
    expect(onSheet([p(-50, 0), p(0, -50)], 100, 50)).toBeNull();
    expect(onSheet([p(200, 10), p(300, 20)], 100, 50)).toBeNull();
  });

  it('lies within it and on the line, whatever the line', () => {
    const far = fc.double({ min: -3000, max: 3000, noNaN: true });
    let met = 0;
    fc.assert(
      fc.property(far, far, far, far, (a, b, c, d) => {
        const part = onSheet([p(a, b), p(c, d)], 800, 500);
        // Sampled along its way, a line with no part on the sheet is nowhere on it.
        const on = Array.from({ length: 201 }, (_, i) => i / 200).filter((t) => {
          const [x, y] = [a + t * (c - a), b + t * (d - b)];
          return x >= 0 && x <= 800 && y >= 0 && y <= 500;
        });
        if (!part) return expect(on).toEqual([]);
        met += 1;
        for (const { x, y } of part) {
          expect(x).toBeGreaterThan(-1e-6);
          expect(x).toBeLessThan(800 + 1e-6);
          expect(y).toBeGreaterThan(-1e-6);
          expect(y).toBeLessThan(500 + 1e-6);
          const size = Math.hypot(c - a, d - b) || 1;
          expect(Math.abs((x - a) * (d - b) - (y - b) * (c - a)) / size).toBeLessThan(1e-6);
        }
      }),
    );
    expect(met).toBeGreaterThan(5);
  });
});

describe('names of marks', () => {
  it('are raised until none lies over another', () => {
    const names = [
      { x: 100, y: 300, chars: 20 },
      { x: 150, y: 304, chars: 20 },
      { x: 200, y: 298, chars: 20 },
      { x: 400, y: 300, chars: 6 },
    ];
    const places = namePlaces(names);
    expect(places[3]).toEqual({ up: 0, beside: false });
    const at = names.map(({ y }, i) => y - places[i]!.up);
    for (const [i, a] of at.slice(0, 3).entries()) {
      for (const b of at.slice(i + 1, 3)) expect(Math.abs(a - b)).toBeGreaterThan(30);
    }
  });

  it('stand beside marks that stand one above the other', () => {
    const stacked = [70, 40, 0].map((y) => ({ x: 300, y: 100 + y, chars: 10 }));
    expect(namePlaces(stacked).map(({ beside }) => beside)).toEqual([true, true, false]);
  });
});

describe('marks looked at by themselves', () => {
  const beetle = [mark(0, 1.5, 0.25), mark(0.004, 1.506, 0.254), mark(-0.003, 1.503, 0.249)];

  it('fill the sheet though the camera stands far from them', () => {
    const section = sectionOf(scene(beetle), 'side');
    const [whole, marks] = (['scene', 'marks'] as const).map((zoom) =>
      sectionSheet(section, zoom, 800, 500),
    );
    const across = (sheet: typeof whole): number => {
      const ys = section.marks.map(({ at }) => sheet!.y(at.y));
      return Math.max(...ys) - Math.min(...ys);
    };
    expect(across(whole)).toBeLessThan(60);
    expect(across(marks)).toBeGreaterThan(60);
    for (const { at } of section.marks) {
      expect(marks!.x(at.x)).toBeGreaterThan(40);
      expect(marks!.x(at.x)).toBeLessThan(760);
      expect(marks!.y(at.y)).toBeGreaterThan(40);
      expect(marks!.y(at.y)).toBeLessThan(460);
    }
    expect(marks!.x(0)).toBeLessThan(0);
  });

  it('are shown first where they huddle at the end of the whole', () => {
    const zoom = (marks: object[]): string => firstZoom(sectionOf(scene(marks), 'side'));
    expect(zoom(beetle)).toBe('marks');
    expect(zoom([mark(0, 1.2, 2), mark(0, 2.4, 3)])).toBe('scene');
    expect(zoom([])).toBe('scene');
    expect(zoom([mark(0, 1.5, 4)])).toBe('scene');
  });

  it('are the whole scene where none stands anywhere near', () => {
    const section = sectionOf(scene([mark(0, 1.6, 1, { infinite: true })]), 'side');
    expect(sectionSheet(section, 'marks', 800, 500).right).toBe(
      sectionSheet(section, 'scene', 800, 500).right,
    );
  });
});

describe('distances at the foot of the sheet', () => {
  const told = (marks: object[], width = 800): number[] => {
    const section = sectionOf(scene(marks), 'side');
    return ordinates(section, sectionSheet(section, 'scene', width, 500), width).map(({ m }) => m);
  };

  it('count from the sensor, as the tape does', () => {
    const read = told([mark(0, 1.2, 2), mark(0, 2.4, 3)]);
    expect(read[0]).toBeCloseTo(2, 9);
    expect(read[1]).toBeCloseTo(3, 9);
  });

  it('leave out what would lie over another, never the farthest', () => {
    const marks = Array.from({ length: 30 }, (_, i) => mark(0, 1.5, 2 + i / 30));
    const section = sectionOf(scene(marks), 'side');
    const sheet = sectionSheet(section, 'scene', 800, 500);
    const kept = ordinates(section, sheet, 800);
    expect(kept.length).toBeGreaterThan(2);
    expect(kept.at(-1)!.m).toBeCloseTo(2 + 29 / 30, 9);
    for (let i = 1; i < kept.length; i++) {
      expect(kept[i]!.x - kept[i - 1]!.x).toBeGreaterThanOrEqual(62);
    }
  });

  it('tell where the plane lies before anything is marked, and nothing of free or endless marks', () => {
    const plane = told([]);
    expect(plane).toHaveLength(1);
    expect(plane[0]).toBeGreaterThan(0.5);
    const free = told([
      mark(0, 1.5, 4),
      mark(0, 1.5, 9, { must: 'free' }),
      mark(0, 1.6, 1, { infinite: true }),
    ]);
    expect(free).toEqual([expect.closeTo(4, 9)]);
  });
});

describe('room of a mark and its name', () => {
  it('is above it, or beside it', () => {
    const above = nameRect({ x: 100, y: 100, chars: 10 }, { up: 0, beside: false });
    expect(above.top).toBeLessThan(70);
    expect(above.left).toBeLessThan(70);
    const beside = nameRect({ x: 100, y: 100, chars: 10 }, { up: 0, beside: true });
    expect(beside.right).toBeGreaterThan(180);
    expect(beside.top).toBeGreaterThan(70);
    expect(overlap(above, beside)).toBe(true);
    expect(overlap(above, { left: 0, right: 400, top: 200, bottom: 220 })).toBe(false);
  });

  it('stands beside where it would be raised off the sheet', () => {
    const crowd = [30, 34, 38].map((y, i) => ({ x: 300 + 50 * i, y, chars: 20 }));
    const places = namePlaces(crowd);
    for (const [i, { up, beside }] of places.entries()) {
      expect(beside || up === 0 || crowd[i]!.y - up >= 46).toBe(true);
    }
    expect(places.some(({ beside }) => beside)).toBe(true);
  });
});
