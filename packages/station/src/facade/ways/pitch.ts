import { evaluatePitch } from '../correction.js';
import { degrees, fixed } from '../../words/format.js';
import type { Station } from '../../document/station.js';
import { leastThatFrames } from '../place.js';
import type { FramingKind } from './kind.js';

const MOST_DEG = 45;
const STEP_DEG = 0.1;

const pitched = (station: Station, by: number): Station | null => {
  const pitch_deg = Number((station.camera.pitch_deg + by).toFixed(4)) + 0;
  return Math.abs(pitch_deg) > MOST_DEG
    ? null
    : { ...station, camera: { ...station.camera, pitch_deg } };
};

/** All the movement there is, and the rest by pointing the camera up or down. */
export const pitch: FramingKind = ({ station }) =>
  ([1, -1] as const).flatMap((way) => {
    const found = leastThatFrames((deg) => pitched(station, way * deg), MOST_DEG, STEP_DEG);
    if (!found) return [];
    const { convergenceDeg, stretchAtTop, keptShare } = evaluatePitch(found.after);
    const kept = `${fixed(100 * keptShare, 0)} %`;
    return [
      {
        says: ['/camera/pitch_deg'],
        id: way > 0 ? 'frame-pitch-up' : 'frame-pitch-down',
        title: `Point the camera ${degrees(found.amount)} ${way > 0 ? 'up' : 'down'}`,
        price: `verticals meet at ${degrees(Math.abs(convergenceDeg))}; correcting stretches the far edge ${fixed(stretchAtTop, 2)} × and keeps ${kept} of the pixels`,
        cost: 2 + found.amount / 4 + 3 * (1 - keptShare),
        after: found.after,
      },
    ];
  });
