import { engravedFNumber } from '@gangway/optics';
import { carried, DECIMALS } from '../orders/carried.js';
import { ordersIn, ordersOf } from '../orders/orders.js';
import type { Logged } from '../document/logged.js';
import type { Station } from '../document/station.js';
import { exposureReport } from '../exposure/report.js';
import { isoOf } from '../exposure/verdict.js';
import { atLaidFrame, layoutOf } from '../mosaic/layout.js';
import { readings } from '../report/readings.js';
import { rounded } from '../words/rounded.js';

/** What a line of the log says of its settings. */
export type LineSettings = Omit<
  Logged,
  | ('id' | 'station' | 'at' | 'planned' | 'film' | 'rating' | 'kept' | 'note')
  | ('file' | 'file_sure' | 'file_fixed' | 'plan' | 'clock_off_s')
>;

/** Which exposure of a station: null where there is only the one. */
export interface Which {
  readonly frame: number | null;
  readonly bracket: number | null;
}

/** Number of frames that are laid out; 0 where there is no mosaic. */
export const framesOf = (station: Station): number =>
  station.mosaic && !station.held_off ? layoutOf(station).frames.length : 0;

/** Number of exposures of a bracket; 0 where there is none. */
export function bracketsOf({ exposure }: Station): number {
  const frames = exposure?.flash ? 1 : (exposure?.brackets?.frames ?? 1);
  return frames > 1 ? frames : 0;
}

/** The movements of one frame, as the hand sets them. */
function movementsAt(station: Station, frame: number | null): Station['movements'] {
  if (frame === null || framesOf(station) < frame) return station.movements;
  const { movements } = atLaidFrame(station, layoutOf(station), frame - 1);
  return Object.fromEntries(
    Object.entries(movements).map(([name, value]) => [
      name,
      typeof value === 'number' ? rounded(value, DECIMALS) : value,
    ]),
  ) as Station['movements'];
}

const known = new WeakMap<Station, Map<string, LineSettings>>();

/** The station’s own settings for one of its exposures, as the card has them. */
export function plannedFor(station: Station, which: Which): LineSettings {
  const key = `${which.frame} ${which.bracket}`;
  const before = known.get(station) ?? new Map<string, LineSettings>();
  known.set(station, before);
  const made = before.get(key) ?? plannedAnew(station, which);
  before.set(key, made);
  return made;
}

/** The time of one exposure; null with flash, and where none was worked out. */
function timeOf(planned: Station, bracket: number | null): number | null {
  const { exposure } = planned;
  if (!exposure || exposure.flash) return null;
  const report = exposureReport(planned, exposure);
  if (bracket === null) return report.dial_s ?? report.given_s;
  return report.brackets_dial_s[bracket - 1] ?? report.brackets_s[bracket - 1] ?? null;
}

const given = <K extends string, V>(name: K, value: V | null | undefined) =>
  (value === null || value === undefined ? {} : { [name]: value }) as { [key in K]?: V };

/** What stands before the shutter and in it. */
const lightOf = (planned: Station, bracket: number | null) => {
  const { exposure } = planned;
  const filters = (exposure?.filters ?? []).map((each, i) => each.name || `Filter ${i + 1}`);
  return {
    ...given('time_s', timeOf(planned, bracket)),
    ...given('iso', isoOf(planned)),
    ...given('shutter', exposure?.shutter?.kind),
    ...given('flash', exposure?.flash ? true : null),
    ...given('filters', filters.length > 0 ? filters : null),
  };
};

/** What the hand read where it focused; of a lens in the hand the gap and the lean. */
function focusOf(planned: Station): Partial<LineSettings> {
  const { held_off: hand } = carried(planned);
  if (hand) {
    const { gap_mm, lean_deg, turn_deg } = hand;
    const turn = turn_deg === undefined ? null : rounded(turn_deg, DECIMALS);
    const lean = rounded(lean_deg, DECIMALS);
    return { held_off: { gap_mm, lean_deg: lean, ...given('turn_deg', turn) } };
  }
  const found: Partial<LineSettings>[] = ordersIn(ordersOf(planned), 'focus').flatMap(({ sets }) =>
    sets.map(({ control, to }): Partial<LineSettings> => {
      if (control.kind === 'ring') {
        return control.engraved === 'distance' ? { ring_m: to } : given('ring_magnification', to);
      }
      if (control.kind === 'bed') {
        return control.counts === 'own' ? given('bed_mm', to) : given('drawn_mm', to);
      }
      return control.kind === 'draw' ? given('drawn_mm', to) : {};
    }),
  );
  return Object.assign({}, ...found) as Partial<LineSettings>;
}

function plannedAnew(planned: Station, { frame, bracket }: Which): LineSettings {
  const station = carried(planned);
  const { optics } = readings(station);
  const { focus } = station;
  const held = station.held_off !== undefined;
  return {
    ...given('frame', frame),
    ...given('bracket', bracket),
    // As the ring has it: 11, which stands for 11.3.
    f_number: engravedFNumber(station.aperture),
    ...lightOf(planned, bracket),
    ...(held ? {} : { movements: movementsAt(station, frame) }),
    ...focusOf(planned),
    // Infinity is a distance too.
    ...(held || focus.distance_m === undefined ? {} : { focus_m: focus.distance_m }),
    ...given('image_distance_mm', held ? null : focus.image_distance_mm),
    focal_length_mm: rounded(optics.focal_length_mm, 2),
    ...given('lens', planned.lens.name || null),
    ...given(
      'circle_mm',
      optics.circle_diameter_mm > 0 ? rounded(optics.circle_diameter_mm, 1) : null,
    ),
  };
}

/** The plan that an exposure is shot by, as its line keeps it. */
export function planFor(
  station: Station,
  which: Which,
  revision: number | null,
): NonNullable<Logged['plan']> {
  const { frame: _f, bracket: _b, ...settings } = plannedFor(station, which);
  return { ...given('station_revision', revision), ...settings };
}
