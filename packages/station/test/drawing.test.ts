import fc from 'fast-check';
import clipping from 'polygon-clipping';
import { project } from '@gangway/optics';
import { fromLensCentre } from '../src/optical/places.js';
import { setupOf } from '../src/optical/setup.js';
import {
  coverDrawing,
  evaluate,
  type CoverDrawing,
  type Ellipse,
  type Point,
} from '../src/index.js';
import { base, parsed, stations } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

/** How far out a place lies on an ellipse's own scale: 1 is on it. */
function share(ellipse: Ellipse, { x, y }: Point): number {
  const turn = (ellipse.turnDeg * Math.PI) / 180;
  const [dx, dy] = [x - ellipse.centre.x, y - ellipse.centre.y];
  const along = dx * Math.cos(turn) + dy * Math.sin(turn);
  const across = -dx * Math.sin(turn) + dy * Math.cos(turn);
  return Math.hypot(along / ellipse.semiMajorMm, across / ellipse.semiMinorMm);
}

const area = (polygon: readonly Point[]): number =>
  Math.abs(
    polygon.reduce((sum, a, i) => {
      const b = polygon[(i + 1) % polygon.length]!;
      return sum + a.x * b.y - b.x * a.y;
    }, 0),
  ) / 2;

describe('what the Cover drawing shows', () => {
  it('the margin line runs from the worst corner to the circle, as long as the report says', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { margin, circle } = coverDrawing(station);
        const { margin_mm: reported } = evaluate(station).coverage;
        fc.pre(margin !== null && circle !== null && reported !== null);
        const { corner, edge } = margin!;
        expect(share(circle!, edge)).toBeCloseTo(1, 6);
        expect(Math.hypot(edge.x - corner.x, edge.y - corner.y)).toBeCloseTo(
          Math.abs(reported!),
          6,
        );
      }),
      { numRuns: runs(400) },
    );
  });

  it('corners stand inside, between core and circle, or outside, as they are drawn', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const { corners, circle, core } = coverDrawing(station);
        for (const { at, standing, marginMm } of corners) {
          const [outer, inner] = [share(circle!, at), share(core!, at)];
          if (Math.abs(outer - 1) < 1e-6 || Math.abs(inner - 1) < 1e-6) continue;
          expect(standing).toBe(outer > 1 ? 'outside' : inner > 1 ? 'costs' : 'within');
          expect(marginMm! < 0).toBe(standing === 'outside');
        }
      }),
      { numRuns: runs(400) },
    );
  });

  it('the least of the corners’ margins is the report’s', () => {
    fc.assert(
      fc.property(stations(), (station) => {
        const least = Math.min(
          ...coverDrawing(station).corners.map((each) => each.marginMm ?? 1e9),
        );
        const { margin_mm: margin } = evaluate(station).coverage;
        expect(least).toBeCloseTo(margin ?? 1e9, 6);
      }),
      { numRuns: runs(200) },
    );
  });

  it('the envelope untilted is four circles in common (polygon-clipping)', () => {
    const drawing = coverDrawing(parsed({ ...base(), movement_limits: { moves: 'front' } }));
    const radius = drawing.circle!.semiMajorMm;
    const disc = (cx: number, cy: number): [number, number][] =>
      Array.from({ length: 2000 }, (_, i) => {
        const angle = (2 * Math.PI * i) / 2000;
        return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
      });
    const [first, ...rest] = [disc(18, 12), disc(-18, 12), disc(18, -12), disc(-18, -12)];
    const common = clipping.intersection([first!], ...rest.map((each) => [each]));
    const ring = common[0]![0]!.map(([x, y]) => ({ x, y }));
    // The envelope's vertices lie on the true edge: it is a little smaller, never larger.
    const ratio = area(drawing.envelope) / area(ring);
    expect(ratio).toBeGreaterThan(0.995);
    expect(ratio).toBeLessThan(1.0001);
  });

  it('is to scale on the real back behind a multiplier', () => {
    const scaled = (d: CoverDrawing, k: number): number[] => [
      d.circle!.semiMajorMm * k,
      d.frame.centre.y * k,
      Math.sqrt(area(d.envelope)) * k,
    ];
    const bare = parsed({ ...base(), movements: { ...base().movements, rise_mm: 4 } });
    const small = {
      ...bare,
      back: {
        ...bare.back,
        width_mm: bare.back.width_mm / 1.4,
        height_mm: bare.back.height_mm / 1.4,
      },
    };
    const multiplied = parsed({ ...bare, chain: [{ kind: 'multiplier', factor: 1.4 }] });
    const got = scaled(coverDrawing(multiplied), 1);
    scaled(coverDrawing(small), 1.4).forEach((value, i) => expect(got[i]).toBeCloseTo(value, 6));
    expect(coverDrawing(multiplied).frame.widthMm).toBe(36);
  });

  it('names the whole stops on either side when their circles differ', () => {
    const stops = (aperture: number): number[] =>
      coverDrawing({ ...base(), aperture }).neighbours.map((each) => each.fNumber);
    expect(stops(8)).toEqual([5.6, 11]);
    // From f/11 on the circle no longer grows, so the next stop has none of its own.
    expect(stops(11)).toEqual([8]);
    expect(stops(3.5)).toEqual([4]);
  });

  it('the level line leaves the middle by v tan p, down when the camera looks up', () => {
    const pitched = parsed({ ...base(), camera: { height_m: 1.6, pitch_deg: 10, yaw_deg: 0 } });
    const { image_distance_mm: v } = evaluate(pitched).focus;
    expect(coverDrawing(pitched).levelLine!.atMm).toBeCloseTo(-v * Math.tan(Math.PI / 18), 9);
    expect(coverDrawing(base()).levelLine).toEqual({ atMm: 0, slope: 0 });
    // With the back swung it is where two level things far off are pictured.
    const swung = {
      ...pitched,
      movements: { ...pitched.movements, rear_tilt_deg: 4, rear_swing_deg: 12 },
    };
    const s = setupOf(swung);
    const { atMm, slope } = coverDrawing(swung).levelLine!;
    for (const x of [-3e8, 1e8, 5e8]) {
      const seen = project(fromLensCentre(s)(x, 1.6, 1e9), s.imageDistanceMm);
      expect(seen.y).toBeCloseTo(atMm + slope * seen.x, 5);
    }
  });

  it('a cone that no longer closes has no ellipse, and still a verdict', () => {
    const leaned = parsed({
      ...base(),
      movement_limits: { moves: 'front' },
      movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 50, swing_deg: 0 },
    });
    const drawing = coverDrawing(leaned);
    expect(drawing.circle).toBeNull();
    expect(drawing.open!.circle.length).toBeGreaterThan(100);
    expect(coverDrawing(base()).open).toBeNull();
    for (const { x, y } of drawing.open!.circle) expect(Number.isFinite(x + y)).toBe(true);
  });
});
