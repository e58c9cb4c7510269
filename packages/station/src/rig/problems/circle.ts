import { circleDiameterMm, CORNERS, frameCorner, throatNeededMm } from '@gangway/optics';
import { fStop, mm } from '../../words/format.js';
import { circleTable, turnedBack, type Setup } from '../../optical/setup.js';
import { movementCarrier, multiplied, thicknessOf } from '../../document/chain.js';
import { smallestStop } from '../../optical/stops.js';
import { atLeast } from '../../words/rounded.js';
import { partName } from './mounting.js';
import { named, type Asked, type Check, type Finding } from './problem.js';

/** Less rise and shift than this is no movement one would buy a lens for: a choice, no source. */
const NO_MOVEMENT_MM = 1;

/** Circle on the back at infinity, mm. */
const circleOnBack = ({ setup }: Asked): number => setup.circleMm * setup.factor;

export const circleSmall: Check = (asked) => {
  const { station } = asked;
  const diagonal = Math.hypot(station.back.width_mm, station.back.height_mm);
  const circle = circleOnBack(asked);
  if (circle >= diagonal - 1e-9) return [];
  const stops = circleTable(station.lens).filter(
    ({ diameterMm }) =>
      multiplied(station.chain, diameterMm).circleMm * asked.setup.factor >= diagonal,
  );
  return [
    {
      severity: 'warn',
      joint: null,
      message: `The circle is ${mm(circle)} at ${fStop(station.aperture)} and infinity, the format’s diagonal ${mm(diagonal)}: corners stay dark.`,
      cure:
        stops.length > 0 && stops[0]!.fNumber > station.aperture
          ? `Stop down to ${fStop(stops[0]!.fNumber)}, focus closer, or crop.`
          : 'Focus closer, crop, or use a smaller format or a lens with a larger circle.',
    },
  ];
};

export const noMovement: Check = (asked) => {
  const { station } = asked;
  const { widthMm, heightMm } = turnedBack(station.back);
  const radius = circleOnBack(asked) / 2;
  const room = (along: number, across: number): number =>
    radius < across / 2 ? -1 : Math.sqrt(radius ** 2 - (across / 2) ** 2) - along / 2;
  const rise = room(heightMm, widthMm);
  const shift = room(widthMm, heightMm);
  if (radius * 2 < Math.hypot(widthMm, heightMm) - 1e-9) return [];
  if (Math.max(rise, shift) >= NO_MOVEMENT_MM) return [];
  const { rise_mm: up, shift_mm: side } = station.movement_limits;
  const moves = [up ?? [0, 1], side ?? [0, 1]].some(([least, most]) => least < 0 || most > 0);
  if (!moves) return [];
  return [
    {
      severity: 'warn',
      joint: null,
      message: `The circle just holds the format at ${fStop(station.aperture)}: ${mm(rise)} of rise and ${mm(shift)} of shift are left.`,
      cure: 'Stop down, use a smaller format, or a lens with a larger circle.',
    },
  ];
};

export const converterClips: Check = ({ station, setup }) => {
  const quoted = circleDiameterMm(circleTable(station.lens), station.aperture);
  const whole = quoted * setup.combined * setup.factor;
  const left = setup.circleMm * setup.factor;
  if (left >= whole - 1e-6) return [];
  const at = station.chain.findIndex((part) => part.kind === 'multiplier' && part.circle_limit_mm);
  const part = station.chain[at]!;
  return [
    {
      severity: 'warn',
      joint: at,
      message:
        `${partName(part)} lets a circle of ${mm(left)} pass where the lens would give ${mm(whole)}.`.replace(
          /^./,
          (first) => first.toUpperCase(),
        ),
      cure: 'Reckon with the smaller circle, or use a converter with wider glass.',
    },
  ];
};

/** A clear opening that the light of every corner has to pass. */
interface Throat {
  readonly joint: number;
  readonly name: string;
  readonly throatMm: number;
  /** Its two ends, ahead of the sensor, mm. */
  readonly atMm: readonly number[];
  /** It goes along with the lens as that shifts. */
  readonly withLens: boolean;
}

/** The throats behind bellows and multipliers, from the back forwards. */
function throatsOf({ chain, back }: Asked['station']): Throat[] {
  const found: Throat[] = [];
  let ahead = back.register_mm ?? 0;
  if (back.throat_mm !== undefined && ahead > 0) {
    found.push({
      joint: chain.length,
      name: named(back, 'the body'),
      throatMm: back.throat_mm,
      atMm: [ahead],
      withLens: false,
    });
  }
  const carrier = movementCarrier(chain);
  for (let i = chain.length - 1; i >= 0; i--) {
    const part = chain[i]!;
    // Inside the bellows there is room; ahead of other glass light goes another way.
    if (part.kind === 'view_camera' || part.kind === 'multiplier') break;
    const length = part.kind === 'board' ? Math.max(0, part.offset_mm) : thicknessOf(part);
    if (part.throat_mm !== undefined && ahead + length > 0) {
      found.push({
        joint: i,
        name: partName(part),
        throatMm: part.throat_mm,
        // Its rear goes with the lens only ahead of what moves it.
        atMm: [ahead, ahead + length].filter((at) => at > 0),
        withLens: i < carrier,
      });
    }
    ahead += length;
  }
  return found;
}

/** How wide a throat would have to be for the whole stop to be seen from every corner, mm. */
function throatNeeded(
  setup: Setup,
  { atMm, withLens }: Throat,
  { fNumber = setup.fNumber, straight = false } = {},
): number {
  const { frame, factor } = setup;
  const shift = straight ? { x: 0, y: 0 } : { x: frame.shiftMm * factor, y: frame.riseMm * factor };
  const corners = CORNERS.map((corner) => {
    const at = frameCorner({ ...frame, shiftMm: 0, riseMm: 0 }, corner);
    const own = { x: at.x * factor, y: at.y * factor };
    return withLens ? { x: own.x + shift.x, y: own.y + shift.y } : own;
  });
  const needed = atMm.map((at) =>
    throatNeededMm(
      setup.engravedMm / fNumber,
      setup.imageDistanceMm * factor,
      at,
      corners,
      withLens ? { x: 0, y: 0 } : { x: -shift.x, y: -shift.y },
    ),
  );
  return Math.max(...needed.filter(Number.isFinite));
}

/** A throat is measured to about this, mm. */
const MEASURED_MM = 0.05;

/** Whether a throat of body or adapter shades the corners, as the movements are set. */
export const throatShades: Check = ({ station, setup }) =>
  throatsOf(station).flatMap((throat): Finding[] => {
    const { throatMm, name, joint } = throat;
    const fits = (needed: number): boolean => !(needed > throatMm + MEASURED_MM);
    const needed = throatNeeded(setup, throat);
    if (fits(needed)) return [];
    const smallest = smallestStop(station) * setup.combined;
    const cures = [
      ...(fits(throatNeeded(setup, throat, { straight: true })) ? ['shift less'] : []),
      ...(fits(throatNeeded(setup, throat, { fNumber: smallest })) ? ['stop down'] : []),
      `use a part with a throat of at least ${mm(atLeast(needed, 1))}`,
      'crop',
    ];
    const words = `${cures.slice(0, -1).join(', ')} or ${cures.at(-1)!}`;
    return [
      {
        severity: 'warn',
        joint,
        message: `The throat of ${name}, ${mm(throatMm)}, shades the corners${fits(throatNeeded(setup, throat, { straight: true })) ? ' at these movements' : ', even with nothing shifted'}: ${mm(atLeast(needed, 1))} would let the whole stop through.`,
        cure: `${words.charAt(0).toUpperCase()}${words.slice(1)}; look at the corners in a trial frame.`,
      },
    ];
  });
