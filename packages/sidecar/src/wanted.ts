import {
  dialSaid,
  engravedFNumber,
  meantFNumber,
  readingOf,
  setSaid,
  trimmed,
  type Logged,
  type Station,
} from '@gangway/station';
import type { Prefix } from './namespaces.js';
import { INFINITE, rational, rationalTo } from './rational.js';

/** What a sidecar is to say of one exposure. */

export type Value =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  /** When it was made; a finer fraction that is there stays. */
  | { readonly kind: 'moment'; readonly text: string }
  /** What another hand gave stays. */
  | { readonly kind: 'rating'; readonly text: string }
  /** In every language that is not told otherwise; a person’s own words stay. */
  | { readonly kind: 'sentence'; readonly text: string }
  /** Added to those that are there. */
  | { readonly kind: 'keywords'; readonly items: readonly string[] }
  /** One field of a structure; the others stay. */
  | { readonly kind: 'flash'; readonly fired: boolean };

export interface Wanted {
  readonly prefix: Prefix;
  readonly name: string;
  readonly value: Value;
}

export interface Exposed {
  readonly line: Logged;
  readonly job: string;
  readonly station?: Station | undefined;
}

const text = (prefix: Prefix, name: string, value: string): Wanted => ({
  prefix,
  name,
  value: { kind: 'text', text: value },
});

/** A time as cameras write it: what is engraved where a shutter has it, else what it is. */
function timeRational(timeS: number): string {
  const said = dialSaid(timeS, 'third').replace(/ s$/, '');
  const engraved = /^1\/(\d+)$/.exec(said)
    ? said
    : /^[\d.]+$/.test(said)
      ? rational(Number(said))
      : null;
  const [n = NaN, d = NaN] = (engraved ?? '').split('/').map(Number);
  // A third-stop scale has steps a quarter of a stop from what they stand for; others are as given.
  return engraved !== null && Math.abs(Math.log2(n / d / timeS)) < 0.1 ? engraved : rational(timeS);
}

/** What all converters behind the lens make of its f-number. */
const multiplied = (station: Station | undefined): number =>
  (station?.chain ?? []).reduce(
    (all, part) => (part.kind === 'multiplier' ? all * part.factor : all),
    1,
  );

function light({ line, station }: Exposed): Wanted[] {
  const { f_number, time_s, iso, flash } = line;
  const found: Wanted[] = [];
  if (f_number !== undefined) {
    const factor = multiplied(station);
    const acting = meantFNumber(f_number) * factor;
    const engraved = factor === 1 ? rational(engravedFNumber(f_number)) : rationalTo(acting, 2);
    found.push(text('exif', 'FNumber', engraved));
    found.push(text('exif', 'ApertureValue', rationalTo(2 * Math.log2(acting), 4)));
  }
  if (time_s !== undefined) {
    found.push(text('exif', 'ExposureTime', timeRational(time_s)));
    found.push(text('exif', 'ShutterSpeedValue', rationalTo(-Math.log2(time_s), 4)));
  }
  if (iso !== undefined) {
    const whole = String(Math.max(1, Math.round(iso)));
    found.push(text('exifEX', 'PhotographicSensitivity', whole));
    found.push({
      prefix: 'exif',
      name: 'ISOSpeedRatings',
      value: { kind: 'list', items: [whole] },
    });
  }
  if (flash !== undefined) {
    found.push({ prefix: 'exif', name: 'Flash', value: { kind: 'flash', fired: flash } });
  }
  return found;
}

const equivalents = new WeakMap<Station, number>();

/** Focal length times this is that of the same field on 36 × 24 mm, by the diagonal. */
function equivalence(station: Station): number {
  const before = equivalents.get(station);
  if (before !== undefined) return before;
  const { equivalent_35mm_mm: equivalent, focal_length_mm: focal } = readingOf(station).optics;
  equivalents.set(station, equivalent / focal);
  return equivalent / focal;
}

function glass({ line, station }: Exposed): Wanted[] {
  const { focal_length_mm: focal, lens, focus_m: focus } = line;
  const found: Wanted[] = [];
  if (focal !== undefined) {
    found.push(text('exif', 'FocalLength', rationalTo(focal, 2)));
    if (station) {
      const whole = String(Math.max(1, Math.round(focal * equivalence(station))));
      found.push(text('exif', 'FocalLengthIn35mmFilm', whole));
    }
  }
  if (lens !== undefined) found.push(text('exifEX', 'LensModel', lens));
  // The station tells of its own lens only.
  if (station && lens !== undefined && lens === station.lens.name) {
    const { focal_length_mm: own, f_min } = station.lens;
    const [length, stop] = [rationalTo(own, 2), rationalTo(engravedFNumber(f_min), 2)];
    found.push({
      prefix: 'exifEX',
      name: 'LensSpecification',
      value: { kind: 'list', items: [length, length, stop, stop] },
    });
  }
  if (focus !== undefined) {
    found.push(text('exif', 'SubjectDistance', focus === null ? INFINITE : rationalTo(focus, 3)));
  }
  return found;
}

const MOVED = [
  ['Rise', 'rise_mm'],
  ['Shift', 'shift_mm'],
  ['Tilt', 'tilt_deg'],
  ['Swing', 'swing_deg'],
  ['RearRise', 'rear_rise_mm'],
  ['RearShift', 'rear_shift_mm'],
  ['RearTilt', 'rear_tilt_deg'],
  ['RearSwing', 'rear_swing_deg'],
] as const;

function own({ line, job, station }: Exposed): Wanted[] {
  const figures = (
    [
      ['Frame', line.frame],
      ['Bracket', line.bracket],
      ...MOVED.map(([name, field]) => [name, line.movements?.[field]] as const),
      ['CircleDiameter', line.circle_mm],
    ] as const
  ).flatMap(([name, value]) =>
    value === undefined ? [] : [text('gangway', name, String(Number(value.toFixed(3)) + 0))],
  );
  return [
    ...(station ? [text('gangway', 'Station', station.name)] : []),
    text('gangway', 'Job', job),
    ...(station ? [text('gangway', 'Rig', rigSaid(station))] : []),
    ...figures,
    text('gangway', 'Planned', line.planned ? 'True' : 'False'),
  ];
}

/** A rig in a few words: its lens and its back. */
const rigSaid = ({ lens, back }: Station): string =>
  [lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`, back.name ?? `${back.width_mm} × ${back.height_mm} mm`].join(', '); // prettier-ignore

/** Everything known of one exposure, in the order it is written. */
export function wantedFor(exposed: Exposed): Wanted[] {
  const { line, job, station } = exposed;
  const set = setSaid(line);
  const note = line.note ? `${set === '' ? '' : '. '}${line.note}` : '';
  const said = `${set}${note}`;
  const keywords = [station?.name, job, station && rigSaid(station)].filter((each) => !!each);
  return [
    { prefix: 'exif', name: 'DateTimeOriginal', value: { kind: 'moment', text: line.at } },
    ...light(exposed),
    ...glass(exposed),
    ...(line.rating === undefined
      ? []
      : [
          {
            prefix: 'xmp',
            name: 'Rating',
            value: { kind: 'rating', text: String(line.rating) },
          } as const,
        ]),
    ...(said === ''
      ? []
      : [{ prefix: 'dc', name: 'description', value: { kind: 'sentence', text: said } } as const]),
    {
      prefix: 'dc',
      name: 'subject',
      value: { kind: 'keywords', items: [...new Set(keywords as string[])] },
    },
    ...own(exposed),
  ];
}
