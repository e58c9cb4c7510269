import {
  areaOf,
  radians,
  sharedPart,
  toPicture,
  toSet,
  turnedFrames,
  turnedRectangle,
  type Cone,
  type Point,
  type SetMovement,
  type Size,
  type TurnedFrames,
  leastOf,
  mostOf,
} from '@gangway/optics';
import { MOST_MOSAIC_FRAMES } from '../document/most.js';
import type { Mosaic, Station } from '../document/station.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { DEFAULT_OVERLAP } from './customs.js';
import { carrierIn, pinwheelPlaces, type Carrier } from './carrier.js';

/** One frame where it lies; picture coordinates, mm on the real back. */
export interface LaidFrame {
  readonly centre: Point;
  readonly rotationDeg: number;
  /** Anticlockwise from the frame's own bottom left. */
  readonly corners: readonly Point[];
  readonly set: SetMovement;
  /** Where the camera is turned to for it, right of its own yaw. */
  readonly yawDeg?: number;
}

export interface Neighbours {
  /** Counted from 0. */
  readonly a: number;
  readonly b: number;
  /** The area shared over a frame's area; of a turn: of its angle. */
  readonly share: number;
}

/** Frames as they are laid out, before anything is judged. */
export interface Layout {
  readonly mosaic: Mosaic;
  /** The station without its crop: frames are taken whole. */
  readonly s: Setup;
  readonly frame: Size;
  readonly frames: readonly LaidFrame[];
  readonly middle: Point;
  /** On the real back. */
  readonly cone: Cone;
  readonly core: Cone;
  readonly imageDistanceMm: number;
  readonly pixelPitchMm: number | null;
  /** Null where what is asked to move stands still, and where the camera turns. */
  readonly carrier: Carrier | null;
  readonly turn: TurnedFrames | null;
  readonly neighbours: readonly Neighbours[];
  /** Every pair that shares anything at all. */
  readonly shares: readonly Neighbours[];
}

type Placed = Pick<LaidFrame, 'centre' | 'rotationDeg'>;
type Of<P extends Mosaic['pattern']> = Extract<Mosaic, { pattern: P }>;

export const overlapOf = ({ overlap }: Pick<Mosaic, 'overlap'>): number =>
  overlap ?? DEFAULT_OVERLAP;

const upright = (centre: Point): Placed => ({ centre, rotationDeg: 0 });

/**
 * Whether a stored layout, kept from before there was a limit, has more frames than are ever laid out.
 * It is named, and not worked out.
 */
export const tooManyFrames = (mosaic: Mosaic): boolean =>
  !(countAsked(mosaic) <= MOST_MOSAIC_FRAMES);

/** How many frames a layout has, before it is laid out; of a ring whose stops say how many, the most. */
export const framesAsked = (mosaic: Mosaic): number =>
  tooManyFrames(mosaic) ? 0 : countAsked(mosaic);

function countAsked(mosaic: Mosaic): number {
  switch (mosaic.pattern) {
    case 'grid':
      return (mosaic.columns ?? 1) * (mosaic.rows ?? 1);
    case 'pinwheel':
      return mosaic.frames ?? DEFAULT_TURNS;
    case 'ring':
      return (mosaic.frames ?? MOST_AROUND) + 1;
    case 'free':
      return (mosaic.places ?? []).length;
    case 'turn':
      return mosaic.columns ?? 1;
  }
}

/** Row by row, left to right, the top one first. */
export function gridCentres(
  { columns = 1, rows = 1, overlap = DEFAULT_OVERLAP }: Of<'grid'>,
  { widthMm, heightMm }: Size,
  middle: Point,
): Point[] {
  const along = (count: number, i: number, side: number): number =>
    (i - (count - 1) / 2) * side * (1 - overlap);
  return Array.from({ length: rows * columns }, (_, i) => ({
    x: middle.x + along(columns, i % columns, widthMm),
    y: middle.y + along(rows, rows - 1 - Math.floor(i / columns), heightMm),
  }));
}

export const DEFAULT_TURNS = 4;

/** Off the middle so that frames opposite each other overlap as wanted. */
export const pinwheelOffset = (
  { offset_mm }: Of<'pinwheel'>,
  overlap: number,
  { widthMm, heightMm }: Size,
): readonly [number, number] =>
  offset_mm ?? [((1 - overlap) * widthMm) / 2, ((1 - overlap) * heightMm) / 2];

function ringPlaces(mosaic: Of<'ring'>, carrier: Carrier): Placed[] {
  const { frames = ringFrames(carrier), radius_mm = 0, start_deg = 0, middle } = mosaic;
  const placed = Array.from({ length: frames }, (_, k) => {
    const a = radians(start_deg + (k * 360) / frames);
    return upright(
      toPicture(carrier.placing, {
        shiftMm: radius_mm * Math.sin(a),
        riseMm: radius_mm * Math.cos(a),
      }),
    );
  });
  return middle ? [upright(carrier.placing.base), ...placed] : placed;
}

/** Whether so many even turns from the first stop all lie at stops; a shift goes both ways along one. */
export function evenTurns(stopsDeg: readonly number[], count: number): boolean {
  const [first] = stopsDeg;
  if (first === undefined) return true;
  return Array.from({ length: count }, (_, k) => first + (k * 360) / count).every((deg) =>
    stopsDeg.some((stop) => {
      const off = (((deg - stop) % 180) + 180) % 180;
      return Math.min(off, 180 - off) < 1e-6;
    }),
  );
}

/** More frames than this nobody takes round a circle. */
const MOST_AROUND = 12;

/** As many as go round at the stops of what turns; four where it turns freely. */
export function ringFrames({ turnStopsDeg }: Pick<Carrier, 'turnStopsDeg'>): number {
  if (turnStopsDeg.length === 0) return DEFAULT_TURNS;
  for (let count = MOST_AROUND; count >= 3; count--) {
    if (evenTurns(turnStopsDeg, count)) return count;
  }
  return 2;
}

const boxMiddle = (points: readonly Point[]): Point => {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  return {
    x: (leastOf(xs) + mostOf(xs)) / 2,
    y: (leastOf(ys) + mostOf(ys)) / 2,
  };
};

/** Frames that share more than this are neighbours, where no pattern says which are. */
const NEIGHBOURLY = 0.05;

/** Pairs that lie beside each other by their pattern; null: those that share enough. */
function pairsOf(mosaic: Mosaic, count: number): readonly (readonly [number, number])[] | null {
  const indices = Array.from({ length: count }, (_, i) => i);
  switch (mosaic.pattern) {
    case 'grid': {
      const { columns = 1 } = mosaic;
      return indices.flatMap((i) => [
        ...((i + 1) % columns === 0 || i + 1 >= count ? [] : [[i, i + 1] as const]),
        ...(i + columns < count ? [[i, i + columns] as const] : []),
      ]);
    }
    case 'ring': {
      const first = mosaic.middle ? 1 : 0;
      const around = indices.slice(first);
      const next = around.length < 2 ? [] : around.slice(around.length === 2 ? 1 : 0);
      return [
        ...(mosaic.middle ? around.map((i) => [0, i] as const) : []),
        ...next.map((i) => {
          const before = i === first ? around.at(-1)! : i - 1;
          return [Math.min(before, i), Math.max(before, i)] as const;
        }),
      ];
    }
    case 'turn':
      return indices.slice(1).map((i) => [i - 1, i] as const);
    default:
      return null;
  }
}

/**
 * Every pair that shares something, by the area shared over a frame’s area; of a grid those that lie
 * beside each other, for no other pair shares more than they do.
 */
function sharesOf(mosaic: Mosaic, frames: readonly LaidFrame[], frame: Size): Neighbours[] {
  if (mosaic.pattern === 'turn') {
    return frames.slice(1).map((_, i) => ({ a: i, b: i + 1, share: overlapOf(mosaic) }));
  }
  const shareOf = (a: number, b: number): number => sharedShare(frames[a]!, frames[b]!, frame);
  if (mosaic.pattern === 'pinwheel') return roundShares(frames.length, shareOf);
  const pairs =
    mosaic.pattern === 'grid' ? pairsOf(mosaic, frames.length)! : nearPairs(frames, frame);
  return pairs.flatMap(([a, b]) => {
    const share = shareOf(a, b);
    return share > 0 ? [{ a, b, share }] : [];
  });
}

/** Frames turned by equal steps about one middle: what two share hangs on the steps between them. */
function roundShares(count: number, shareOf: (a: number, b: number) => number): Neighbours[] {
  const bySteps = Array.from({ length: Math.floor(count / 2) + 1 }, (_, steps) =>
    steps === 0 ? 0 : shareOf(0, steps),
  );
  const found: Neighbours[] = [];
  for (let a = 0; a < count; a++) {
    for (let b = a + 1; b < count; b++) {
      const share = bySteps[Math.min(b - a, count - b + a)]!;
      if (share > 0) found.push({ a, b, share });
    }
  }
  return found;
}

/** So few are looked through quicker than they are put in order. */
const FEW = 24;

/** Pairs near enough to share anything, found along x. */
function nearPairs(
  frames: readonly LaidFrame[],
  { widthMm, heightMm }: Size,
): (readonly [number, number])[] {
  const far = Math.hypot(widthMm, heightMm);
  if (frames.length <= FEW) {
    return frames.flatMap((one, i) =>
      frames.flatMap((other, j) =>
        j > i &&
        Math.abs(one.centre.x - other.centre.x) < far &&
        Math.abs(one.centre.y - other.centre.y) < far
          ? [[i, j] as const]
          : [],
      ),
    );
  }
  const order = frames.map((_, i) => i).sort((a, b) => frames[a]!.centre.x - frames[b]!.centre.x);
  const found: (readonly [number, number])[] = [];
  order.forEach((i, place) => {
    const { x, y } = frames[i]!.centre;
    for (let next = place + 1; next < order.length; next++) {
      const j = order[next]!;
      const { centre } = frames[j]!;
      if (centre.x - x >= far) break;
      if (Math.abs(centre.y - y) < far) found.push(i < j ? [i, j] : [j, i]);
    }
  });
  return found.sort((p, q) => p[0] - q[0] || p[1] - q[1]);
}

function sharedShare(one: LaidFrame, other: LaidFrame, { widthMm, heightMm }: Size): number {
  const area = widthMm * heightMm;
  if (!isUpright(one) || !isUpright(other)) return sharedArea(one, other) / area;
  const dx = Math.abs(one.centre.x - other.centre.x);
  const dy = Math.abs(one.centre.y - other.centre.y);
  return (Math.max(0, widthMm - dx) * Math.max(0, heightMm - dy)) / area;
}

const isUpright = ({ rotationDeg }: LaidFrame): boolean => rotationDeg === 0;

function sharedArea(one: LaidFrame, other: LaidFrame): number {
  const part = sharedPart(one.corners, other.corners);
  return part.length < 3 ? 0 : areaOf(part);
}

function neighboursOf(mosaic: Mosaic, count: number, shares: readonly Neighbours[]): Neighbours[] {
  const pairs = pairsOf(mosaic, count);
  if (!pairs) return shares.filter(({ share }) => share > NEIGHBOURLY);
  const key = (a: number, b: number): number => a * count + b;
  const known = new Map(shares.map(({ a, b, share }) => [key(a, b), share]));
  return pairs.map(([a, b]) => ({ a, b, share: known.get(key(a, b)) ?? 0 }));
}

/** A setup's cone on the real back. */
const onBack = (cone: Cone, factor: number): Cone => ({
  ...cone,
  imageDistanceMm: cone.imageDistanceMm * factor,
  apexMm: (cone.apexMm ?? 0) * factor,
});

/** The station as its frames are taken: whole, without the crop of a single picture. */
export function uncropped(station: Station): Station {
  const { crop: _, ...whole } = station;
  return whole;
}

/** Lays out a station's mosaic. */
export function layoutOf(given: Station, mosaic: Mosaic = given.mosaic!): Layout {
  const station = uncropped(given);
  const s = setupOf(station);
  const frame = { widthMm: s.whole.widthMm * s.factor, heightMm: s.whole.heightMm * s.factor };
  const own = station.movement_limits.moves === 'rear' ? 'rear' : 'lens';
  const moving = mosaic.moves === 'camera' ? null : carrierIn(s, mosaic.moves);
  // Where nothing moves as asked, frames are laid out all the same, to be seen.
  const carrier = moving ?? carrierIn(s, own)!;
  const here = toPicture(carrier.placing, carrier.set);
  const overlap = overlapOf(mosaic);
  const none = tooManyFrames(mosaic);
  const turn =
    mosaic.pattern === 'turn' && !none
      ? turnedFrames(
          { ...frame, shiftMm: here.x, riseMm: here.y },
          s.imageDistanceMm * s.factor,
          mosaic.columns ?? 1,
          overlap,
        )
      : null;
  const placed = ((): Placed[] => {
    if (none) return [];
    switch (mosaic.pattern) {
      case 'grid':
        return gridCentres(mosaic, frame, here).map(upright);
      case 'pinwheel': {
        const offset = pinwheelOffset(mosaic, overlap, frame);
        return pinwheelPlaces(mosaic.frames ?? DEFAULT_TURNS, offset);
      }
      case 'ring':
        return ringPlaces(mosaic, carrier);
      case 'free':
        return (mosaic.places ?? []).map(({ x_mm: x, y_mm: y, rotation_deg = 0 }) => ({
          centre: { x, y },
          rotationDeg: rotation_deg,
        }));
      case 'turn':
        return turn!.yawsDeg.map(() => upright(here));
    }
  })();
  const frames = placed.map(({ centre, rotationDeg }, i): LaidFrame => ({
    centre,
    rotationDeg,
    corners: turnedRectangle(centre, frame, radians(rotationDeg)),
    set: turn ? carrier.set : toSet(carrier.placing, centre),
    ...(turn ? { yawDeg: turn.yawsDeg[i]! } : {}),
  }));
  // Most who lay out a mosaic only ask where its frames lie: what they share is worked out when asked.
  let [known, beside]: [Neighbours[]?, Neighbours[]?] = [];
  const shares = (): Neighbours[] => (known ??= sharesOf(mosaic, frames, frame));
  const middle = ((): Point => {
    switch (mosaic.pattern) {
      case 'grid':
      case 'turn':
        return here;
      case 'pinwheel':
      case 'ring':
        return { x: 0, y: 0 };
      case 'free':
        return frames.length === 0 ? here : boxMiddle(frames.flatMap(({ corners }) => corners));
    }
  })();
  return {
    mosaic,
    s,
    frame,
    frames,
    middle,
    cone: onBack(s.cone, s.factor),
    core: onBack(s.core, s.factor),
    imageDistanceMm: s.imageDistanceMm * s.factor,
    pixelPitchMm: s.pixelPitchMm,
    carrier: moving,
    turn,
    get neighbours() {
      return (beside ??= neighboursOf(mosaic, frames.length, shares()));
    },
    get shares() {
      return shares();
    },
  };
}

/** Where the movements stand that carry the frames: those of the station's standard, or the back's. */
export const fieldsOfCarrier = ({ carrier }: Layout): Carrier['fields'] =>
  carrier?.fields ?? ['rise_mm', 'shift_mm'];

/** The station set to one frame, by itself: movements, or the camera turned. */
export function atLaidFrame(station: Station, layout: Layout, index: number): Station {
  const { mosaic: _, ...single } = uncropped(station);
  const { set, yawDeg } = layout.frames[index]!;
  const [rise, shift] = fieldsOfCarrier(layout);
  return {
    ...single,
    camera:
      yawDeg === undefined
        ? single.camera
        : { ...single.camera, yaw_deg: single.camera.yaw_deg + yawDeg },
    movements: { ...single.movements, [rise]: set.riseMm + 0, [shift]: set.shiftMm + 0 },
  };
}
