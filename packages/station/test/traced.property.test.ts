import fc from 'fast-check';
import { newStation, parseStation, readings, type Station } from '../src/index.js';
import { root, Traced, type V3 } from './helpers/traced.js';
import { within, worlds } from './helpers/worlds.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const RUNS = runs(2500);

/** As the report prints it: off by no more than rounding, large values by their own size. */
function same(got: number | null | undefined, traced: number, slack = 1e-8): void {
  if (!Number.isFinite(traced) || Math.abs(traced) > 1e9) {
    expect(got === null || Math.abs(got!) > 1e8).toBe(true);
    return;
  }
  expect(Math.abs(got! - traced)).toBeLessThanOrEqual(slack * Math.max(1, Math.abs(traced)));
}

const each = (check: (station: Station, traced: Traced) => void, numRuns = RUNS): void => {
  let seen = 0;
  fc.assert(
    fc.property(worlds, (station) => {
      // A setting that no camera could have is refused; what remains is checked.
      if (!parseStation(station).ok) return;
      seen += 1;
      check(station, new Traced(station));
    }),
    { numRuns },
  );
  expect(seen).toBeGreaterThan(numRuns / 2);
};

// Every figure by tracing rays through a leaned thin lens; the slope law alone.
describe('random stations against rays', () => {
  it('focus, field and light', () => {
    each((station, traced) => {
      const { focus, field, coverage, optics } = readings(station);
      const { v } = traced;
      same(focus.image_distance_mm, v);
      const { x, y } = traced.middle;
      const { w, h, x: sx, y: sy } = traced.kept;
      const deg = (mm: number): number => (Math.atan2(mm, v) * 180) / Math.PI;
      same(field.right_deg, deg(x + sx + w / 2), 1e-7);
      same(field.left_deg, deg(w / 2 - x - sx), 1e-7);
      same(field.up_deg, deg(y + sy + h / 2), 1e-7);
      same(field.down_deg, deg(h / 2 - y - sy), 1e-7);
      same(optics.coc_mm, traced.cocMm * traced.behind);
      const angles = traced.corners.map((corner) => traced.angle(corner));
      const worst = Math.max(...angles) - traced.halfAngle;
      if (Math.abs(worst) > 1e-8) expect(coverage.covered).toBe(worst < 0);
      if (Math.max(...angles) < 1.5) {
        same(coverage.corner_falloff_stops, Math.max(...traced.corners.map((c) => traced.loss(c))), 1e-7); // prettier-ignore
      }
    });
  });

  it('what a place in the scene looks like: where it is pictured, and its patch', () => {
    each((station, traced) => {
      const { marks } = readings(station);
      station.marks!.forEach((mark, i) => {
        const { blur_um, f_number_needed, image_depth_mm, in_frame, holds } = marks![i]!;
        const place = traced.see(mark);
        if (place[2] <= 1e-3 * traced.f) {
          if (place[2] < 0) expect(blur_um).toBeNull();
          return;
        }
        const blur = traced.blur(place) * traced.behind * 1000;
        // A patch seen from the pupil's own place has no end.
        if (blur > 1e7) return;
        // In thousandths of a nanometre: two rays a light year off part by rounding.
        same(blur_um! / 100, blur / 100, 1e-6);
        same(f_number_needed, (traced.blur(place, 1) / traced.cocMm) * traced.behind, 1e-4);
        const depth = traced.depthOf(place);
        if (Math.abs(depth) < 1e6 * traced.f) same(image_depth_mm ?? -1, depth > 0 ? depth : -1, 1e-6); // prettier-ignore
        const { x, y } = traced.pictured(place);
        const { w, h, x: sx, y: sy } = traced.kept;
        const [dx, dy] = [x - traced.middle.x - sx, y - traced.middle.y - sy];
        const inside = Math.min(w / 2 - Math.abs(dx), h / 2 - Math.abs(dy));
        if (Math.abs(inside) > 1e-6 * traced.f) expect(in_frame).toBe(inside > 0);
        expect(holds).toBe(true);
      });
    });
  });

  it('depth: the patch at its ends is the circle of confusion', () => {
    each((station, traced) => {
      const { near_m, far_m } = readings(station).focus;
      const { v, f, axis } = traced;
      const patch = (z: number): number => traced.blur([0, 0, z]) - traced.cocMm;
      for (const end of [near_m, far_m]) {
        const z = (end ?? 0) * 1000 - v;
        if (end === null || z > 1e5 * f || z < 0.05 * f) continue;
        same(patch(z) / traced.cocMm, 0, 1e-5);
      }
      // Without an end the far things stay within it.
      if (far_m === null && v * axis[2] > f) expect(patch(1e9 * f)).toBeLessThan(1e-6 * f);
    });
  });

  it('limits: walked from zero, the image distance held, until a corner leaves', () => {
    each((station, traced) => {
      const { limits, limited_by, rear_limits } = readings(station).coverage;
      const walk = (
        field: 'rise_mm' | 'shift_mm' | 'rear_rise_mm' | 'rear_shift_mm',
        sign: 1 | -1,
      ) => {
        // prettier-ignore
        const at = (mm: number): boolean => traced.moved({ [field]: sign * mm }).covered;
        if (!at(0)) return null;
        let far = 1e-3 * traced.f;
        while (at(far) && far < 1e4 * traced.f) far *= 2;
        return far >= 1e4 * traced.f ? Infinity : root((mm) => (at(mm) ? -1 : 1), 0, far);
      };
      const check = (got: number | null, walked: number | null): void => {
        if (walked === null) expect(got === null || got < 1e-6 * traced.f).toBe(true);
        else if (walked > 1e-5 * traced.f) same(got, walked, 1e-6 * traced.f);
      };
      const rise = [walk('rise_mm', 1), walk('rise_mm', -1)] as const;
      check(limits.rise_mm, rise[0]);
      check(limits.fall_mm, rise[1]);
      if (limits.rise_mm === null) {
        expect(limited_by.rise).toBe(rise[0] === Infinity ? 'nothing' : 'circle');
      }
      check(limits.right_mm, walk('shift_mm', 1));
      check(limits.left_mm, walk('shift_mm', -1));
      if (rear_limits) {
        check(rear_limits.rise_mm, walk('rear_rise_mm', 1));
        check(rear_limits.left_mm, walk('rear_shift_mm', -1));
      }
      // Each walk looks at a hundred cameras.
    }, RUNS / 4);
  });

  it('the plane of sharp focus: rays from it meet on the sensor', () => {
    each((station, traced) => {
      const { plane } = readings(station).focus;
      fc.pre(plane.distance_mm !== null && plane.distance_mm <= 1e5 * traced.f);
      const normal = plane.normal as V3;
      // Three places of it about where it is nearest.
      const foot = normal.map((n) => n * plane.distance_mm!) as unknown as V3;
      for (const [i, j] of [
        [0, 0],
        [0.4, 0.1],
        [-0.2, 0.3],
      ] as const) {
        // prettier-ignore
        const size = i * traced.f;
        const other = j * traced.f;
        const at: V3 = [
          foot[0] + size * normal[2],
          foot[1] + other * normal[2],
          foot[2] - size * normal[0] - other * normal[1],
        ];
        if (at[2] < 0.2 * traced.f) continue;
        same(traced.depthOf(at), traced.v, 1e-6);
      }
    });
  });

  it('reach: where the ends of the bellows put the lens, before, behind and between multipliers', () => {
    fc.assert(
      fc.property(
        within(40, 300),
        within(0.6, 1.3),
        within(0.1, 1.6),
        fc.tuple(fc.option(within(0.6, 2)), fc.option(within(0.6, 2))),
        within(-10, 10),
        (f, low, more, [before, behind], tilt_deg) => {
          const [least, most] = [f * low, f * (low + more)];
          const station: Station = {
            ...newStation('reach'),
            back: { width_mm: 36, height_mm: 24, orientation: 'landscape' },
            lens: { focal_length_mm: f, f_min: 2, f_max: 64, circle: [{ f_number: 4, diameter_mm: 3 * f }] }, // prettier-ignore
            chain: [
              ...(before === null ? [] : [{ kind: 'multiplier' as const, factor: before }]),
              { kind: 'view_camera', bellows_min_mm: least, bellows_max_mm: most },
              ...(behind === null ? [] : [{ kind: 'multiplier' as const, factor: behind }]),
            ],
            movement_limits: { moves: 'front' },
            focus: { magnification: 0.5 },
          };
          const { rig } = readings(station);
          const camera = new Traced(station);
          // A draw of f is infinity's place for the bare lens, and for the two together.
          const [near, far] = [camera.f + most - f, camera.f + least - f];
          if (near <= camera.f * 1.0001) return;
          const m = near / camera.sharpAhead(near);
          same(rig.largest_magnification, m * camera.behind, 1e-7);
          let nearest = Infinity;
          for (let i = 0; i <= 1500; i++) {
            const v = Math.max(far, camera.f * 1.0000001);
            const at = v + ((near - v) * i) / 1500;
            nearest = Math.min(nearest, at + camera.sharpAhead(at));
          }
          same(rig.closest_focus_m! * 1000, nearest, 1e-4);
          expect(rig.reaches_infinity).toBe(far <= camera.f + 1e-6);
          if (far > camera.f * 1.001) {
            same(rig.farthest_focus_m! * 1000, far + camera.sharpAhead(far), 1e-6);
          }
          // Leaned, the lens stands where it stands: at the end of the draw and a hair before it, not past.
          const set = (bed: number) => readings({ ...station, focus: { image_distance_mm: bed }, movements: { ...station.movements, tilt_deg } }).rig.problems.some(({ severity }) => severity === 'stop'); // prettier-ignore
          expect(set(near - 1e-3)).toBe(false);
          expect(set(near + 1e-2)).toBe(true);
        },
      ),
      { numRuns: runs(120) },
    );
  });

  it('a façade: the rise that brings in its top, and the least distance it fits from', () => {
    const seen = { needed: 0, least: 0 };
    const wall = fc.tuple(worlds, within(2, 60), within(0.1, 0.8), within(-0.6, 0.1), within(0.1, 0.9)); // prettier-ignore
    fc.assert(
      fc.property(wall, ([drawn, near, top, foot, wide]) => {
        const d = (near * drawn.lens.focal_length_mm) / 10;
        const facade = { distance_m: d, top_m: 1.4 + top * d, base_m: 1.4 + foot * d, width_m: wide * d }; // prettier-ignore
        const station: Station = { ...drawn, facade };
        if (!parseStation(station).ok) return;
        const { facade: read } = readings(station);
        const traced = new Traced(station);
        /** How far the corners stand past the frame's edges: top, foot, aside; each ≤ 0 inside. */
        const past = (distance_m: number, rise_mm: number) => {
          const camera = traced.moved({ rise_mm });
          const { x: cx, y: cy } = camera.middle;
          const { w, h, x: sx, y: sy } = camera.kept;
          let [over, under, aside] = [-Infinity, -Infinity, -Infinity];
          for (const y_m of [facade.top_m, facade.base_m]) {
            for (const side of [-0.5, 0.5]) {
              const place = camera.see({ x_m: side * facade.width_m, y_m, z_m: distance_m });
              if (place[2] <= 0) return null;
              const { x, y } = camera.pictured(place);
              if (y_m === facade.top_m) over = Math.max(over, y - cy - sy - h / 2);
              else under = Math.max(under, cy + sy - h / 2 - y);
              aside = Math.max(aside, Math.abs(x - cx - sx) - w / 2);
            }
          }
          return { over, under, aside, covered: camera.covered };
        };
        const needed = read!.rise_needed_mm;
        if (needed !== null && Math.abs(needed) < traced.f) {
          const there = past(d, needed);
          if (there) {
            seen.needed += 1;
            same(there.over / traced.f, 0, 1e-7);
          }
        }
        const least = read!.distance_needed_m;
        if (least === null || least > 1e4) return;
        const { rise_mm: up, fall_mm: down } = readings(station).coverage.limits;
        if (up === null || down === null) return;
        seen.least += 1;
        const serves = (distance: number, slack: number): boolean => {
          for (let i = 0; i <= 150; i++) {
            const it = past(distance, -down + ((up + down) * i) / 150);
            if (it && Math.max(it.over, it.under, it.aside) <= slack) return true;
          }
          return false;
        };
        // Between two of the rises looked at things move by a 150th of the way.
        const coarse = (up + down) / 110;
        expect(serves(least * (1 + 1e-9), coarse)).toBe(true);
        expect(serves(least * 0.98, -1e-9)).toBe(false);
      }),
      { numRuns: runs(120) },
    );
    expect(Math.min(seen.needed, seen.least)).toBeGreaterThan(12);
  });
});
