import { stackFrames } from '@gangway/optics';
import { fixed, fStop, mm, signed } from '../words/format.js';
import { diffractionAt } from '../optical/stops.js';
import { DIFFRACTION_WORDS } from '../words/diffraction.js';
import { reportPerspective } from '../optical/perspective.js';
import { setupOf } from '../optical/setup.js';
import { parseStation } from '../document/parse.js';
import { alsoWords } from '../ways/changes.js';
import type { Draft, Way } from '../ways/way.js';
import type { Station } from '../document/station.js';
import { freedomsOf, leansBack, solveOf } from './freedoms.js';
import { stackStepOf } from './report.js';
import { settled } from './set.js';
import { solveStation, type FocusAnswer } from './solve.js';
import { straightAnswer } from './straight.js';
import { heldStop } from '../document/stop.js';
import { leanSaid } from '../words/lean.js';

/** The stop at which a shift lens is sharpest on small formats (common practice, no source). */
const SHARPEST = 8;

export const stackStop = ({ lens, stack }: Station): number =>
  stack?.f_number ?? heldStop(lens, SHARPEST);

/** A draft before it is ranked: these are listed in the order a photographer thinks of them. */
type Found = Omit<Draft<Station>, 'cost'>;

/** Alternatives to the solution, each solved and ready to be tried. */
export function focusWays(station: Station, answer: FocusAnswer): Way<Station>[] {
  const found = [
    straight(station, answer),
    stack(station, answer),
    ...oneAxis(station, answer),
    otherStandard(station),
    joined(station),
  ].filter((way) => way !== null);
  return found
    .filter(({ after }) => parseStation(after).ok)
    .map(({ says, price, ...way }) => ({
      ...way,
      detail: [price, alsoWords(station, way.after, says)].filter(Boolean).join('; '),
    }));
}

const holdsWords = (answer: FocusAnswer): string =>
  answer.held
    ? `${fStop(answer.station.aperture)} holds ${answer.marks.sharp.length}`
    : `asks for f/${fixed(answer.engravedNeeded, 0)}, past this lens`;

/** What diffraction takes at the stop it is set to; empty where that is nothing. */
function diffracted({ setup: s }: FocusAnswer): string {
  const kind = diffractionAt(s);
  return kind === 'none' ? '' : `; diffraction ${DIFFRACTION_WORDS[kind]}`;
}

const uncovered = (answer: FocusAnswer): string =>
  answer.within ? '' : '; the circle does not cover it';

const leans = ({ solved }: FocusAnswer): boolean =>
  Math.abs(solved.lens.tiltDeg) + Math.abs(solved.lens.swingDeg) > 0.05 ||
  Math.abs(solved.rear.tiltDeg) + Math.abs(solved.rear.swingDeg) > 0.05;

/** What a title that begins “No lean” speaks of. */
const STRAIGHTENED = [
  '/movements/tilt',
  '/movements/swing',
  '/movements/rear_tilt',
  '/movements/rear_swing',
  '/aperture',
];

function straight(station: Station, answer: FocusAnswer): Found | null {
  if (!leans(answer)) return null;
  const found = straightAnswer(station);
  if (!found) return null;
  return {
    id: 'straight',
    says: STRAIGHTENED,
    title: `No lean, f/${fixed(found.engravedNeeded, found.engravedNeeded < 10 ? 1 : 0)}`,
    price: found.held ? `${holdsWords(found)}${diffracted(found)}` : holdsWords(found),
    after: settled(found),
  };
}

function stack(station: Station, answer: FocusAnswer): Found | null {
  const found = straightAnswer(station, answer);
  if (!found) return null;
  const fNumber = stackStop(station);
  const after = { ...settled(found), aperture: fNumber };
  const frames = stackFrames(found.spreadMm, stackStepOf(station, found, fNumber));
  if (frames < 2) return null;
  return {
    id: 'stack',
    says: STRAIGHTENED,
    title: `No lean, a stack of ${frames} at ${fStop(fNumber)}`,
    price: `${mm(found.spreadMm, 2)} of travel, about ${minutes(frames * (station.stack?.seconds_each ?? SECONDS_EACH))}`,
    after,
  };
}

/** One frame of a stack with its wait (common practice, no source). */
export const SECONDS_EACH = 10;

export const minutes = (seconds: number): string =>
  seconds < 90 ? `${fixed(seconds, 0)} s` : `${fixed(seconds / 60, 0)} min`;

/** Tilt or swing alone, where both are in use. */
function oneAxis(station: Station, answer: FocusAnswer): Found[] {
  const { tiltDeg, swingDeg } = answer.solved.lens;
  if (solveOf(station).rear || Math.abs(tiltDeg) < 0.1 || Math.abs(swingDeg) < 0.1) return [];
  const without = (alone: 'tilt' | 'swing'): Found | null => {
    const field = alone === 'tilt' ? 'swing_deg' : 'tilt_deg';
    const from = { ...station, movements: { ...station.movements, [field]: 0 } };
    const found = solveStation(from, {
      freedoms: freedomsOf(from, { tilt: alone === 'tilt', swing: alone === 'swing' }),
    });
    return (
      found && {
        id: `${alone}-alone`,
        says: ['/movements/tilt', '/movements/swing', '/aperture'],
        title: `${alone === 'tilt' ? 'Tilt' : 'Swing'} alone, ${leanSaid(found.station.movements)}`,
        price: `${holdsWords(found)}${uncovered(found)}`,
        after: settled(found),
      }
    );
  };
  return [without('tilt'), without('swing')].filter((way) => way !== null);
}

/** The back instead of the lens, or the lens instead of the back, with what it does to the lines. */
function otherStandard(station: Station): Found | null {
  if (!leansBack(station)) return null;
  const solve = solveOf(station);
  const { movements } = station;
  const { rear_tilt_deg: _t, rear_swing_deg: _s, ...own } = movements;
  const from: Station = solve.rear
    ? { ...station, movements: own }
    : { ...station, movements: { ...movements, tilt_deg: 0, swing_deg: 0 } };
  const found = solveStation(from, { freedoms: freedomsOf(from, { ...solve, rear: !solve.rear }) });
  if (!found) return null;
  const before = reportPerspective(setupOf(station)).convergence_deg;
  const after = reportPerspective(found.setup).convergence_deg;
  const bends = Math.abs(after - before);
  return {
    id: 'other-standard',
    says: ['/solve', '/aperture'],
    title: solve.rear ? 'Lean the lens instead' : 'Lean the back instead',
    price: `${holdsWords(found)}; ${bends < 0.05 ? 'upright lines stay as they are' : `upright lines converge ${signed(after, 1)}°`}${solve.rear ? '' : ', the circle stays where it is'}${uncovered(found)}`,
    after: { ...settled(found), solve: { ...solve, rear: !solve.rear } },
  };
}

/** Marks of which nothing is asked taken in as well. */
function joined(station: Station): Found | null {
  const free = (station.marks ?? []).filter(({ must }) => must === 'free');
  if (free.length === 0) return null;
  const all: Station = {
    ...station,
    marks: station.marks!.map((mark) => (mark.must === 'free' ? { ...mark, must: 'sharp' } : mark)),
  };
  const found = solveStation(all);
  if (!found) return null;
  return {
    id: 'joined',
    says: ['/movements/tilt', '/movements/swing', '/aperture'],
    title: `${free.length === 1 ? `${free[0]!.label || 'The free mark'} joins` : `The ${free.length} free marks join`} in, ${leanSaid(found.station.movements)}`,
    price: `${holdsWords(found)}${uncovered(found)}`,
    after: settled(found),
  };
}
