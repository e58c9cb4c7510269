import fc from 'fast-check';
import { newStation, parseStation, type Station } from '../../src/index.js';

export function parsed(document: unknown): Station {
  const read = parseStation(document);
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

export const base = (): Station => structuredClone(newStation('check'));

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** Random stations that parse: any format, any lens, leaned and shifted, near and far. */
export const stations = (options: { leanDeg?: number } = {}): fc.Arbitrary<Station> => {
  const leanDeg = options.leanDeg ?? 8;
  return fc
    .record({
      f: number(15, 400),
      angle: number(50, 95),
      growth: number(0, 0.2),
      width: number(0.3, 0.85),
      aspect: number(0.5, 1),
      upright: fc.boolean(),
      rise: number(-0.35, 0.35),
      shift: number(-0.35, 0.35),
      tilt: fc.oneof(fc.constant(0), number(-leanDeg, leanDeg)),
      swing: fc.oneof(fc.constant(0), number(-leanDeg, leanDeg)),
      stop: number(0, 1),
      // In focal lengths; a lens that leans far focuses no nearer than 4 / cos² of the lean.
      near: fc.option(number(leanDeg > 25 ? 20 : 6, 500)),
      range: fc.option(number(0.1, 0.5)),
      radial: fc.option(number(0.1, 0.5)),
      pivot: fc.option(number(-60, 60)),
      moves: fc.constantFrom('front' as const, 'rear' as const),
    })
    .map((r) => {
      const diameter = 2 * r.f * Math.tan((r.angle * Math.PI) / 360);
      const width = (r.width * diameter) / Math.hypot(1, r.aspect);
      const station = base();
      const end = (r.range ?? 0) * diameter;
      return parsed({
        ...station,
        back: {
          width_mm: width,
          height_mm: width * r.aspect,
          orientation: r.upright ? 'portrait' : 'landscape',
        },
        lens: {
          focal_length_mm: r.f,
          f_min: 4,
          f_max: 45,
          circle: [
            { f_number: 4, diameter_mm: diameter },
            { f_number: 22, diameter_mm: diameter * (1 + r.growth) },
          ],
        },
        movement_limits: {
          moves: r.moves,
          ...(r.range === null ? {} : { rise_mm: [-end, end], shift_mm: [-end, end] }),
          ...(r.radial === null ? {} : { radial_shift_mm: r.radial * diameter }),
          ...(r.pivot === null ? {} : { pivot_mm: r.pivot }),
        },
        aperture: 4 * (45 / 4) ** r.stop,
        focus: { distance_m: r.near === null ? null : (r.f * r.near) / 1000 },
        movements: {
          rise_mm: r.rise * width,
          shift_mm: r.shift * width,
          tilt_deg: r.tilt,
          swing_deg: r.swing,
        },
      });
    });
};
