import fc from 'fast-check';
import { Matrix4, Object3D, Plane, Ray, Vector3 } from 'three';
import { frameCovered, imageDepthMm, project } from '@gangway/optics';
import {
  CONTROLS,
  evaluate,
  holdInvariants,
  scalesOf,
  stateOf,
  standingOf,
  lastAllowed,
  type Station,
} from '../src/index.js';
import { fromLensCentre } from '../src/optical/places.js';
import { setupOf } from '../src/optical/setup.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs, seen as often } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

beforeAll(holdInvariants);

describe('report', () => {
  it('holds only what JSON can say, for any station', () => {
    fc.assert(
      fc.property(stations({ leanDeg: 25 }), (station) => {
        const report = evaluate(station);
        expect(JSON.parse(JSON.stringify(report))).toEqual(report);
      }),
      { numRuns: runs(500) },
    );
  });

  it('a limit, once set, is covered; a little more is not', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { limits, limited_by: by } = evaluate(station).coverage;
        const at = (rise_mm: number): boolean => {
          const s = setupOf({ ...station, movements: { ...station.movements, rise_mm } });
          return frameCovered(s.cone, s.frame);
        };
        if (limits.rise_mm !== null) {
          expect(at(limits.rise_mm)).toBe(true);
          if (by.rise === 'circle') expect(at(limits.rise_mm + 0.01)).toBe(false);
        }
        if (limits.fall_mm !== null && by.fall === 'circle') {
          expect(at(-limits.fall_mm)).toBe(true);
          expect(at(-limits.fall_mm - 0.01)).toBe(false);
        }
      }),
      { numRuns: runs(500) },
    );
  });

  it('a multiplier gives what the bare lens gives before a back 1/M the size', () => {
    fc.assert(
      fc.property(stations(), number(0.6, 2), (station, factor) => {
        const { back } = station;
        // The smaller back has to be one too.
        fc.pre(back.height_mm >= factor);
        const multiplied = parsed({ ...station, chain: [{ kind: 'multiplier', factor }] });
        const small = parsed({
          ...station,
          back: {
            ...back,
            width_mm: back.width_mm / factor,
            height_mm: back.height_mm / factor,
          },
        });
        const [a, b] = [evaluate(multiplied), evaluate(small)];
        expect(a.coverage.limits).toEqual(b.coverage.limits);
        expect(a.coverage.covered).toBe(b.coverage.covered);
        expect(a.field).toEqual(b.field);
        expect(a.perspective).toEqual(b.perspective);
        expect(a.focus.image_distance_mm).toBe(b.focus.image_distance_mm);
        expect(a.focus.near_m).toBeCloseTo(b.focus.near_m!, 9);
        expect(a.optics.focal_length_mm).toBe(b.optics.focal_length_mm * factor);
        expect(a.optics.circle_diameter_mm).toBe(b.optics.circle_diameter_mm * factor);
      }),
      { numRuns: runs(300) },
    );
  });

  it('a converter that clips lets no more than its circle through', () => {
    const station = {
      ...base(),
      chain: [{ kind: 'multiplier' as const, factor: 1.4, circle_limit_mm: 60 }],
    };
    expect(evaluate(parsed(station)).optics.circle_diameter_mm).toBeCloseTo(60, 9);
  });
});

/**
 * Bed, back and lens as a general 3-D library holds them, each part put on the one that carries it;
 * its z looks backwards where ours looks ahead.
 */
function modelOf({ camera, movements: set, movement_limits: limits }: Station, bedMm: number) {
  const turn = (degrees: number): number => (degrees * Math.PI) / 180;
  const on = (parent: Object3D | null, x: number, y: number, z: number): Object3D => {
    const part = new Object3D();
    part.position.set(x, y, z);
    parent?.add(part);
    return part;
  };
  const bed = on(null, 0, camera.height_m * 1000, 0);
  bed.rotation.set(turn(camera.pitch_deg), -turn(camera.yaw_deg), 0, 'YXZ');
  const front = limits.moves === 'front';
  const [rise, shift] = [set.rise_mm, set.shift_mm];
  const second = [set.rear_shift_mm ?? 0, set.rear_rise_mm ?? 0] as const;
  const [bx, by] = front ? second : [shift, rise];
  // The back goes down for a rise; its tilt turns it about a line below its middle.
  const base = limits.rear_pivot_mm ?? 0;
  const rear = turn(set.rear_tilt_deg ?? 0);
  const hinge = on(bed, -bx, -by - base, 0);
  hinge.rotation.set(rear, 0, 0);
  const middle = on(hinge, 0, base, 0);
  // Swung about the bed's upright, whichever way it is tilted.
  const back = on(bed, 0, 0, 0);
  back.rotation.set(rear, -turn(set.rear_swing_deg ?? 0), 0, 'YXZ');
  const pivot = limits.pivot_mm ?? 0;
  const axis = on(bed, front ? shift : 0, front ? rise : 0, pivot - bedMm);
  axis.rotation.set(-turn(set.tilt_deg), -turn(set.swing_deg), 0, 'YXZ');
  const lens = on(axis, 0, 0, -pivot);
  bed.updateMatrixWorld(true);
  back.position.copy(bed.worldToLocal(middle.getWorldPosition(new Vector3())));
  bed.updateMatrixWorld(true);
  return { sensor: back, lens: lens.getWorldPosition(new Vector3()) };
}

describe('projection on a tilted sensor against a general 3-D library (three)', () => {
  it('ray and plane, and an off-centre camera, agree to 1e-6, however the standards stand', () => {
    const angle = number(-20, 20);
    fc.assert(
      fc.property(
        stations(),
        fc.tuple(angle, angle, angle, angle),
        fc.tuple(number(-3, 3), number(-3, 3), number(4, 60)),
        fc.tuple(number(-20, 40), number(-30, 60), number(-8, 8), number(-8, 8)),
        (made, [pitch, yaw, rearTilt, rearSwing], [x, y, z], [pivot, base, rise, shift]) => {
          const { moves } = made.movement_limits;
          const station: Station = {
            ...made,
            movement_limits: { ...made.movement_limits, pivot_mm: pivot, rear_pivot_mm: base },
            camera: { height_m: 1.6, pitch_deg: pitch, yaw_deg: yaw },
            movements: {
              ...made.movements,
              rear_tilt_deg: rearTilt,
              rear_swing_deg: rearSwing,
              ...(moves === 'front' ? { rear_rise_mm: rise, rear_shift_mm: shift } : {}),
            },
          };
          const s = setupOf(station);
          fc.pre(s.axis[2] > 0.5);
          const point = fromLensCentre(s)(x, y, z);
          fc.pre(point[2] > 500);
          const seen = project(point, s.imageDistanceMm);

          const { sensor, lens } = modelOf(station, s.bedMm);
          const own = sensor.worldToLocal(lens.clone());
          const size = s.imageDistanceMm;
          expect(Math.abs(-own.z - size) / size).toBeLessThan(1e-9);
          expect(Math.abs(own.x - s.whole.shiftMm) / size).toBeLessThan(1e-9);
          expect(Math.abs(own.y - s.whole.riseMm) / size).toBeLessThan(1e-9);
          const scene = new Vector3(x * 1000, y * 1000, -z * 1000);
          // Back through the lens onto the sensor's plane; upside down there, hence the signs.
          const normal = new Vector3(0, 0, 1).transformDirection(sensor.matrixWorld);
          const plane = new Plane().setFromNormalAndCoplanarPoint(
            normal,
            sensor.localToWorld(new Vector3(0, 0, 0)),
          );
          const hit = new Ray(lens, lens.clone().sub(scene).normalize()).intersectPlane(
            plane,
            new Vector3(),
          )!;
          const local = sensor.worldToLocal(hit);
          expect(Math.abs(own.x - local.x - seen.x) / size).toBeLessThan(1e-6);
          expect(Math.abs(own.y - local.y - seen.y) / size).toBeLessThan(1e-6);

          const { widthMm: w, heightMm: h } = s.whole;
          const projection = new Matrix4().makePerspective(
            own.x - w / 2,
            own.x + w / 2,
            own.y + h / 2,
            own.y - h / 2,
            size,
            1e6,
          );
          const view = new Matrix4().copy(sensor.matrixWorld).setPosition(lens).invert();
          const ndc = scene.clone().applyMatrix4(view).applyMatrix4(projection);
          expect(Math.abs(ndc.x - (2 * (seen.x - s.whole.shiftMm)) / w)).toBeLessThan(1e-6);
          expect(Math.abs(ndc.y - (2 * (seen.y - s.whole.riseMm)) / h)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: runs(500) },
    );
  });

  it('verticals pitched up meet v / tan p above: convergence against projected plumb lines', () => {
    const station = parsed({ ...base(), camera: { height_m: 1.6, pitch_deg: 12, yaw_deg: 0 } });
    const s = setupOf(station);
    const place = fromLensCentre(s);
    const lineAt = (x: number): [number, number] => {
      const [a, b] = [place(x, 1, 8), place(x, 5, 8)].map((p) => project(p, s.imageDistanceMm));
      return [b!.x - a!.x, b!.y - a!.y];
    };
    const { convergence_deg } = evaluate(station).perspective;
    expect(convergence_deg).toBeGreaterThan(0);
    // A plumb line on the left leans right as it rises.
    expect(lineAt(-3)[0]).toBeGreaterThan(0);
    // Lines through the edges' middles: found by where a plumb line crosses the frame's middle height.
    const vanish = s.imageDistanceMm / Math.tan((12 * Math.PI) / 180);
    const angle = 2 * Math.atan(18 / (vanish - 0));
    expect(convergence_deg).toBeCloseTo((angle * 180) / Math.PI, 9);
  });
});

describe('marks', () => {
  it('a mark on the plane of sharp focus has no blur and holds at any stop', () => {
    const start = parsed({ ...base(), focus: { distance_m: 4 } });
    const station = parsed({
      ...start,
      marks: [
        { label: 'wall', x_m: 0.3, y_m: 1.9, z_m: 4, must: 'sharp' },
        { label: 'behind', x_m: 0, y_m: 1.6, z_m: -2, must: 'sharp' },
        { label: 'far right', x_m: 50, y_m: 1.6, z_m: 4, must: 'soft' },
      ],
    });
    const [wall, behind, far] = evaluate(station).marks!;
    expect(wall!.blur_um).toBeCloseTo(0, 6);
    expect(wall).toMatchObject({ holds: true, in_frame: true });
    expect(behind).toMatchObject({ blur_um: null, holds: false, in_frame: false });
    expect(far).toMatchObject({ in_frame: false, holds: false });
    const s = setupOf(station);
    expect(imageDepthMm(24, s.axis, fromLensCentre(s)(0.3, 1.9, 4))).toBeCloseTo(
      s.imageDistanceMm,
      9,
    );
  });
});

describe('scales', () => {
  it('every stretch stands as the station would stand there', () => {
    let looked = 0;
    fc.assert(
      fc.property(stations(), number(0.05, 0.95), (station, share) => {
        for (const scale of Object.values(scalesOf(station))) {
          for (const { from, to, standing, beyond } of scale.segments) {
            if (beyond || to === Infinity || to - from < 1e-6) continue;
            const there = CONTROLS[scale.id].write(station, from + share * (to - from));
            const mechanical = stateOf(there) === 'beyond';
            // Sampling may miss a stretch shorter than a 64th of the scale.
            if (!mechanical && to - from > (scale.lastFinite - scale.domain[0]) / 32) {
              if (scale.id === 'rise' || scale.id === 'shift') {
                looked += 1;
                expect(standingOf(stateOf(there))).toBe(standing);
              }
            }
          }
          const allowed = lastAllowed(scale);
          if (allowed !== null && Number.isFinite(allowed)) {
            const there = CONTROLS[scale.id].write(station, allowed);
            // Writing rounds to thousandths.
            expect(evaluate(there).coverage.margin_mm ?? 0).toBeGreaterThan(-0.05);
          }
        }
      }),
      { numRuns: runs(200) },
    );
    expect(looked).toBeGreaterThan(often(400));
  });
});
