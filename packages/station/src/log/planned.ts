import { carried, DECIMALS } from '../card/carried.js';
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
  | ('file' | 'file_sure' | 'file_fixed')
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

function plannedAnew(planned: Station, { frame, bracket }: Which): LineSettings {
  const station = carried(planned);
  const { optics } = readings(station);
  const { exposure, lens, focus } = planned;
  const report = exposure ? exposureReport(planned, exposure) : null;
  const timeS = exposure?.flash
    ? null
    : bracket === null
      ? (report?.dial_s ?? report?.given_s ?? null)
      : (report?.brackets_dial_s[bracket - 1] ?? report?.brackets_s[bracket - 1] ?? null);
  const iso = isoOf(planned);
  const filters = (exposure?.filters ?? []).map((each, i) => each.name || `Filter ${i + 1}`);
  const set = station.focus;
  return {
    ...(frame === null ? {} : { frame }),
    ...(bracket === null ? {} : { bracket }),
    f_number: station.aperture,
    ...(timeS === null ? {} : { time_s: timeS }),
    ...(iso === null ? {} : { iso }),
    ...(exposure?.shutter ? { shutter: exposure.shutter.kind } : {}),
    ...(exposure?.flash ? { flash: true } : {}),
    ...(filters.length > 0 ? { filters } : {}),
    movements: movementsAt(station, frame),
    ...(focus.distance_m === undefined ? {} : { focus_m: set.distance_m ?? null }),
    ...(focus.image_distance_mm === undefined ? {} : { image_distance_mm: set.image_distance_mm! }),
    focal_length_mm: rounded(optics.focal_length_mm, 2),
    ...(lens.name ? { lens: lens.name } : {}),
    ...(optics.circle_diameter_mm > 0 ? { circle_mm: rounded(optics.circle_diameter_mm, 1) } : {}),
  };
}
