import type { Station } from '../document/station.js';
import {
  leanWaySaid,
  mechanicsOf,
  missedWords,
  shiftWaySaid,
  turningPart,
  type Mechanics,
  type Turning,
} from '../optical/turning.js';
import { degrees, mm, trimmed } from '../words/format.js';
import { clicksSaid } from './clicks-said.js';
import { SEEN, type Order, type Setting } from './order.js';

/** What turns about the lens, and is shifted and leaned along the way that it is turned to. */

/** What turns, its shift and its lean, as settings; those that stay at zero are told apart. */
export function turnedSettings(
  station: Station,
  turning: Turning,
): { readonly set: Setting[]; readonly rest: Setting[] } {
  const made = mechanicsOf(station)!;
  const { angleDeg, tiltAngleDeg, shiftMm, tiltDeg } = turning;
  const { detent_mm: mmClick, detent_deg: degClick } = station.movement_limits;
  const angle = (turns: 'both' | 'shift' | 'tilt', deg: number): Setting => ({
    control: { kind: 'turned', turns },
    to: deg,
    said: `${trimmed(deg, 1)}°`,
    way: '',
  });
  const shift: Setting = {
    control: { kind: 'along', movement: 'shift' },
    to: shiftMm,
    said: mm(Math.abs(shiftMm)),
    way: Math.abs(shiftMm) < SEEN ? '' : shiftWaySaid(station, turning),
    ...(mmClick ? { click: mmClick } : {}),
  };
  const lean: Setting = {
    control: { kind: 'along', movement: 'lean' },
    to: tiltDeg,
    said: degrees(Math.abs(tiltDeg)),
    way: Math.abs(tiltDeg) < SEEN ? '' : leanWaySaid(station, turning),
    ...(degClick ? { click: degClick } : {}),
  };
  const apart = tiltAngleDeg !== null;
  const shifts = made.shift && Math.abs(shiftMm) >= SEEN;
  const leans = made.tilt && Math.abs(tiltDeg) >= SEEN;
  const set = [
    ...(!apart && (shifts || leans) ? [angle('both', angleDeg)] : []),
    ...(apart && shifts ? [angle('shift', angleDeg)] : []),
    ...(shifts ? [shift] : []),
    ...(apart && leans ? [angle('tilt', tiltAngleDeg)] : []),
    ...(leans ? [lean] : []),
  ];
  return {
    set,
    rest: [...(made.shift && !shifts ? [shift] : []), ...(made.tilt && !leans ? [lean] : [])],
  };
}

const figureOf = ({ control, said }: Setting): string =>
  control.kind === 'turned' && control.turns === 'tilt' ? `tilt at ${said}` : said;

/** “Turn the lens to its 90° stop, clockwise as seen from behind, and there shift it to the right”. */
export function turnedSaid(station: Station, made: Mechanics, set: readonly Setting[]): string {
  const part = turningPart(station);
  const stop = (said: string): string => (made.stops.length > 0 ? `its ${said} stop` : said);
  const words: string[] = [];
  let joined = false;
  for (const { control, said, way } of set) {
    if (control.kind === 'turned') {
      const what = control.turns === 'both' ? part : `${part}’s ${control.turns}`;
      words.push(
        `${words.length === 0 ? 'Turn' : ', then turn'} ${what} to ${stop(said)}${words.length === 0 ? ', clockwise as seen from behind,' : ''}`,
      );
      joined = false;
    } else {
      words.push(
        `and ${joined ? '' : 'there '}${control.kind === 'along' && control.movement === 'lean' ? 'lean' : 'shift'} it ${way}`,
      );
      joined = true;
    }
  }
  return words.join(' ').replaceAll(' , ', ', ').replace(/,$/, '');
}

/** “shift it to the right” with its figure in place. */
export const figuresIn = (says: string, sets: readonly Setting[]): string =>
  sets.reduce((text, { control, said, way }) => {
    if (control.kind !== 'along') return text;
    const verb = control.movement === 'lean' ? 'lean it' : 'shift it';
    return text.replace(`${verb} ${way}`, `${verb} ${said} ${way}`);
  }, says);

export function turnOrder(station: Station, turning: Turning, id = 'turn'): Order[] {
  const made = mechanicsOf(station)!;
  const { set } = turnedSettings(station, turning);
  if (set.length === 0) return [];
  const missed = missedWords(turning, made);
  const clicks = set.flatMap(({ control, click, to }) =>
    control.kind === 'along' && to !== null ? [clicksSaid(click, to)] : [],
  );
  const detail = [...clicks.map(({ off }) => off), missed].filter(Boolean).join(' ');
  return [
    {
      id,
      part: 'move',
      says: `${turnedSaid(station, made, set)}${clicks.map(({ on }) => on).join('')}`,
      figure: set.map(figureOf).join(' · '),
      line: [
        `${figuresIn(turnedSaid(station, made, set), set)}${clicks.map(({ on }) => on).join('')}`,
        missed.replace(/\.$/, ''),
      ]
        .filter(Boolean)
        .join('. '),
      ...(detail === '' ? {} : { detail }),
      short: `turned ${set.map((each) => `${figureOf(each)}${each.way === '' ? '' : ` ${each.way}`}`).join(', ')}`,
      sets: set,
    },
  ];
}
