import { distance, mm } from '../../words/format.js';
import type { Station } from '../../document/station.js';
import { drawMm, extensionSetMm } from '../draw.js';
import type { Asked, Check, Finding } from './problem.js';

/** Recessed boards as they are made; source: common practice, no source. */
const RECESSES_MM = [10, 15, 20] as const;

/** Within this share above its least draw a bellows is taken to be cramped: a choice, no source. */
const CRAMPED_SHARE = 0.1;

/** Draw that the lens asks for with an extension past infinity's place. */
const drawFor = ({ lengths }: Asked, extensionMm: number): number => drawMm(lengths, extensionMm);

/** How far the bellows are drawn out at the focus set past infinity's place. */
const extensionSet = ({ station, setup }: Asked): number => extensionSetMm(station, setup);

export const boardWords = (offsetMm: number): string =>
  offsetMm < 0 ? `a ${mm(-offsetMm, 0)} recessed board` : `a ${mm(offsetMm, 0)} extension board`;

const jointOf = ({ chain }: Station): number =>
  chain.findIndex((part) => part.kind === 'view_camera');

/** The shallowest board that makes up `missingMm` of draw, as boards are made. */
function recessFor(boardOffsetMm: number, missingMm: number): number {
  const total = -boardOffsetMm + missingMm;
  const made = RECESSES_MM.find((recess) => recess >= total - 1e-9);
  return -(made ?? Math.ceil(total / 5) * 5);
}

export const bellowsTooLong: Check = (asked) => {
  const { lengths, reach } = asked;
  const { bellows } = lengths;
  if (!bellows) return [];
  const least = bellows.bellows_min_mm;
  const [atInfinity, atFocus] = [drawFor(asked, 0), drawFor(asked, extensionSet(asked))];
  if (atInfinity >= least - 1e-6 && atFocus >= least - 1e-6) return [];
  const offset = recessFor(lengths.boardOffsetMm, least - Math.min(atInfinity, atFocus));
  const far =
    reach.farthestMm !== null && Number.isFinite(reach.farthestMm)
      ? ` It focuses to ${distance(reach.farthestMm / 1000, 'metric')} at most.`
      : '';
  return [
    {
      severity: atFocus < least - 1e-6 ? 'stop' : 'warn',
      joint: jointOf(asked.station),
      message: `At infinity the lens needs a draw of ${mm(atInfinity)}; the bellows close to ${mm(least)} only.${far}`,
      cure: `Put the lens on ${boardWords(offset)}${lengths.boardOffsetMm === 0 ? '' : ' instead'}: the draw becomes ${mm(atInfinity + lengths.boardOffsetMm - offset)}.`,
      want: {
        kind: 'board',
        offsetMm: [-Infinity, -(-lengths.boardOffsetMm + least - Math.min(atInfinity, atFocus))],
      },
    },
  ];
};

export const bellowsTooShort: Check = (asked) => {
  const { lengths } = asked;
  const { bellows } = lengths;
  if (!bellows) return [];
  const most = bellows.bellows_max_mm;
  const needed = Math.max(drawFor(asked, 0), drawFor(asked, extensionSet(asked)));
  if (needed <= most + 1e-6) return [];
  const missing = needed - most;
  const offset = Math.ceil((lengths.boardOffsetMm + missing) / 5) * 5;
  return [
    {
      severity: 'stop',
      joint: jointOf(asked.station),
      message: `The focus set needs a draw of ${mm(needed)}; the bellows reach ${mm(most)}.`,
      cure: `${offset > 0 ? `Put the lens on ${boardWords(offset)}` : 'Put the lens on a flat board'}, focus further off, or use a lens of telephoto design.`,
      want: { kind: 'board', offsetMm: [lengths.boardOffsetMm + missing, Infinity] },
    },
  ];
};

export const bellowsCramped: Check = (asked) => {
  const { bellows } = asked.lengths;
  if (!bellows) return [];
  const least = bellows.bellows_min_mm;
  const draw = drawFor(asked, extensionSet(asked));
  // Where infinity is out of reach that is said already, with a board that gives more room.
  if (drawFor(asked, 0) < least - 1e-6) return [];
  if (draw < least - 1e-6 || draw >= least * (1 + CRAMPED_SHARE)) return [];
  const moves = Object.values(asked.station.movements).some((value) => value !== 0);
  const finding: Finding = {
    severity: 'warn',
    joint: jointOf(asked.station),
    message: `The bellows are drawn ${mm(draw)} with ${mm(least)} the least: ${moves ? 'the movements set may not be reached' : 'movements will be cramped'}.`,
    cure: `Fit a bag bellows, or a deeper board: ${boardWords(recessFor(asked.lengths.boardOffsetMm, least * (1 + CRAMPED_SHARE) - draw))}.`,
  };
  return [finding];
};
