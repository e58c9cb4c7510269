import { CONTROLS, type ControlId } from '../../controls/controls.js';
import { fixed } from '../../words/format.js';
import { scaleOf } from '../../controls/scales.js';
import type { Station } from '../../document/station.js';
import type { Movement } from '../../document/movements.js';
import { movedNoun, moveSaid, standardOf } from '../../words/hands.js';
import { sense, unitOf } from '../../words/names.js';
import type { Draft } from '../../ways/way.js';
import type { Kind, Question } from './kind.js';
import { rounded } from '../../words/rounded.js';

const MOVED: readonly { id: ControlId; field: Movement }[] = [
  { id: 'rise', field: 'rise_mm' },
  { id: 'shift', field: 'shift_mm' },
  { id: 'tilt', field: 'tilt_deg' },
  { id: 'swing', field: 'swing_deg' },
];

/** What a movement is worth before any of it is given up, in stops. */
const ANY_CHANGE = 0.5;
const ALL_OF_IT = 4;

/** Moving what stood at zero, or past zero, makes another picture. */
const ANOTHER_PICTURE = 1.5;

const TENTH = 0.1;

/** A tenth of a millimetre or degree, rounded so that it stays inside the stretch. */
function settable(value: number, from: number, to: number): number | null {
  const down = rounded(Math.floor(value / TENTH + 1e-7) * TENTH, 1);
  const up = rounded(Math.ceil(value / TENTH - 1e-7) * TENTH, 1);
  const inside = (n: number): boolean => n >= from - 1e-9 && n <= to + 1e-9;
  return (
    [down, up].filter(inside).sort((a, b) => Math.abs(a - value) - Math.abs(b - value))[0] ?? null
  );
}

/** The nearest value of one movement at which the frame stands well, the rest held. */
function nearest(question: Question, id: ControlId): number | null {
  const { station, state } = question;
  const scale = scaleOf(station, id);
  const good = scale.segments.filter(
    ({ standing }) => standing === 'within' || (state !== 'soft' && standing === 'costs'),
  );
  const targets = good.flatMap(({ from, to }) => {
    const value = settable(Math.min(to, Math.max(from, scale.value)), from, to);
    return value === null ? [] : [value];
  });
  // A lean is there for the focus: it may be eased, never added to or turned round.
  const eased = (value: number): boolean => {
    const towardsZero = Math.abs(value) < Math.abs(scale.value) && value * scale.value >= 0;
    return id === 'rise' || id === 'shift' || towardsZero;
  };
  const near = targets
    .filter(eased)
    .sort((a, b) => Math.abs(a - scale.value) - Math.abs(b - scale.value))[0];
  return near ?? null;
}

function title(station: Station, field: Movement, to: number): string {
  const from = station.movements[field];
  const figure = `${fixed(Math.abs(to), 1)}${unitOf(field) === 'mm' ? ' mm' : '°'}`;
  if (to === 0) return `Zero the ${movedNoun(station, field, from)}`;
  if (from !== 0 && Math.sign(from) === Math.sign(to) && Math.abs(to) < Math.abs(from)) {
    return `Ease the ${movedNoun(station, field, from)} to ${figure}`;
  }
  if (standardOf(station) === 'back' && (field === 'rise_mm' || field === 'shift_mm')) {
    return moveSaid(station, 'back', field === 'rise_mm' ? 'rise' : 'shift', to);
  }
  return `Set ${figure} of ${sense(field, to)}`;
}

function draft(station: Station, field: Movement, id: ControlId, value: number): Draft<Station> {
  const now = station.movements[field];
  const [, end] = CONTROLS[id].domain(station);
  const change = Math.abs(value - now);
  const unit = unitOf(field) === 'mm' ? ' mm' : '°';
  const less = Math.abs(value) < Math.abs(now);
  return {
    id: `ease-${id}`,
    says: [`/movements/${field}`],
    title: title(station, field, value),
    price: `${less ? 'gives up' : 'moves the picture'} ${fixed(change, 1)}${unit}`,
    cost: ANY_CHANGE + (ALL_OF_IT * change) / end + (less ? 0 : ANOTHER_PICTURE),
    after: CONTROLS[id].write(station, value),
  };
}

/** Each movement by itself, brought to the nearest setting that serves. */
export const easeMovement: Kind = (question) =>
  MOVED.flatMap(({ id, field }) => {
    const value = nearest(question, id);
    if (value === null || value === question.station.movements[field]) return [];
    return [draft(question.station, field, id, value)];
  });
