import { distance as spoken, fixed, type Units } from '../../words/format.js';
import { leastThatFrames } from '../place.js';
import { raised, stepped } from '../step.js';
import type { Draft } from '../../ways/way.js';
import type { FramingKind } from './kind.js';
import type { Station } from '../../document/station.js';

/** An amount found in tenths of a metre, as it is spoken of. */
const amountOf = (m: number, units: Units): string =>
  units === 'metric' ? `${fixed(m, 1)} m` : spoken(m, units);

/** A tenth of a metre is as finely as a tripod is stood. */
const STEP_M = 0.1;
const FARTHEST_TIMES = 20;

/** Moving the tripod: back, and closer where that helps. */
export const step: FramingKind = ({ station, units }) => {
  const distance = station.facade!.distance_m;
  const back = leastThatFrames((m) => stepped(station, m), distance * FARTHEST_TIMES, STEP_M);
  const closer = leastThatFrames((m) => stepped(station, -m), distance * 0.95, STEP_M);
  const draft = (found: NonNullable<typeof back>, word: string, sign: 1 | -1): Draft<Station> => ({
    says: ['/facade', '/site', '/marks'],
    id: `frame-step-${word}`,
    title: `Step ${word} ${amountOf(found.amount, units)}`,
    price: `stand ${spoken(distance + sign * found.amount, units)} from it`,
    cost: 1 + (4 * found.amount) / distance,
    after: found.after,
  });
  return [
    ...(back ? [draft(back, 'back', 1)] : []),
    ...(closer && distance - closer.amount > 0 ? [draft(closer, 'closer', -1)] : []),
  ];
};

/** A window opposite; higher is another matter. */
const HIGHEST_M = 12;

/** A ladder, a window opposite, a lower tripod. Higher than two metres is a matter of safety. */
export const raise: FramingKind = ({ station, units }) => {
  const up = leastThatFrames((m) => raised(station, m), HIGHEST_M, STEP_M);
  const down = leastThatFrames(
    (m) => raised(station, -m),
    Math.max(STEP_M, station.camera.height_m),
    STEP_M,
  );
  const now = station.camera.height_m;
  return [
    ...(up
      ? [
          {
            says: ['/camera/height_m'],
            id: 'frame-raise',
            title: `Raise the camera ${amountOf(up.amount, units)}`,
            price:
              now + up.amount > 2
                ? `stands ${spoken(now + up.amount, units)} high; work from firm ground, and tie it down`
                : `stands ${spoken(now + up.amount, units)} high`,
            cost: 1.2 + up.amount,
            after: up.after,
          },
        ]
      : []),
    ...(down
      ? [
          {
            says: ['/camera/height_m'],
            id: 'frame-lower',
            title: `Lower the camera ${amountOf(down.amount, units)}`,
            price: `stands ${spoken(now - down.amount, units)} high`,
            cost: 1 + down.amount,
            after: down.after,
          },
        ]
      : []),
  ];
};
