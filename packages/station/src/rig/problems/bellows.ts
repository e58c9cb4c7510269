import { drawMm, extensionSetMm } from '../../optical/draw.js';
import type { ChainPart } from '../../document/station.js';
import type { Setup } from '../../optical/setup.js';
import type { SettingCheck } from './problem.js';

/** Recessed boards as they are made; source: common practice, no source. */
const RECESSES_MM = [10, 15, 20] as const;

/** Within this share above its least draw a bellows is taken to be cramped: a choice, no source. */
const CRAMPED_SHARE = 0.1;

/** Draw that the lens asks for with an extension past infinity's place. */
const drawFor = ({ facts }: Setup, extensionMm: number): number =>
  drawMm(facts.lengths, extensionMm);

const jointOf = (chain: readonly ChainPart[]): number =>
  chain.findIndex((part) => part.kind === 'view_camera');

/** The shallowest board that makes up `missingMm` of draw, as boards are made. */
function recessFor(boardOffsetMm: number, missingMm: number): number {
  const total = -boardOffsetMm + missingMm;
  const made = RECESSES_MM.find((recess) => recess >= total - 1e-9);
  return -(made ?? Math.ceil(total / 5) * 5);
}

export const bellowsTooLong: SettingCheck<'bellows_too_long'> = (s) => {
  const { lengths, reach, chain } = s.facts;
  const { bellows } = lengths;
  if (!bellows) return [];
  const leastMm = bellows.bellows_min_mm;
  const [atInfinityMm, atFocus] = [drawFor(s, 0), drawFor(s, extensionSetMm(s))];
  if (atInfinityMm >= leastMm - 1e-6 && atFocus >= leastMm - 1e-6) return [];
  const { farthestMm } = reach;
  const missing = leastMm - Math.min(atInfinityMm, atFocus);
  return [
    {
      severity: atFocus < leastMm - 1e-6 ? 'stop' : 'warn',
      joint: jointOf(chain),
      values: {
        atInfinityMm,
        leastMm,
        farthestMm: farthestMm !== null && Number.isFinite(farthestMm) ? farthestMm : null,
        boardMm: lengths.boardOffsetMm,
        offsetMm: recessFor(lengths.boardOffsetMm, missing),
      },
      want: {
        kind: 'board',
        offsetMm: [
          -Infinity,
          -(-lengths.boardOffsetMm + leastMm - Math.min(atInfinityMm, atFocus)),
        ],
      },
    },
  ];
};

export const bellowsTooShort: SettingCheck<'bellows_too_short'> = (s) => {
  const { lengths, chain } = s.facts;
  const { bellows } = lengths;
  if (!bellows) return [];
  const mostMm = bellows.bellows_max_mm;
  const neededMm = Math.max(drawFor(s, 0), drawFor(s, extensionSetMm(s)));
  if (neededMm <= mostMm + 1e-6) return [];
  const missing = neededMm - mostMm;
  return [
    {
      severity: 'stop',
      joint: jointOf(chain),
      values: {
        neededMm,
        mostMm,
        offsetMm: Math.ceil((lengths.boardOffsetMm + missing) / 5) * 5,
      },
      want: { kind: 'board', offsetMm: [lengths.boardOffsetMm + missing, Infinity] },
    },
  ];
};

export const bellowsCramped: SettingCheck<'bellows_cramped'> = (s) => {
  const { lengths, chain } = s.facts;
  const { bellows } = lengths;
  if (!bellows) return [];
  const leastMm = bellows.bellows_min_mm;
  const draw = drawFor(s, extensionSetMm(s));
  // Where infinity is out of reach that is said already, with a board that gives more room.
  if (drawFor(s, 0) < leastMm - 1e-6) return [];
  if (draw < leastMm - 1e-6 || draw >= leastMm * (1 + CRAMPED_SHARE)) return [];
  return [
    {
      severity: 'warn',
      joint: jointOf(chain),
      values: {
        drawMm: draw,
        leastMm,
        moved: Object.values(s.station.movements).some((value) => value !== 0),
        offsetMm: recessFor(lengths.boardOffsetMm, leastMm * (1 + CRAMPED_SHARE) - draw),
      },
    },
  ];
};
