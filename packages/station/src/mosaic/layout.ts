import {
  bedReading,
  radians,
  toPicture,
  toSet,
  turnedFrames,
  turnedRectangle,
  type Cone,
  type Point,
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
import { overlapOf, type LaidFrame, type Neighbours } from './frame.js';
import { neighboursOf, sharesOf } from './shares.js';

export { overlapOf, type LaidFrame, type Neighbours } from './frame.js';

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

/**
 * The setup at one frame: the image distance is held, so that all frames are windows on one image,
 * and what focuses goes along where the back leans.
 */
export function setupAtFrame(station: Station, layout: Layout, index: number): Setup {
  const s = setupOf(atLaidFrame(station, layout, index));
  const { imageDistanceMm } = layout.s;
  return { ...s, imageDistanceMm, bedMm: bedReading(s.stance, imageDistanceMm) };
}

/** Whether a back that leans comes nearer to the lens, or further off, as the frames go across. */
export const refocuses = ({ movements, mosaic, held_off: held }: Station): boolean =>
  mosaic !== undefined &&
  mosaic.moves !== 'camera' &&
  held === undefined &&
  ((movements.rear_tilt_deg ?? 0) !== 0 || (movements.rear_swing_deg ?? 0) !== 0);
