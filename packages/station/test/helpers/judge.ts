import {
  heldOff,
  layoutOf,
  ordersOf,
  readings,
  reportMosaic,
  type Order,
  type Station,
  type Units,
} from '../../src/index.js';
import { Camera } from './hand.js';
import { exposureFaults, flashFaults } from './judge-light.js';
import { Traced, type V3 } from './traced.js';

/** What a camera that was set by hand gives, against what was promised: by rays alone. */

const RAD = Math.PI / 180;

/** Where the middle of the lens and the corners of the frame look, in the station’s frame. */
function seen(traced: Traced, backAngle = 0): { lens: V3; corners: V3[] } {
  const at = (x: number, y: number, z: number): V3 => traced.see({ x_m: x, y_m: y, z_m: z });
  const o = at(0, 0, 0);
  // The station’s axes in the sensor’s: what a metre along each does.
  const axes = [at(1, 0, 0), at(0, 1, 0), at(0, 0, 1)].map((p): V3 => [
    (p[0] - o[0]) / 1000,
    (p[1] - o[1]) / 1000,
    (p[2] - o[2]) / 1000,
  ]);
  const out = (d: V3): V3 => {
    const size = Math.hypot(...d);
    return axes.map((a) => (a[0] * d[0] + a[1] * d[1] + a[2] * d[2]) / size) as unknown as V3;
  };
  const { x, y } = traced.middle;
  const { w, h } = traced.whole;
  const [c, s] = [Math.cos(backAngle * RAD), Math.sin(backAngle * RAD)];
  const corners = [-1, 1].flatMap((i) =>
    [-1, 1].map((j): V3 => {
      const [dx, dy] = [(i * w) / 2, (j * h) / 2];
      // Clockwise as the picture is seen upright.
      return out([x + dx * c + dy * s, y + dy * c - dx * s, traced.v]);
    }),
  );
  return {
    lens: out([-o[0], -o[1], -o[2]]).map((each) => each * Math.hypot(...o)) as unknown as V3,
    corners,
  };
}

const between = (a: V3, b: V3): number => {
  const cross = [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  return Math.atan2(Math.hypot(...cross), a[0] * b[0] + a[1] * b[1] + a[2] * b[2]) / RAD;
};

/** Obeys orders, one after the other. */
export function obeyed(camera: Camera, orders: readonly Order[]): void {
  for (const { sets } of orders) for (const each of sets) camera.set(each);
}

export interface Judged {
  readonly faults: string[];
  /** What was looked at, so that a test can see that it looked. */
  readonly looked: Set<string>;
}

/** Directions nearer than this are the same, degrees: a tenth of a millimetre on any of the lenses drawn. */
const SAME_DEG = 0.02;

/** What a tenth of a millimetre along a way, and a tenth of a degree of that way, leave over, mm. */
const TENTHS_MM = 0.14;

function frameFaults(
  told: string,
  wanted: Traced,
  wantedTurn: number,
  got: Traced,
  turn: number,
  near = SAME_DEG,
): string[] {
  const [a, b] = [seen(wanted, wantedTurn), seen(got, turn)];
  const off = Math.max(...a.corners.map((corner, i) => between(corner, b.corners[i]!)));
  return off > near ? [`${told}: the frame lies ${off.toFixed(3)}° off`] : [];
}

/** The camera moved along a rail: everything is nearer by as much. */
const onRail = <
  P extends { x_m: number; y_m: number; z_m: number; infinite?: boolean | undefined },
>(
  { railMm, pitch, yaw }: Camera,
  place: P,
): P => {
  if (place.infinite || railMm === 0) return place;
  const [p, w, d] = [pitch * RAD, yaw * RAD, railMm / 1000];
  return {
    ...place,
    x_m: place.x_m - d * Math.cos(p) * Math.sin(w),
    y_m: place.y_m - d * Math.sin(p),
    z_m: place.z_m - d * Math.cos(p) * Math.cos(w),
  };
};

/** Marks that were promised sharp, at the stop that was promised. */
function markFaults(
  camera: Camera,
  station: Station,
  traced: Traced,
  looked: Set<string>,
): string[] {
  const promised = readings(station).marks ?? [];
  return promised.flatMap(({ holds, label }, i) => {
    const mark = station.marks![i]!;
    if (!holds || mark.must !== 'sharp') return [];
    looked.add('mark');
    const blur = traced.blur(traced.see(onRail(camera, mark)));
    return blur > traced.cocMm * 1.004 + 1e-5
      ? [
          `mark ${label || i}: a blur of ${(1000 * blur).toFixed(1)} µm where ${(1000 * traced.cocMm).toFixed(1)} is sharp`,
        ]
      : [];
  });
}

/** Three places of the plane of sharp focus that was promised. */
function planeFaults(station: Station, traced: Traced, looked: Set<string>): string[] {
  const { plane, magnification } = readings(station).focus;
  if (plane.distance_mm === null || !(magnification > 0)) return [];
  const [nx, ny, nz] = plane.normal;
  const { x, y } = traced.middle;
  const places = [
    [x, y],
    [x + 0.3 * traced.whole.w, y],
    [x, y + 0.3 * traced.whole.h],
  ].map(([px, py]): V3 | null => {
    const d = [px! / traced.v, py! / traced.v, 1] as const;
    const t = plane.distance_mm! / (nx * d[0] + ny * d[1] + nz * d[2]);
    return t > 2 * traced.f && t < 1e7 ? [t * d[0], t * d[1], t] : null;
  });
  return places.flatMap((place, i) => {
    if (!place) return [];
    looked.add('plane');
    // A hair of what is read as sharp: the plane is where it was said.
    const blur = traced.blur(place);
    return blur > 0.03 * traced.cocMm + 2e-5
      ? [`plane ${i}: ${(1000 * blur).toFixed(2)} µm off the plane that was promised`]
      : [];
  });
}

const stopFaults = (camera: Camera, station: Station): string[] =>
  Math.abs(2 * Math.log2(camera.iris / station.aperture)) > 0.05
    ? [`the iris stands at ${camera.iris.toFixed(2)}, not at ${station.aperture.toFixed(2)}`]
    : [];

const standFaults = (camera: Camera, { camera: stood, back }: Station): string[] => [
  ...(Math.abs(camera.columnM - stood.height_m) > 1e-6 ? ['its height is another'] : []),
  ...(Math.abs(camera.roll) > 0.051 ? ['it hangs to one side'] : []),
  ...(Math.abs(camera.pitch - stood.pitch_deg) > 0.051 ? ['it is tipped otherwise'] : []),
  ...(Math.abs(camera.yaw - stood.yaw_deg) > 0.051 ? ['it looks another way'] : []),
  ...(camera.upright === (back.orientation === 'portrait') ? [] : ['the back lies the other way']),
  ...(Math.abs(camera.railMm) > 1
    ? [`it stands ${camera.railMm.toFixed(1)} mm off along its rail`]
    : []),
];

/** The lens leans as it was planned. */
const leanFaults = (wanted: Traced, got: Traced): string[] =>
  between(wanted.axis, got.axis) > 0.2 ? ['the lens leans another way'] : [];

/** What a hand holds: the figures that were promised of it. */
function heldFaults(station: Station, traced: Traced, looked: Set<string>): string[] {
  const held = station.held_off!;
  const { planeM } = heldOff(station, held);
  const { lean_deg: lean, turn_deg: turn = 0 } = held;
  const [rho, tau] = [turn * RAD, lean * RAD];
  const axis: V3 = [-Math.sin(tau) * Math.sin(rho), -Math.sin(tau) * Math.cos(rho), Math.cos(tau)];
  const ahead = traced.sharpAhead(traced.v) + traced.v;
  looked.add('held');
  const { lens_register_mm: own, body_register_mm: body } = held;
  const beyond = own === undefined || body === undefined ? 0 : body - own;
  const wanted = traced.f + held.gap_mm + beyond;
  return [
    ...(Math.abs(traced.v - wanted) > 0.06 ? ['the gap is another'] : []),
    ...(between(axis, traced.axis) > 0.1 ? ['the lens is held another way'] : []),
    ...(planeM !== null &&
    Math.abs(ahead / (1000 * planeM) - 1) > 0.05 &&
    Math.abs(1 / ahead - 1e-3 / planeM) > 3e-5
      ? [`sharp ${ahead.toFixed(0)} mm ahead, not ${(1000 * planeM).toFixed(0)}`]
      : []),
  ];
}

/** What a rig cannot focus on is said to be out of its reach. */
const cannot = (planned: Station): string | null =>
  readings(planned).rig.problems.find(({ code }) => code === 'focus_out_of_reach')?.message ?? null;

/** With nothing in front any way is straight ahead. */
const hasScene = ({ facade, site, marks }: Station): boolean =>
  facade !== undefined || site !== undefined || (marks ?? []).length > 0;

export interface Trial {
  readonly units?: Units;
  /** An order that the hand never hears. */
  readonly without?: string;
  /** How an order is heard. */
  readonly heard?: (order: Order, planned: Station) => Order;
  readonly off?: number;
}

/** A station set by a hand that has the orders and nothing else, and what is wrong with the result. */
export function tried(
  planned: Station,
  { units = 'metric', without, heard = (order) => order, off = 1 }: Trial = {},
): Judged {
  const { station, orders, exposure } = ordersOf(planned, units);
  const camera = new Camera(planned, off);
  if (!hasScene(planned)) camera.yaw = 0;
  const looked = new Set<string>();
  const told = orders.filter(({ id }) => id !== without).map((order) => heard(order, planned));
  // Nothing a tape reaches: the camera stands where it was put.
  if (!orders.some(({ id, sets }) => id === 'rail' && sets.length > 0)) camera.railMm = 0;
  obeyed(
    camera,
    told.filter(({ part }) => part !== 'frames'),
  );
  const faults = [...standFaults(camera, station), ...stopFaults(camera, station)];
  const first = planned.held_off ? camera.tracedInHand() : camera.traced();
  const promisedTimes =
    exposure && !exposure.flash ? exposure.brackets_s.filter((s) => s !== null).length : 0;
  // A focus that no ring gives is said to be none.
  const reached = cannot(planned) === null;
  if (!reached) looked.add('cannot be set, and is told so');
  const timeTold = orders.find(({ id }) => id === 'time')?.detail ?? '';
  const exposed = (traced: Traced): string[] =>
    reached && exposure?.problems.every(({ severity }) => severity !== 'stop')
      ? [
          ...exposureFaults(camera, planned, traced, promisedTimes, timeTold, looked),
          ...flashFaults(camera, planned, traced, exposure!, looked),
        ]
      : [];
  if (planned.held_off || !station.mosaic) faults.push(...exposed(first));
  if (planned.held_off) {
    return {
      faults: [
        ...faults,
        ...heldFaults(station, first, looked),
        ...markFaults(camera, station, first, looked),
      ],
      looked,
    };
  }
  if (!station.mosaic) {
    looked.add('frame');
    faults.push(
      ...frameFaults(
        'the picture',
        new Traced({ ...station, mosaic: undefined } as unknown as Station),
        0,
        first,
        0,
      ),
      ...markFaults(camera, station, first, looked),
      ...planeFaults(station, first, looked),
      ...leanFaults(new Traced({ ...station, mosaic: undefined } as unknown as Station), first),
    );
    return { faults, looked };
  }
  const frames = told.filter(({ part }) => part === 'frames');
  faults.push(...framesFaults(camera, planned, station, frames, reached, looked));
  faults.push(...exposed(camera.traced()));
  return { faults, looked };
}

/** A series, frame by frame, as its orders come. */
function framesFaults(
  camera: Camera,
  planned: Station,
  station: Station,
  frames: readonly Order[],
  reached: boolean,
  looked: Set<string>,
): string[] {
  const faults: string[] = [];
  const mosaic = station.mosaic!;
  const layout = layoutOf(station);
  camera.middleYaw = camera.yaw;
  const asked = [...layout.frames.keys(), ...(layout.frames.length > 1 ? [0] : [])];
  if (frames.length !== asked.length)
    faults.push(`${frames.length} frames where ${asked.length} were promised`);
  let lens: V3 | null = null;
  const unsaid = reportMosaic(station, mosaic).problems.every(({ code }) => !SAID.has(code));
  if (!unsaid) looked.add('cannot be set, and is told so');
  frames.forEach((order, i) => {
    obeyed(camera, [order]);
    if (order.frame !== asked[i]) return;
    looked.add('frame of many');
    const laid = layout.frames[order.frame!]!;
    const got = camera.traced();
    const wanted = new Traced(placedAt(station, laid), readings(station).focus.image_distance_mm);
    if (unsaid) faults.push(...leanFaults(wanted, got));
    if (unsaid && reached && Math.abs(got.v - wanted.v) > 0.11)
      faults.push(`frame ${i + 1}: focused ${(got.v - wanted.v).toFixed(2)} mm off`);
    const dots = planned.movement_limits.frame_stops;
    const wheel = mosaic.pattern === 'pinwheel' || (dots && 'turns' in dots && camera.dot >= 0);
    if (wheel) {
      faults.push(...wheelFaults(camera, station, laid.rotationDeg, unsaid && i === 0, looked));
      return;
    }
    if (unsaid && reached)
      faults.push(
        ...frameFaults(
          `frame ${i + 1}`,
          wanted,
          laid.rotationDeg,
          got,
          camera.backAngle,
          Math.max(SAME_DEG, TENTHS_MM / got.v / RAD),
        ),
      );
    if ('body_follows' in mosaic && mosaic.body_follows && mosaic.moves === 'lens') {
      looked.add('body');
      const here = lensIn(camera, got);
      lens ??= here;
      if (apart(here, lens) > 0.25) faults.push(`frame ${i + 1}: the lens did not stay`);
    }
  });
  return faults;
}

/** A turning adapter at its stop, all else where it was put; where the lens then looks is not traced. */
function wheelFaults(
  camera: Camera,
  station: Station,
  rotationDeg: number,
  others: boolean,
  looked: Set<string>,
): string[] {
  looked.add('pinwheel');
  const by: readonly string[] = layoutOf(station).carrier?.fields ?? [];
  const { movements: set } = camera.standing;
  const moved = Object.entries(set).filter(
    ([name, value]) =>
      !by.includes(name) && Math.abs(value - (station.movements[name as 'rise_mm'] ?? 0)) > 0.06,
  );
  const off = Math.abs(((((camera.pinwheel - rotationDeg) % 360) + 540) % 360) - 180);
  return [
    ...(others ? moved.map(([name]) => `${name} is not where it was promised`) : []),
    ...(off > 0.06 ? [`the adapter stands ${off.toFixed(1)}° off`] : []),
  ];
}

const apart = (a: V3, b: V3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Where the lens is in the station’s frame, the body on its plate, mm. */
function lensIn({ pitch, yaw, body }: Camera, got: Traced): V3 {
  const [p, w] = [pitch * RAD, yaw * RAD];
  const right = [Math.cos(w), 0, -Math.sin(w)] as const;
  const up = [-Math.sin(p) * Math.sin(w), Math.cos(p), -Math.sin(p) * Math.cos(w)] as const;
  return seen(got).lens.map(
    (each, k) => each + body.shift * right[k]! + body.rise * up[k]!,
  ) as unknown as V3;
}

/** A layout that the gear cannot be set to is told so, and not promised. */
const SAID: ReadonlySet<string> = new Set([
  'lean_lost',
  'out_of_reach',
  'between_stops',
  'standard_still',
  'focus_lost',
  'no_frames',
]);

/** The station with its back, or its lens, where a frame was promised. */
function placedAt(
  station: Station,
  { set, yawDeg }: ReturnType<typeof layoutOf>['frames'][number],
): Station {
  const { carrier } = layoutOf(station);
  const [rise, shift] = carrier?.fields ?? ['rise_mm', 'shift_mm'];
  const { mosaic: _, crop: _c, ...single } = station;
  return {
    ...single,
    camera: {
      ...station.camera,
      yaw_deg: station.camera.yaw_deg + Number((yawDeg ?? 0).toFixed(1)),
    },
    // As near as its scale is printed.
    movements: {
      ...station.movements,
      [rise]: Number(set.riseMm.toFixed(1)),
      [shift]: Number(set.shiftMm.toFixed(1)),
    },
  } as Station;
}
