import { circleDiameterMm, CORNERS, frameCorner, throatNeededMm, mostOf } from '@gangway/optics';
import { movementCarrier } from '../../document/focusing.js';
import { thicknessOf } from '../../document/lengths.js';
import { perRig, turnedBack, type RigFacts } from '../../optical/facts.js';
import { multiplied } from '../../optical/multiplied.js';
import type { Setup } from '../../optical/setup.js';
import { smallestStop } from '../../optical/stops.js';
import { partName } from './mounting.js';
import { named, type Finding, type SettingCheck } from './problem.js';

/** Less rise and shift than this is no movement one would buy a lens for: a choice, no source. */
const NO_MOVEMENT_MM = 1;

/** Circle on the back at infinity, mm. */
const circleOnBack = ({ circleMm, factor }: Setup): number => circleMm * factor;

export const circleSmall: SettingCheck<'circle_small'> = (s) => {
  const { back, chain, circles } = s.facts;
  const fNumber = s.station.aperture;
  const diagonalMm = Math.hypot(back.width_mm, back.height_mm);
  const circleMm = circleOnBack(s);
  if (circleMm >= diagonalMm - 1e-9) return [];
  const serving = circles.find(
    ({ diameterMm }) => multiplied(chain, diameterMm).circleMm * s.factor >= diagonalMm,
  );
  return [
    {
      severity: 'warn',
      joint: null,
      values: {
        circleMm,
        fNumber,
        diagonalMm,
        downTo: serving !== undefined && serving.fNumber > fNumber ? serving.fNumber : null,
      },
    },
  ];
};

export const noMovement: SettingCheck<'no_movement'> = (s) => {
  const { widthMm, heightMm } = turnedBack(s.facts.back);
  const radius = circleOnBack(s) / 2;
  const room = (along: number, across: number): number =>
    radius < across / 2 ? -1 : Math.sqrt(radius ** 2 - (across / 2) ** 2) - along / 2;
  const riseMm = room(heightMm, widthMm);
  const shiftMm = room(widthMm, heightMm);
  if (radius * 2 < Math.hypot(widthMm, heightMm) - 1e-9) return [];
  if (Math.max(riseMm, shiftMm) >= NO_MOVEMENT_MM) return [];
  const { rise_mm: up, shift_mm: side } = s.facts.limits;
  const moves = [up ?? [0, 1], side ?? [0, 1]].some(([least, most]) => least < 0 || most > 0);
  if (!moves) return [];
  return [
    {
      severity: 'warn',
      joint: null,
      values: { fNumber: s.station.aperture, riseMm, shiftMm },
    },
  ];
};

export const converterClips: SettingCheck<'converter_clips'> = (s) => {
  const { chain, circles } = s.facts;
  const wholeMm = circleDiameterMm(circles, s.station.aperture) * s.combined * s.factor;
  const leftMm = s.circleMm * s.factor;
  if (leftMm >= wholeMm - 1e-6) return [];
  const at = chain.findIndex((part) => part.kind === 'multiplier' && part.circle_limit_mm);
  return [{ severity: 'warn', joint: at, values: { name: partName(chain[at]!), leftMm, wholeMm } }];
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
const throatsOf = perRig(({ chain, back }: RigFacts): Throat[] => {
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
});

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
  return mostOf(needed.filter(Number.isFinite));
}

/** A throat is measured to about this, mm. */
const MEASURED_MM = 0.05;

/** Whether a throat of body or adapter shades the corners, as the movements are set. */
export const throatShades: SettingCheck<'throat_shades'> = (s) =>
  throatsOf(s.facts).flatMap((throat): Finding<'throat_shades'>[] => {
    const { throatMm, name, joint } = throat;
    const fits = (needed: number): boolean => !(needed > throatMm + MEASURED_MM);
    const neededMm = throatNeeded(s, throat);
    if (fits(neededMm)) return [];
    const smallest = smallestStop(s.facts) * s.combined;
    return [
      {
        severity: 'warn',
        joint,
        values: {
          name,
          throatMm,
          neededMm,
          byShift: fits(throatNeeded(s, throat, { straight: true })),
          byStop: fits(throatNeeded(s, throat, { fNumber: smallest })),
        },
      },
    ];
  });
