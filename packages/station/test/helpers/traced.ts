import type { Station } from '../../src/index.js';

/**
 * A camera by tracing rays, for checking against: lens and back are turned and moved as a hand does
 * it, and a ray that meets the lens plane at h leaves with its slope to the axis less by h/f. None of
 * the closed forms is used, and nothing of the program but the type of its document.
 */

export type V3 = readonly [number, number, number];

const RAD = Math.PI / 180;
export const inner = (a: V3, b: V3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const plus = (a: V3, b: V3, k = 1): V3 => [a[0] + k * b[0], a[1] + k * b[1], a[2] + k * b[2]];
const times = (a: V3, k: number): V3 => [a[0] * k, a[1] * k, a[2] * k];

/** Turns a vector about x (its z towards y) and then about y (its z towards x). */
const turned = ([x, y, z]: V3, upDeg: number, rightDeg: number): V3 => {
  const [u, r] = [upDeg * RAD, rightDeg * RAD];
  const [y1, z1] = [y * Math.cos(u) + z * Math.sin(u), z * Math.cos(u) - y * Math.sin(u)];
  return [x * Math.cos(r) + z1 * Math.sin(r), y1, z1 * Math.cos(r) - x * Math.sin(r)];
};

const axesTurned = (upDeg: number, rightDeg: number): readonly [V3, V3, V3] => [
  turned([1, 0, 0], upDeg, rightDeg),
  turned([0, 1, 0], upDeg, rightDeg),
  turned([0, 0, 1], upDeg, rightDeg),
];

const into = ([x, y, z]: readonly [V3, V3, V3], v: V3): V3 => [
  inner(v, x),
  inner(v, y),
  inner(v, z),
];

/** Where the root of a rising or falling function lies. */
export function root(of: (t: number) => number, low: number, high: number): number {
  let [a, b] = [low, high];
  const sign = Math.sign(of(a));
  for (let i = 0; i < 200 && b - a > 1e-15 * (Math.abs(a) + Math.abs(b)); i++) {
    const middle = (a + b) / 2;
    if (Math.sign(of(middle)) === sign) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}

/** Diameter at a stop: by so many stops past an entry, the same share of the way to the next. */
function circleAt(table: Station['lens']['circle'], fNumber: number): number {
  const next = table.findIndex((entry) => entry.f_number >= fNumber);
  if (next <= 0) return table.at(next)!.diameter_mm;
  const [a, b] = [table[next - 1]!, table[next]!];
  const share = Math.log(fNumber / a.f_number) / Math.log(b.f_number / a.f_number);
  return (1 - share) * a.diameter_mm + share * b.diameter_mm;
}

/** What is before and behind the movements, from the lens on. */
function multipliersOf({ chain }: Station): { before: number; behind: number; limitMm: number } {
  let carrier = -1;
  chain.forEach((part, i) => {
    if (part.kind === 'view_camera' || (part.kind === 'adapter' && part.movement)) carrier = i;
  });
  let [before, behind, limitMm] = [1, 1, Infinity];
  chain.forEach((part, i) => {
    if (part.kind !== 'multiplier') return;
    if (i < carrier) before *= part.factor;
    else behind *= part.factor;
    // The circle where the movements are, as the part behind lets it through.
    if (part.circle_limit_mm !== undefined) {
      limitMm = Math.min(limitMm, i < carrier ? Infinity : part.circle_limit_mm / behind);
    }
  });
  return { before, behind, limitMm };
}

export class Traced {
  readonly f: number;
  readonly n: number;
  readonly p: number;
  readonly before: number;
  readonly behind: number;
  readonly v: number;
  /** Lens axis, and two directions of the lens plane, in the sensor's axes. */
  readonly axis: V3;
  readonly e1: V3;
  readonly e2: V3;
  /** The sensor's axes in the bed's. */
  private readonly sensor: readonly [V3, V3, V3];
  private readonly across: V3;
  private readonly fromMark: V3;
  private readonly body: readonly [V3, V3, V3];
  readonly halfAngle: number;
  readonly cocMm: number;
  readonly kept: { w: number; h: number; x: number; y: number };
  readonly whole: { w: number; h: number };

  constructor(
    readonly station: Station,
    /** Image distance; found from the station's focus when left out. */
    held?: number,
  ) {
    const { lens, movements: set, movement_limits: limits, back, aperture } = station;
    const { before, behind, limitMm } = multipliersOf(station);
    [this.before, this.behind] = [before, behind];
    [this.f, this.n, this.p] = [
      lens.focal_length_mm * before,
      aperture * before,
      lens.pupil_ratio ?? 1,
    ];
    const circle = Math.min(circleAt(lens.circle, aperture) * before, limitMm);
    // At infinity the image stands p f behind the exit pupil.
    this.halfAngle = Math.atan2(circle / 2, this.p * this.f);
    const [rho, sigma] = [set.rear_tilt_deg ?? 0, set.rear_swing_deg ?? 0];
    this.sensor = axesTurned(rho, sigma);
    const own = turned([0, 0, 1], -set.tilt_deg, set.swing_deg);
    const bedAxes = [turned([1, 0, 0], -set.tilt_deg, set.swing_deg), turned([0, 1, 0], -set.tilt_deg, set.swing_deg)] as const; // prettier-ignore
    this.axis = into(this.sensor, own);
    this.e1 = into(this.sensor, bedAxes[0]);
    this.e2 = into(this.sensor, bedAxes[1]);
    // The tilt axis lies b behind the lens centre: lean about it.
    const b = limits.pivot_mm ?? 0;
    const pivot = plus(times(own, b), [0, 0, -b]);
    // A back on a base tilts about a line below its middle.
    const base = limits.rear_pivot_mm ?? 0;
    const middle = plus(turned([0, base, 0], rho, 0), [0, -base, 0]);
    const plain: V3 = [set.shift_mm, set.rise_mm, 0];
    const second: V3 = [set.rear_shift_mm ?? 0, set.rear_rise_mm ?? 0, 0];
    const front = limits.moves === 'front' ? plain : ([0, 0, 0] as const);
    const rear = limits.moves === 'front' ? second : plain;
    this.fromMark = plus(front, pivot);
    // The back goes the other way: a rise of the back is the back lowered.
    this.across = plus(plus(this.fromMark, rear), middle, -1);
    this.body = axesTurned(station.camera.pitch_deg, station.camera.yaw_deg);
    const turn = back.orientation === 'portrait';
    const [w, h] = [
      (turn ? back.height_mm : back.width_mm) / behind,
      (turn ? back.width_mm : back.height_mm) / behind,
    ];
    this.whole = { w, h };
    this.kept = { w, h, x: 0, y: 0 };
    const { crop } = station;
    if (crop) {
      const ratio = crop.across / crop.up;
      const slide = (crop.slide ?? 0) / 2;
      if (w / h > ratio) this.kept = { w: h * ratio, h, x: slide * (w - h * ratio), y: 0 };
      else this.kept = { w, h: w / ratio, x: 0, y: slide * (h - w / ratio) };
    }
    const { criterion } = station;
    this.cocMm =
      (criterion.coc_mm !== undefined
        ? criterion.coc_mm
        : criterion.diagonal_divisor !== undefined
          ? (Math.hypot(this.kept.w, this.kept.h) * behind) / criterion.diagonal_divisor
          : criterion.print_width_mm !== undefined
            ? (criterion.viewing_distance_mm * Math.tan(RAD / 60) * this.kept.w * behind) /
              criterion.print_width_mm
            : (criterion.pixels * back.width_mm) / back.width_px!) / behind;
    this.v = held ?? this.focus();
  }

  /** Image distance for a reading of the bed: the lens centre's distance from the sensor's plane. */
  onBed(bed: number): number {
    return inner(plus(this.across, [0, 0, bed]), this.sensor[2]);
  }

  /** The reading for the image distance. */
  get bed(): number {
    return (this.v - inner(this.across, this.sensor[2])) / this.sensor[2][2];
  }

  /** How far behind the lens, straight behind it, the rays of a point meet. */
  depthOf(point: V3): number {
    // Two rays of the point, through the centre and through the lens plane beside it.
    const straight = this.leaving(point, [0, 0]);
    const other = this.leaving(point, [1e-3 * this.f, 0]);
    // Both in one plane: where their distance along e1 is nothing.
    const gap = (at: number): number =>
      inner(plus(other.from, other.along, at), this.e1) - inner(plus(straight.from, straight.along, at), this.e1); // prettier-ignore
    const [g0, g1] = [gap(0), gap(1)];
    const travel = g0 / (g0 - g1);
    return -inner(plus(straight.from, straight.along, travel), [0, 0, 1]);
  }

  /** The ray of a point that meets the lens plane at h, once through; `along` is per mm down the axis. */
  private leaving(point: V3, h: readonly [number, number]): { from: V3; along: V3 } {
    const away = inner(point, this.axis);
    const slope = (hi: number, across: number): number => (hi - across) / away - hi / this.f;
    const [s1, s2] = [slope(h[0], inner(point, this.e1)), slope(h[1], inner(point, this.e2))];
    return {
      from: plus(times(this.e1, h[0]), this.e2, h[1]),
      along: plus(plus(times(this.e1, s1), this.e2, s2), this.axis, -1),
    };
  }

  private focus(): number {
    const { focus } = this.station;
    if (focus.image_distance_mm !== undefined) return this.onBed(focus.image_distance_mm);
    const least = this.f / this.axis[2];
    const own = this.focusesOwn();
    if (focus.magnification !== undefined) {
      // A thing straight ahead is pictured v/z times its size, z where it is sharp.
      const m = focus.magnification * (own ? this.before : 1);
      return root((v) => v / this.sharpAhead(v) - m, least * (1 + 1e-13), least * (1 + m) * 1.001);
    }
    const { distance_m: far } = focus;
    if (far === null) return least;
    if (own && this.before !== 1) {
      // The lens is focused ahead of what it is combined with, as it would be without.
      const bare = root((v) => v + this.sharpAhead(v, 1 / this.before) - far * 1000, (least / this.before) * (1 + 1e-13), (2 * least) / this.before); // prettier-ignore
      const m = bare / this.sharpAhead(bare, 1 / this.before);
      return root((v) => v / this.sharpAhead(v) - m * this.before, least * (1 + 1e-13), least * (1 + m * this.before) * 1.001); // prettier-ignore
    }
    return root((v) => v + this.sharpAhead(v) - far * 1000, least * (1 + 1e-13), 2 * least);
  }

  /** Whether the lens is focused before what multiplies it, or by draw behind that. */
  private focusesOwn(): boolean {
    const { chain } = this.station;
    const bellows = chain.findIndex(({ kind }) => kind === 'view_camera');
    return !(bellows > 0 && chain.slice(0, bellows).some(({ kind }) => kind === 'multiplier'));
  }

  /** How far ahead of the lens a place must be for its rays to meet at v, straight ahead. */
  sharpAhead(v: number, scale = 1): number {
    // From the sensor's middle line back out: a ray through the centre, and one beside it.
    const f = this.f * scale;
    const [a1, a2] = [inner([0, 0, -v], this.e1), inner([0, 0, -v], this.e2)];
    const behind = -inner([0, 0, -v], this.axis);
    const h = 1e-3 * f;
    // Backwards through the lens by the same law.
    const slope = (hi: number, across: number): number => (hi - across) / behind - hi / f;
    const [s0, s1] = [slope(0, a1), slope(h, a1)];
    const away = h / (s0 - s1);
    const place = plus(plus(times(this.e1, s0 * away), this.e2, slope(0, a2) * away), this.axis, away); // prettier-ignore
    return place[2] > 0 ? place[2] : Infinity;
  }

  /** A place of the scene from the lens centre, in the sensor's axes. */
  see({
    x_m,
    y_m,
    z_m,
    infinite,
  }: {
    x_m: number;
    y_m: number;
    z_m: number;
    infinite?: boolean | undefined;
  }): V3 {
    // prettier-ignore
    const up = y_m - this.station.camera.height_m;
    const far = infinite ? 1e12 / Math.hypot(x_m, up, z_m) : 1;
    const inBody = into(this.body, [x_m * 1000 * far, up * 1000 * far, z_m * 1000 * far]);
    return into(this.sensor, plus(inBody, this.lensFromMark(), -1));
  }

  /** In the bed's axes. */
  private lensFromMark(): V3 {
    const { pivot_mm: b = 0 } = this.station.movement_limits;
    const { tilt_deg: t, swing_deg: s } = this.station.movements;
    return [this.fromMark[0], this.fromMark[1], this.bed + b * (turned([0, 0, 1], -t, s)[2] - 1)];
  }

  /** The middle of the back in the picture, upright. */
  get middle(): { x: number; y: number } {
    const t = into(this.sensor, plus(this.across, [0, 0, this.bed]));
    return { x: t[0], y: t[1] };
  }

  get corners(): { x: number; y: number }[] {
    const { x, y } = this.middle;
    const { w, h, x: sx, y: sy } = this.kept;
    return [-1, 1].flatMap((i) =>
      [-1, 1].map((j) => ({ x: x + sx + (i * w) / 2, y: y + sy + (j * h) / 2 })),
    );
  }

  /** Where a ray through a place of the exit pupil lands in the upright picture. */
  lands(point: V3, pupil: readonly [number, number]): { x: number; y: number } {
    const away = inner(point, this.axis);
    const travel = -(this.p - 1) * this.f;
    // h + travel × slope(h) is where the ray, drawn on, passes the pupil.
    const at = (target: number, across: number): number =>
      (target + (travel * across) / away) / (1 + travel / away - travel / this.f);
    const h = [at(pupil[0], inner(point, this.e1)), at(pupil[1], inner(point, this.e2))] as const;
    const { from, along } = this.leaving(point, h);
    const t = (-this.v - from[2]) / along[2];
    const end = plus(from, along, t);
    return { x: -end[0], y: -end[1] };
  }

  /** Through the middle of the lens. */
  pictured(point: V3): { x: number; y: number } {
    const t = -this.v / point[2];
    return { x: -t * point[0], y: -t * point[1] };
  }

  /** Width of the patch along the sensor, square to the lean, at the station's stop. */
  blur(point: V3, n = this.n): number {
    const r = (this.p * this.f) / n / 2;
    // The direction of the pupil that lies along the sensor.
    const [c, s] = [this.e1[2], this.e2[2]];
    const size = Math.hypot(c, s);
    const [u1, u2] = size === 0 ? [1, 0] : [s / size, -c / size];
    const [a, b] = [this.lands(point, [r * u1, r * u2]), this.lands(point, [-r * u1, -r * u2])];
    return Math.hypot(a.x - b.x, a.y - b.y);
  }

  /** Angle at the exit pupil between the axis and the ray that lands at a place of the picture. */
  angle({ x, y }: { x: number; y: number }): number {
    const ray = this.toPupil({ x, y });
    return Math.acos(Math.min(1, inner(ray, this.axis) / Math.hypot(...ray)));
  }

  private toPupil({ x, y }: { x: number; y: number }): V3 {
    return plus(times(this.axis, (this.p - 1) * this.f), [x, y, this.v]);
  }

  /** Light that a small stop sends to a place, against the same straight behind it: stops lost. */
  loss(place: { x: number; y: number }): number {
    const ray = this.toPupil(place);
    const r = Math.hypot(...ray);
    const seen = inner(ray, this.axis) / r;
    const falls = ray[2] / r;
    return -Math.log2((seen * falls * ray[2] ** 2) / r ** 2);
  }

  get covered(): boolean {
    return this.corners.every((corner) => this.angle(corner) <= this.halfAngle);
  }

  /** The same camera with a movement set, the image distance held. */
  moved(change: Partial<Station['movements']>): Traced {
    return new Traced(
      { ...this.station, movements: { ...this.station.movements, ...change } },
      this.v,
    );
  }
}
