import type { OrderControl, Setting, Station } from '../../src/index.js';
import { direction, figure, irisAt, openFor, powerOf, signed, type Along } from './hand-reads.js';
import { root, Traced } from './traced.js';

/**
 * A camera of brass and glass, and a hand that knows nothing but what it is told: it takes hold of
 * the control an order names, and puts it where the order prints. Nothing of the program’s own
 * reckoning is used; what comes of it is traced.
 */

const RAD = Math.PI / 180;

interface Standard {
  rise: number;
  shift: number;
  tilt: number;
  swing: number;
}

/** Where every control stands, as its own scale has it. */
export class Camera {
  columnM: number;
  /** In truth; the level shows its own offset more. */
  pitch: number;
  roll: number;
  yaw: number;
  /** Where a series that turns the camera begins from. */
  middleYaw = 0;
  upright: boolean;
  standards: { front: Standard; back: Standard };
  turned = { shift: 0, tilt: 0 };
  along = { shift: 0, lean: 0 };
  dot = -1;
  pinwheel = 0;
  backAngle = 0;
  body = { rise: 0, shift: 0 };
  ring: { distance: number } | { ratio: number };
  bedMm: { own: number } | { infinity: number };
  drawMm = 0;
  /** Forward along the way the body looks. */
  railMm = 0;
  hand = { gap: 0, right: 0, down: 0 };
  iris: number;
  iso: number | null = null;
  filters = new Set<number>();
  times: number[] = [];
  pops: number[] = [];

  /** @param off how far everything stands from where it should be: somebody else used it last */
  constructor(
    readonly rig: Station,
    off: number,
  ) {
    const far = 3 + off;
    this.columnM = rig.camera.height_m + 0.2 * far;
    [this.pitch, this.roll, this.yaw] = [rig.camera.pitch_deg + far, far, rig.camera.yaw_deg - far];
    this.upright = rig.back.orientation !== 'portrait';
    const standard = (): Standard => ({ rise: far, shift: -far, tilt: far, swing: -far });
    this.standards = { front: standard(), back: standard() };
    this.standards.front.rise += 0.03 * rig.lens.focal_length_mm;
    // Off all that is set on it.
    for (const [name, value] of Object.entries(rig.movements)) {
      const at = this.standards[name.startsWith('rear_') ? 'back' : 'front'];
      const key = name.replace(/^rear_|_(mm|deg)$/g, '') as keyof Standard;
      at[key] = Math.abs(value ?? 0) + far;
    }
    this.standards.back.rise = -this.standards.front.rise - far;
    this.standards.back.shift = this.standards.front.shift + 2 * far;
    this.turned = { shift: 47 + far, tilt: 47 + far };
    this.along = { shift: 2 * far, lean: far };
    this.ring = { ratio: 0.2137 + far / 51 };
    this.bedMm = { infinity: (0.3137 + far / 41) * rig.lens.focal_length_mm };
    this.drawMm = draws(rig) ? 0.13 * rig.lens.focal_length_mm : 0;
    this.railMm = rig.lens.focus_by === 'rail' && !rig.held_off ? 30 + 10 * far : 0;
    this.hand = { gap: 9 + far, right: far, down: -far };
    this.iris = rig.lens.f_min * 2 ** 0.4;
    this.times = [2 ** 40];
    this.pops = [2 ** 20];
  }

  /** One control put where it is told. */
  set(setting: Setting): void {
    const { control, said, way } = setting;
    const take = TAKES[control.kind] as (
      camera: Camera,
      c: OrderControl,
      s: string,
      w: string,
    ) => void;
    take(this, control, said, way);
  }

  /** Where the lens stands with all straight, as what moves sees it: before any factor behind. */
  get drawn(): number {
    const { lens, chain } = this.rig;
    const { before, own } = factorsOf(this.rig);
    const f = lens.focal_length_mm;
    const bellows = chain.some(({ kind }) => kind === 'view_camera');
    const byBed =
      bellows || lens.focus_by === 'bellows' || lens.focus_by === 'rail' || usesBed(this.rig);
    if (bellows || (byBed && !draws(this.rig))) {
      const zero = this.rig.bed?.infinity_mm ?? lens.bed_infinity_mm ?? 0;
      // A lens with a ring of its own on a bed adds what the ring draws.
      const ring = bellows && lens.focus_by === 'helicoid' ? this.ringMm() - f : 0;
      const bed = 'own' in this.bedMm ? this.bedMm.own - zero : this.bedMm.infinity;
      return f * before + bed + ring;
    }
    const fixed = chain.reduce(
      (sum, part) => sum + (part.kind === 'board' ? part.offset_mm : 0),
      0,
    );
    const tubes =
      this.rig.back.register_mm !== undefined && lens.register_mm !== undefined
        ? chain.reduce((sum, part) => sum + (part.kind === 'adapter' ? part.thickness_mm : 0), 0) +
          this.rig.back.register_mm -
          lens.register_mm
        : 0;
    const straight = byBed ? f : this.ringMm();
    const bare = straight + fixed + tubes + this.drawMm;
    // Ahead of a multiplier the lens is focused as without it: M times the magnification.
    return own ? f * before * (1 + before * (bare / f - 1)) : bare;
  }

  /** Where its ring puts a straight lens, from the sensor, on its own register. */
  private ringMm(): number {
    const f = this.rig.lens.focal_length_mm;
    if ('ratio' in this.ring) return f * (1 + this.ring.ratio);
    const d = 1000 * this.ring.distance;
    return d === Infinity ? f : root((u) => u + (f * u) / (u - f) - d, f * (1 + 1e-13), 2 * f);
  }

  /** The document that says what this camera does, and nothing of how it was told. */
  get standing(): Station {
    const { rig } = this;
    const { zero } = rig.movement_limits;
    const { front, back } = this.standards;
    for (const [name, at] of Object.entries(this.standards)) {
      for (const key of Object.keys(at) as (keyof Standard)[]) {
        if (!moves(rig, name as 'front' | 'back', key)) at[key] = 0;
      }
    }
    const [right, up] = this.slid();
    const lean = this.leaned();
    const rear = rig.movement_limits.moves === 'rear';
    const dot = this.dotMm();
    // What moves the back the other way moves the picture.
    const plain: Along = rear
      ? [-back.shift + right, -back.rise + up]
      : [front.shift + right, front.rise + up];
    const second: Along = rear ? [0, 0] : [-back.shift, -back.rise];
    const base: Along = dot && rear ? dot : plain;
    const behind: Along = dot && !rear ? dot : second;
    return {
      ...rig,
      mosaic: undefined,
      held_off: undefined,
      back: { ...rig.back, orientation: this.upright ? 'portrait' : 'landscape' },
      aperture: this.iris,
      camera: { ...rig.camera, height_m: this.columnM, pitch_deg: this.pitch, yaw_deg: this.yaw },
      movements: {
        shift_mm: base[0],
        rise_mm: base[1],
        tilt_deg: front.tilt - (zero?.tilt_deg ?? 0),
        swing_deg: front.swing - (zero?.swing_deg ?? 0),
        ...(lean ? { tilt_deg: lean[0], swing_deg: lean[1] } : {}),
        rear_shift_mm: behind[0],
        rear_rise_mm: behind[1],
        rear_tilt_deg: back.tilt,
        rear_swing_deg: back.swing,
      },
    } as unknown as Station;
  }

  /** What a turned part adds to shift and rise, in the picture’s sense. */
  private slid(): Along {
    const a = this.turned.shift * RAD;
    return turnsShift(this.rig)
      ? [this.along.shift * Math.sin(a), this.along.shift * Math.cos(a)]
      : [0, 0];
  }

  /** Tilt and swing of a lens that leans along the way it is turned to. */
  private leaned(): Along | null {
    if (!turnsLean(this.rig)) return null;
    const [rho, tau] = [this.turned.tilt * RAD, this.along.lean * RAD];
    const axis = [
      -Math.sin(tau) * Math.sin(rho),
      -Math.sin(tau) * Math.cos(rho),
      Math.cos(tau),
    ] as const;
    return [Math.asin(-axis[1]) / RAD, Math.atan2(axis[0], axis[2]) / RAD];
  }

  private dotMm(): Along | null {
    const given = this.rig.movement_limits.frame_stops;
    if (!given || this.dot < 0 || 'turns' in given) return null;
    if ('places_mm' in given) {
      const [x, y] = given.places_mm[this.dot]!;
      return [x, y];
    }
    const { columns, rows, pitch_mm: pitch } = given;
    return [
      ((this.dot % columns) - (columns - 1) / 2) * pitch[0],
      ((rows - 1) / 2 - Math.floor(this.dot / columns)) * pitch[1],
    ];
  }

  /** The rays of this camera. */
  traced(): Traced {
    const there = this.standing;
    const anywhere = new Traced(there, 100);
    return new Traced(there, anywhere.onBed(this.drawn));
  }

  /** The rays of a lens in the hand. */
  tracedInHand(): Traced {
    const { rig, hand, iris } = this;
    const held = rig.held_off!;
    const beyond =
      held.lens_register_mm === undefined || held.body_register_mm === undefined
        ? 0
        : held.body_register_mm - held.lens_register_mm;
    const there = {
      ...this.standing,
      aperture: iris,
      movement_limits: { moves: 'front' },
      movements: { rise_mm: 0, shift_mm: 0, tilt_deg: hand.down, swing_deg: hand.right },
    } as Station;
    const own =
      'distance' in this.ring && this.ring.distance === Infinity
        ? 0
        : 0.2 * rig.lens.focal_length_mm;
    const f = rig.lens.focal_length_mm * factorsOf(rig).before;
    return new Traced(there, f + own + hand.gap + beyond);
  }
}

/** Whether an adapter draws out by as much as a hand sees. */
const draws = ({ chain }: Station): boolean =>
  chain.every(({ kind }) => kind !== 'view_camera') &&
  chain.some((part) => part.kind === 'adapter' && (part.extends_mm ?? 0) >= 0.05);

/** Who focuses, and what multiplies ahead of the movements. */
export function factorsOf({ chain, lens }: Station): { before: number; own: boolean } {
  const carrier = chain.findLastIndex(
    (part) => part.kind === 'view_camera' || (part.kind === 'adapter' && part.movement),
  );
  const before = chain
    .slice(0, Math.max(0, carrier))
    .reduce((all, part) => (part.kind === 'multiplier' ? all * part.factor : all), 1);
  const drawn =
    chain.some(({ kind }) => kind === 'view_camera') ||
    lens.focus_by === 'bellows' ||
    lens.focus_by === 'rail';
  return { before, own: before !== 1 && !drawn };
}

const usesBed = ({ lens, chain, back }: Station): boolean =>
  lens.focus_by === undefined &&
  chain.length === 0 &&
  back.register_mm === undefined &&
  Math.max(back.width_mm, back.height_mm) >= 90;

const turnsAt = ({
  movement_limits: limits,
}: Station): { both: boolean; lean: boolean; radial: boolean; any: boolean } => {
  const locked = limits.shift_tilt === 'in_line' || limits.shift_tilt === 'crossed';
  const radial = limits.radial_shift_mm !== undefined;
  const lean = limits.radial_tilt_deg !== undefined || limits.one_way_tilt === true;
  const any =
    locked ||
    limits.shift_tilt !== undefined ||
    radial ||
    lean ||
    (limits.turn_stops_deg ?? []).length > 0;
  return { both: locked || (!radial && !lean), lean, radial, any };
};

/** Whether there is anything to take hold of: a scale that is on the rig, or that a plan sets. */
function moves(rig: Station, standard: 'front' | 'back', key: keyof Standard): boolean {
  const { movement_limits: limits, movements: set } = rig;
  const linear = key === 'rise' || key === 'shift';
  const plain = linear ? (limits.moves === 'rear' ? 'back' : 'front') : 'front';
  const own = standard === plain;
  if (linear && own && turnsShift(rig)) return false;
  if (!linear && own && turnsLean(rig)) return false;
  if (linear && limits.moves === 'rear' && standard === 'front') return false;
  const field = `${own ? '' : 'rear_'}${key}_${linear ? 'mm' : 'deg'}` as 'rise_mm';
  const range = limits[field];
  if (Math.abs(set[field] ?? 0) >= 0.05) return true;
  if (range) return range[0] !== 0 || range[1] !== 0;
  return own || set[field] !== undefined;
}

const turnsShift = (rig: Station): boolean => {
  const { any, both, radial } = turnsAt(rig);
  return any && (both || radial);
};
const turnsLean = (rig: Station): boolean => {
  const { any, both, lean } = turnsAt(rig);
  return any && (both || lean);
};

type Takes = {
  [Kind in OrderControl['kind']]: (
    camera: Camera,
    control: Extract<OrderControl, { kind: Kind }>,
    said: string,
    way: string,
  ) => void;
};

const TAKES: Takes = {
  column: (camera, _, said) => {
    camera.columnM = figure(said);
  },
  head: (camera, { turns, from }, said, way) => {
    const { level_offset_deg: up = 0, level_offset_roll_deg: right = 0 } = camera.rig.camera;
    const shown = signed(said, way);
    if (turns === 'pitch') camera.pitch = shown - up;
    if (turns === 'roll') camera.roll = shown - right;
    if (turns === 'yaw') camera.yaw = shown + (from === 'middle' ? camera.middleYaw : 0);
  },
  body: (camera, { way: goes }, said, way) => {
    camera.body[goes] = signed(said, way);
  },
  back_turned: (camera, _, said) => {
    camera.upright = said === 'upright';
  },
  standard: (camera, { standard, movement }, said, way) => {
    camera.standards[standard][movement] = signed(said, way);
  },
  turned: (camera, { turns }, said) => {
    const deg = figure(said);
    const crossed = camera.rig.movement_limits.shift_tilt === 'crossed';
    if (turns !== 'tilt') camera.turned.shift = deg;
    if (turns === 'tilt') camera.turned.tilt = deg;
    if (turns === 'both') camera.turned.tilt = deg + (crossed ? 90 : 0);
  },
  along: (camera, { movement }, said, way) => {
    const [right, up] = direction(way);
    if (movement === 'shift') {
      const a = camera.turned.shift * RAD;
      // The hand moves the back the other way than the picture.
      const flip = camera.rig.movement_limits.moves === 'rear' ? -1 : 1;
      const same = flip * (right * Math.sin(a) + up * Math.cos(a)) >= 0;
      camera.along.shift = (same ? 1 : -1) * (way === '' ? 0 : figure(said));
      return;
    }
    const a = camera.turned.tilt * RAD;
    const same = -right * Math.sin(a) + up * Math.cos(a) >= 0;
    camera.along.lean = (same ? 1 : -1) * (way === '' ? 0 : figure(said));
  },
  dots: (camera, _, said) => {
    const given = camera.rig.movement_limits.frame_stops!;
    const cell = /column (\d+), row (\d+)/.exec(said);
    camera.dot =
      cell && 'columns' in given
        ? (Number(cell[2]) - 1) * given.columns + Number(cell[1]) - 1
        : Number(/\d+/.exec(said)![0]) - 1;
    if ('turns' in given) camera.pinwheel = (camera.dot * 360) / given.turns;
  },
  pinwheel: (camera, _, said) => {
    camera.pinwheel = figure(said);
  },
  back_angle: (camera, _, said) => {
    camera.backAngle = figure(said);
  },
  ring: (camera, { engraved }, said) => {
    camera.ring = engraved === 'distance' ? { distance: figure(said) } : { ratio: figure(said) };
  },
  bed: (camera, { counts }, said, way) => {
    const mm = figure(said);
    camera.bedMm =
      counts === 'own' ? { own: mm } : { infinity: way === 'in' ? -mm : way === '' ? 0 : mm };
  },
  draw: (camera, _, said) => {
    camera.drawMm = figure(said);
  },
  rail: (camera, { mark }, said) => {
    // Where the tape from the sensor mark to the thing reads what is told, the camera before it.
    const { x_m: x, y_m: y, z_m: z } = camera.rig.marks![mark!]!;
    const [p, w] = [camera.pitch * RAD, camera.yaw * RAD];
    const along = [Math.cos(p) * Math.sin(w), Math.sin(p), Math.cos(p) * Math.cos(w)] as const;
    const to = [x, y - camera.columnM, z] as const;
    const ahead = to[0] * along[0] + to[1] * along[1] + to[2] * along[2];
    const aside = Math.hypot(...to) ** 2 - ahead ** 2;
    const tape = figure(said) / (said.endsWith(' mm') ? 1000 : 1);
    camera.railMm = 1000 * (ahead - Math.sqrt(Math.max(0, tape ** 2 - aside)));
  },
  hand: (camera, { holds }, said, way) => {
    if (holds === 'gap') camera.hand.gap = figure(said);
    // The body goes the other way than the lens looks.
    if (holds === 'right')
      camera.hand.right = way === '' ? 0 : (way === 'left' ? 1 : -1) * figure(said);
    if (holds === 'down')
      camera.hand.down = way === '' ? 0 : (way === 'up' ? 1 : -1) * figure(said);
  },
  iris: (camera, _, said) => {
    const { f_min: widest, f_max: smallest } = camera.rig.lens;
    camera.iris = Math.min(smallest * 1.03, Math.max(widest / 1.03, irisAt(said)));
  },
  filter: (camera, { index }) => {
    camera.filters.add(index);
  },
  iso: (camera, _, said) => {
    camera.iso = figure(said);
  },
  shutter: (camera, _, said) => {
    camera.times.push(openFor(said, camera.rig));
  },
  flash: (camera, _, said) => {
    camera.pops.push(powerOf(said));
  },
};
