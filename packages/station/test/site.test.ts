import fc from 'fast-check';
import { Matrix4, Vector3 } from 'three';
import {
  balls,
  elevationDrawing,
  endWallAsFacade,
  finderOf,
  inSoftware,
  levelDistanceM,
  onPlaneAhead,
  planDrawing,
  raised,
  sceneOf,
  startBox,
  startFacade,
  startRoom,
  stepped,
  stretchedThings,
  turnedIn,
  withBox,
  withFacade,
  withMeasured,
  withSite,
  type Station,
} from '../src/index.js';
import { evaluatePitch } from '../src/facade/correction.js';
import { setupOf } from '../src/optical/setup.js';
import { base, parsed } from './helpers/rigs.js';
import { runs } from '../../../scripts/lib/runs.mjs';

const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });

const site = (change: Partial<Station> = {}): Station =>
  parsed({
    ...base(),
    facade: { distance_m: 20, top_m: 12, width_m: 14, base_m: 0 },
    site: {
      room: { length_m: 30, width_m: 16, ceiling_m: 14, behind_m: 2, left_m: 8, coffers: [3, 4] },
      boxes: [{ name: 'Chest', x_m: 1, z_m: 6, width_m: 1, depth_m: 1, height_m: 1 }],
      levels: [{ height_m: 3 }],
    },
    marks: [{ label: 'Door', x_m: 0, y_m: 1.6, z_m: 20, must: 'sharp' }],
    ...change,
  });

describe('the finder', () => {
  it('pictures a mark where a general library’s view matrix puts it', () => {
    fc.assert(
      fc.property(
        number(-20, 20),
        number(-40, 40),
        number(-4, 4),
        number(0, 6),
        number(4, 40),
        number(-8, 8),
        (pitch, yaw, x, y, z, rise) => {
          const station = site({
            camera: { height_m: 1.6, pitch_deg: pitch, yaw_deg: yaw },
            movement_limits: { moves: 'rear' },
            movements: { rise_mm: rise, shift_mm: 0, tilt_deg: 0, swing_deg: 0 },
            marks: [{ label: 'm', x_m: x, y_m: y, z_m: z, must: 'sharp' }],
          });
          const v = setupOf(station).imageDistanceMm;
          // The library looks along −z, so the scene is mirrored front to back.
          const turn = new Matrix4()
            .makeRotationY((-yaw * Math.PI) / 180)
            .multiply(new Matrix4().makeRotationX((pitch * Math.PI) / 180));
          const seen = new Vector3(x * 1000, (y - 1.6) * 1000, -z * 1000).applyMatrix4(
            turn.clone().invert(),
          );
          const ahead = -seen.z - v;
          const found = finderOf(station).marks[0];
          if (ahead <= 0) expect(found).toBeUndefined();
          else {
            expect(found!.at.x).toBeCloseTo((v * seen.x) / ahead, 6);
            expect(found!.at.y).toBeCloseTo((v * seen.y) / ahead, 6);
          }
        },
      ),
      { numRuns: runs(200) },
    );
  });

  it('shows level verticals as parallel, pitched ones meeting v/tan p above', () => {
    const upright = (station: Station) =>
      finderOf(station).vanishing.find(({ of }) => of === 'verticals')!.at;
    expect(upright(site())).toBeNull();
    const pitched = site({ camera: { height_m: 1.6, pitch_deg: 10, yaw_deg: 0 } });
    const v = setupOf(pitched).imageDistanceMm;
    expect(upright(pitched)!.y).toBeCloseTo(v / Math.tan((10 * Math.PI) / 180), 6);
  });

  it('holds finite figures only, whatever lies beside or behind the camera', () => {
    fc.assert(
      fc.property(number(-179, 179), number(-79, 79), (yaw, pitch) => {
        const { shapes } = finderOf(
          site({ camera: { height_m: 1.6, pitch_deg: pitch, yaw_deg: yaw } }),
        );
        for (const { points } of shapes) expect(points.every(Number.isFinite)).toBe(true);
      }),
      { numRuns: runs(150) },
    );
  });

  it('a place of the picture goes back to the plane it came from', () => {
    fc.assert(
      fc.property(
        number(-6, 6),
        number(0, 10),
        number(-8, 8),
        number(-15, 15),
        (x, y, rise, yaw) => {
          const station = site({
            camera: { height_m: 1.6, pitch_deg: 3, yaw_deg: yaw },
            movements: { rise_mm: rise, shift_mm: 2, tilt_deg: 0, swing_deg: 0 },
            marks: [{ label: 'm', x_m: x, y_m: y, z_m: 12, must: 'soft' }],
          });
          const back = onPlaneAhead(station, finderOf(station).marks[0]!.at, 12)!;
          expect(back.x).toBeCloseTo(x, 6);
          expect(back.y).toBeCloseTo(y, 6);
        },
      ),
      { numRuns: runs(100) },
    );
  });
});

describe('the scene', () => {
  it('shows of a box the sides that face the camera', () => {
    const { site: of } = parsed({
      ...base(),
      site: { boxes: [{ name: 'b', x_m: 0, z_m: 5, width_m: 1, depth_m: 1, height_m: 1 }] },
    });
    const faces = (height_m: number) =>
      sceneOf({ site: of, camera: { height_m } }).filter(
        ({ filled, places }) => filled && places.length === 4,
      );
    // Straight ahead and below the eye: the front and the top; at its height only the front.
    expect(faces(1.6)).toHaveLength(2);
    expect(faces(0.5)).toHaveLength(1);
    const turned = parsed({
      ...base(),
      site: {
        boxes: [{ name: 'b', x_m: 0, z_m: 5, width_m: 1, depth_m: 1, height_m: 1, turn_deg: 45 }],
      },
    });
    expect(
      sceneOf({ site: turned.site, camera: { height_m: 0.5 } }).filter(({ filled }) => filled),
    ).toHaveLength(2);
  });

  it('where nothing stands has a ground and a backdrop, and marks stand on it', () => {
    const bare = finderOf(base());
    expect(bare.empty).toBe(true);
    // Never an empty white picture: a backdrop, and ground before it.
    expect(bare.shapes.some(({ filled }) => filled)).toBe(true);
    expect(bare.shapes.filter(({ look }) => look === 'ground').length).toBeGreaterThan(5);
    const camera = { height_m: 1.6 };
    const marks = [{ label: 'a', x_m: 0, y_m: 1.2, z_m: 2, must: 'sharp' as const }];
    const higher = [...marks, { ...marks[0]!, y_m: 1.4 }];
    const drops = (of: typeof marks) =>
      sceneOf({ camera, marks: of }).filter(({ look }) => look === 'detail');
    // The lowest lies on the table; the other stands above it.
    expect(drops(marks)).toHaveLength(0);
    expect(drops(higher)).toHaveLength(1);
  });
});

describe('plan and elevation', () => {
  it('the frame cuts the façade where the finder’s frame does', () => {
    const station = site({
      movements: { rise_mm: 5, shift_mm: -3, tilt_deg: 0, swing_deg: 0 },
      movement_limits: { moves: 'rear' },
    });
    const { frame } = setupOf(station);
    const at = (x: number, y: number) =>
      onPlaneAhead(station, { x: frame.shiftMm + x, y: frame.riseMm + y }, 20)!;
    const plan = planDrawing(station);
    // Seen from the sensor mark instead of the lens: apart by the lens's own length at most.
    expect(plan.seen![0].x).toBeCloseTo(at(-18, 0).x, 1);
    expect(plan.seen![1].x).toBeCloseTo(at(18, 0).x, 1);
    const side = elevationDrawing(station);
    expect(side.seen![0]).toBeCloseTo(at(0, -12).y, 1);
    expect(side.seen![1]).toBeCloseTo(at(0, 12).y, 1);
  });

  it('hold everything that stands in the site', () => {
    const { bounds } = planDrawing(site());
    expect(bounds.top).toBeGreaterThan(28);
    expect(bounds.left).toBeLessThan(-8);
    expect(elevationDrawing(site()).bounds.top).toBeGreaterThan(14);
  });
});

describe('moving the camera', () => {
  it('taken back, everything stands that much further off; there is a wall behind', () => {
    const back = stepped(site(), 1)!;
    expect(back.facade!.distance_m).toBe(21);
    expect(back.site!.boxes![0]!.z_m).toBe(7);
    expect(back.marks![0]!.z_m).toBe(21);
    expect(back.site!.room!.behind_m).toBe(1);
    expect(stepped(site(), 1.8)).toBeNull();
    expect(stepped(site(), -20)).toBeNull();
  });

  it('raised as far as the ceiling lets it, lowered to the ground', () => {
    expect(raised(site(), 2)!.camera.height_m).toBeCloseTo(3.6, 9);
    expect(raised(site(), 13)).toBeNull();
    expect(raised(site(), -1.5)).toBeNull();
  });
});

describe('distances as they are read', () => {
  it('along the slope is the long side of a triangle (worked here: 5, 4, 3)', () => {
    const read = { reading_m: 5, slope: true, aimed_m: 4.5, held_m: 1.5, from: 'sensor' } as const;
    expect(levelDistanceM(read, 1.6)).toBeCloseTo(4, 9);
    // Without a height of its own the reading was taken at the camera.
    expect(levelDistanceM({ ...read, held_m: undefined }, 1.5)).toBeCloseTo(4, 9);
  });

  it('from the tripod loses what the sensor stands ahead of it', () => {
    const read = { reading_m: 5, slope: false, from: 'tripod', sensor_ahead_m: 0.08 } as const;
    expect(levelDistanceM(read, 1.6)).toBeCloseTo(4.92, 9);
  });

  it('a reading that cannot be says so', () => {
    const short = { reading_m: 2, slope: true, aimed_m: 9, held_m: 1.5, from: 'sensor' } as const;
    expect(levelDistanceM(short, 1.6)).toMatch(/shorter than the height it spans, 7\.50 m/);
    const close = { reading_m: 0.05, slope: false, from: 'tripod', sensor_ahead_m: 0.1 } as const;
    expect(levelDistanceM(close, 1.6)).toMatch(/in the wall/);
    expect(withMeasured(site(), short)).toMatch(/shorter/);
  });

  it('is kept beside the distance until that is changed by hand', () => {
    const read = { reading_m: 5, slope: false, from: 'sensor' } as const;
    const set = withMeasured(site(), read) as Station;
    expect(set.facade).toMatchObject({ distance_m: 5, measured: read });
    expect(withFacade(set, { top_m: 9 }).facade!.measured).toEqual(read);
    expect(withFacade(set, { distance_m: 6 }).facade!.measured).toBeUndefined();
  });
});

describe('beginnings', () => {
  it('what is added by a press can be: it parses, for short and long lenses alike', () => {
    for (const focal_length_mm of [8, 24, 300, 1200]) {
      const station = {
        ...base(),
        lens: { ...base().lens, focal_length_mm },
        focus: { distance_m: null },
      };
      parsed({ ...station, facade: startFacade(station) });
      const inside = withSite(station, { room: startRoom(station) });
      let many = parsed(inside);
      for (let i = 0; i < 7; i++) {
        many = parsed(withSite(many, { boxes: [...(many.site?.boxes ?? []), startBox(many)] }));
      }
      expect(parsed(withBox(many, 2, { name: 'Third' })).site!.boxes![2]!.name).toBe('Third');
      expect(parsed(endWallAsFacade(inside)).facade!.width_m).toBe(7);
    }
  });
});

describe('turned in', () => {
  it('the balls of the near side become rounder, those of the far side less so', () => {
    const station = site({ turn_in: { yaw_deg: -8, keep: 'left' } });
    const before = balls(station, station);
    const after = balls(station, turnedIn(station));
    expect(after[0]!.stretch).toBeLessThan(before[0]!.stretch);
    expect(after[4]!.stretch).toBeGreaterThan(before[4]!.stretch);
    expect(before[2]!.outline.length).toBeGreaterThan(20);
  });

  it('lists what lies in the frame by how it is drawn out', () => {
    const station = site({
      site: {
        boxes: [
          { name: 'Near the edge', x_m: -3.6, z_m: 6, width_m: 0.5, depth_m: 0.5, height_m: 2 },
          { name: 'Middle', x_m: 0, z_m: 6, width_m: 0.5, depth_m: 0.5, height_m: 2 },
          { name: 'Out of sight', x_m: -9, z_m: 6, width_m: 0.5, depth_m: 0.5, height_m: 2 },
        ],
      },
      marks: [],
    });
    expect(stretchedThings(station).map(({ name }) => name)).toEqual(['Near the edge', 'Middle']);
  });
});

describe('correcting in software', () => {
  it('with no rise it is the same picture', () => {
    const same = inSoftware(site())!;
    expect(same.pitchDeg).toBe(0);
    expect(same.pixelShare).toBeCloseTo(1, 9);
    expect(same.fieldLost).toBeCloseTo(0, 9);
  });

  it('more rise costs more: pixels fall, the top is drawn out (worked here at 12 mm)', () => {
    const at = (rise_mm: number) =>
      inSoftware(site({ movements: { rise_mm, shift_mm: 0, tilt_deg: 0, swing_deg: 0 } }))!;
    const shares = [0, 3, 6, 9, 12].map((rise) => at(rise).pixelShare);
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
    const v = setupOf(site()).imageDistanceMm;
    const found = at(12);
    const pitch = Math.atan(12 / v);
    expect(found.pitchDeg).toBeCloseTo((pitch * 180) / Math.PI, 9);
    // The wanted top, 24 mm up, is seen this far above the pitched axis.
    const y = v * Math.tan(Math.atan(24 / v) - pitch);
    expect(found.top.across).toBeCloseTo(v / (v * Math.cos(pitch) - y * Math.sin(pitch)), 9);
    expect(found.top.up).toBeCloseTo(found.top.across ** 2, 9);
  });

  it('is not asked of a camera that points up already', () => {
    expect(inSoftware(site({ camera: { height_m: 1.6, pitch_deg: 4, yaw_deg: 0 } }))).toBeNull();
  });

  it('the price of a pitch: nothing when level, more with more', () => {
    const at = (pitch_deg: number) =>
      evaluatePitch(site({ camera: { height_m: 1.6, pitch_deg, yaw_deg: 0 } }));
    expect(at(0)).toMatchObject({ stretchAtTop: 1, keptShare: 1 });
    expect(at(10).stretchAtTop).toBeGreaterThan(at(5).stretchAtTop);
    expect(at(10).keptShare).toBeLessThan(at(5).keptShare);
    expect(at(5).convergenceDeg).toBeGreaterThan(0);
    expect(at(-10).stretchAtTop).toBeCloseTo(at(10).stretchAtTop, 9);
  });
});
