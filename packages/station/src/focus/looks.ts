import type { Freedom } from '@gangway/optics';
import { fStop } from '../words/format.js';
import type { Mark, Station } from '../document/station.js';
import { reportMarks } from './marks.js';
import { setupOf } from '../optical/setup.js';
import { freedomsOf } from './freedoms.js';
import { settled } from './set.js';
import { standingOf, stateOf } from '../optical/state.js';
import { solveStation, type FocusAnswer } from './solve.js';
import type { Way } from '../ways/way.js';
import { leanSaid } from '../words/lean.js';
import { leastOf } from '@gangway/optics';

/** Starts for pictures that are soft on purpose; empty without a mark that must be sharp. */
export function looksFor(station: Station): Way<Station>[] {
  const sharp = (station.marks ?? []).find(({ must }) => must === 'sharp');
  if (!sharp) return [];
  return [isolated(station), slice(station, sharp), toyTown(station, sharp)].filter(
    (look) => look !== null,
  );
}

const wide = (station: Station): Station => ({ ...station, aperture: station.lens.f_min });

const blurWords = (station: Station): string => {
  const marks = reportMarks(setupOf(station));
  const soft = marks.filter((_, i) => station.marks![i]!.must === 'soft');
  const least = leastOf(soft.map(({ blur_um }) => blur_um ?? Infinity));
  return soft.length === 0 || !Number.isFinite(least)
    ? ''
    : `, the rest by ${Math.round(least)} µm or more`;
};

/** The first sharp mark alone, every other as soft as it is asked for. */
function isolated(station: Station): Way<Station> | null {
  const marks = station.marks!;
  if (marks.length < 2) return null;
  const first = marks.findIndex(({ must }) => must === 'sharp');
  const asked: Station = wide({
    ...station,
    movements: { ...station.movements, tilt_deg: 0, swing_deg: 0 },
    marks: marks.map((mark, i): Mark => ({ ...mark, must: i === first ? 'sharp' : 'soft' })),
  });
  const found = softest([
    solveStation(asked, { widest: true }),
    ...hardLeans(station).map((freedom) =>
      solveStation(asked, { freedoms: [freedom], widest: true }),
    ),
  ]);
  if (!found) return null;
  return {
    id: 'one',
    title: `Only ${marks[first]!.label || 'the first mark'}`,
    detail: `${leanSaid(found.station.movements)}, ${fStop(found.station.aperture)}${blurWords(found.station)}`,
    after: settled(found),
  };
}

/** The answer that serves and leaves the rest softest. */
function softest(answers: readonly (FocusAnswer | null)[]): FocusAnswer | null {
  const least = ({ station }: FocusAnswer): number =>
    leastOf(
      reportMarks(setupOf(station))
        .filter((_, i) => station.marks![i]!.must === 'soft')
        .map(({ blur_um }) => blur_um ?? Infinity),
    );
  const found = answers.filter((answer) => answer !== null);
  const serving = found.filter(
    (answer) => answer.held && standingOf(stateOf(answer.station)) !== 'outside',
  );
  const from = serving.length > 0 ? serving : found.slice(0, 1);
  return from.reduce<FocusAnswer | null>(
    (best, answer) => (!best || least(answer) > least(best) * 1.05 ? answer : best),
    null,
  );
}

/** The leans at the ends of what may be leaned, each way. */
const hardLeans = (station: Station): Freedom[] =>
  freedomsOf(station).flatMap((freedom): Freedom[] => {
    const held = (deg: number): number => Math.max(-HARD_DEG, Math.min(HARD_DEG, deg));
    if (freedom.kind === 'turned') {
      return freedom.lean.map((end) => ({ ...freedom, lean: [held(end), held(end)] as const }));
    }
    const { tilt, swing } = freedom;
    const most = Math.min(freedom.leanDeg, HARD_DEG);
    const end = (deg: number): number => Math.max(-most, Math.min(most, deg));
    return [
      ...tilt.map((deg) => ({
        ...freedom,
        tilt: [end(deg), end(deg)] as const,
        swing: [0, 0] as const,
      })),
      ...swing.map((deg) => ({
        ...freedom,
        tilt: [0, 0] as const,
        swing: [end(deg), end(deg)] as const,
      })),
    ];
  });

/** All the swing there is, focused on the sharp mark: a thin upright slice from front to back. */
function slice(station: Station, sharp: Mark): Way<Station> | null {
  return leaned(station, sharp, 'swing', {
    id: 'slice',
    title: 'A thin slice into the depth',
  });
}

/** All the tilt there is backwards: a level band, what is above and below it melts away. */
function toyTown(station: Station, sharp: Mark): Way<Station> | null {
  return leaned(station, sharp, 'tilt', {
    id: 'toy-town',
    title: 'A toy town',
  });
}

function leaned(
  station: Station,
  sharp: Mark,
  by: 'tilt' | 'swing',
  named: { id: string; title: string },
): Way<Station> | null {
  const [freedom] = freedomsOf(station, { tilt: by === 'tilt', swing: by === 'swing' });
  if (!freedom) return null;
  const range =
    freedom.kind === 'turned' ? freedom.lean : by === 'tilt' ? freedom.tilt : freedom.swing;
  // Towards the side the mark is not on, so that the plane leans across the scene; for a toy town back.
  const end = by === 'tilt' ? range[0] : sharp.x_m > 0 ? range[0] : range[1];
  const deg = Math.abs(end) > 1e-6 ? end : range[0] + range[1] - end;
  if (Math.abs(deg) < 0.5) return null;
  const most = Math.sign(deg) * Math.min(Math.abs(deg), HARD_DEG);
  const lock = by === 'tilt' ? { tilt: most, swing: 0 } : { tilt: 0, swing: most };
  const only: Station = wide({ ...station, marks: [{ ...sharp, must: 'sharp' }] });
  const found = solveStation(only, {
    freedoms: [
      { kind: 'front', tilt: [lock.tilt, lock.tilt], swing: [lock.swing, lock.swing], leanDeg: 90 },
    ],
    anyCircle: true,
    widest: true,
  });
  if (!found) return null;
  const after: Station = { ...settled(found), marks: station.marks! };
  return {
    ...named,
    detail: `${leanSaid(after.movements)}, ${fStop(after.aperture)}, focused on ${sharp.label || 'the first mark'}${found.within ? '' : '; a corner leaves the circle'}`,
    after,
  };
}

/** A strong lean on any format; more can be set by hand. */
const HARD_DEG = 12;
