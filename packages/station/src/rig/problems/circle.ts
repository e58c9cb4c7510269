import { circleDiameterMm, CORNERS, frameCorner, throatNeededMm } from '@gangway/optics';
import { fStop, mm } from '../../words/format.js';
import { circleTable, turnedBack } from '../../optical/setup.js';
import { multiplied } from '../../document/chain.js';
import { partName } from './mounting.js';
import type { Asked, Check } from './problem.js';

/** Less rise and shift than this is no movement one would buy a lens for: a choice, no source. */
const NO_MOVEMENT_MM = 1;

/** Circle on the back at infinity, mm. */
const circleOnBack = ({ setup }: Asked): number => setup.circleMm * setup.factor;

export const circleSmall: Check = (asked) => {
  const { station } = asked;
  const diagonal = Math.hypot(station.back.width_mm, station.back.height_mm);
  const circle = circleOnBack(asked);
  if (circle >= diagonal - 1e-9) return [];
  const stops = station.lens.circle.filter(
    (entry) =>
      multiplied(station.chain, entry.diameter_mm).circleMm * asked.setup.factor >= diagonal,
  );
  return [
    {
      severity: 'warn',
      joint: null,
      message: `The circle is ${mm(circle)} at ${fStop(station.aperture)} and infinity, the format’s diagonal ${mm(diagonal)}: corners stay dark.`,
      cure:
        stops.length > 0 && stops[0]!.f_number > station.aperture
          ? `Stop down to ${fStop(stops[0]!.f_number)}, focus closer, or crop.`
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

/** Whether the body’s throat shades the corners at the movements set. */
export const throatShades: Check = ({ station, setup, lengths }) => {
  const { back } = station;
  if (lengths.bellows || back.throat_mm === undefined || !back.register_mm) return [];
  const { frame } = setup;
  const corners = CORNERS.map((corner) => {
    const at = frameCorner({ ...frame, shiftMm: 0, riseMm: 0 }, corner);
    return { x: at.x * setup.factor, y: at.y * setup.factor };
  });
  const needed = throatNeededMm(
    setup.engravedMm / setup.fNumber,
    setup.imageDistanceMm * setup.factor,
    back.register_mm,
    corners,
    { x: frame.shiftMm * setup.factor, y: frame.riseMm * setup.factor },
  );
  if (!(needed > back.throat_mm + 0.05)) return [];
  return [
    {
      severity: 'warn',
      joint: station.chain.length,
      message: `The body’s throat of ${mm(back.throat_mm)} shades the corners at these movements: ${mm(needed)} would let the whole stop through.`,
      cure: 'Shift less or stop down, and look at the corners in a trial frame.',
    },
  ];
};
