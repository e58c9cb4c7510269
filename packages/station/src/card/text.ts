import { distance, fStop, mm, degrees, stops, trimmed, type Units } from '../words/format.js';
import { turningOf } from '../optical/turning.js';
import { isoOf, lightSaid } from '../exposure/verdict.js';
import { exposureReport } from '../exposure/report.js';
import { cutText } from '../document/text.js';
import type { Station } from '../document/station.js';
import { carried } from './carried.js';
import { SEEN } from './step.js';

/** A card’s settings as plain text, for a phone to read off the paper and for a luggage tag. */

const way = (
  value: number,
  [plus, minus]: readonly [string, string],
  said: (v: number) => string,
) => `${said(Math.abs(value))} ${value < 0 ? minus : plus}`;

/** Movements in the picture’s sense, each by its name. */
function movementLines(station: Station): string[] {
  const { movements: set } = station;
  const turning = turningOf(station);
  const rows = [
    ['rise', set.rise_mm, ['up', 'down'], mm],
    ['shift', set.shift_mm, ['right', 'left'], mm],
    ['tilt', set.tilt_deg, ['forward', 'back'], degrees],
    ['swing', set.swing_deg, ['right', 'left'], degrees],
    ['back rise', set.rear_rise_mm ?? 0, ['up', 'down'], mm],
    ['back shift', set.rear_shift_mm ?? 0, ['right', 'left'], mm],
    ['back tilt', set.rear_tilt_deg ?? 0, ['top back', 'top forward'], degrees],
    ['back swing', set.rear_swing_deg ?? 0, ['right', 'left'], degrees],
  ] as const;
  const moved =
    turning !== null && (Math.abs(turning.shiftMm) >= SEEN || Math.abs(turning.tiltDeg) >= SEEN);
  const turned = moved
    ? [
        `turned to ${trimmed(turning.angleDeg, 1)}°${
          turning.tiltAngleDeg === null ? '' : `, its tilt to ${trimmed(turning.tiltAngleDeg, 1)}°`
        }: shift ${mm(turning.shiftMm)}, lean ${degrees(turning.tiltDeg)}`,
      ]
    : [];
  return [
    ...turned,
    ...rows
      .filter(([, value]) => Math.abs(value) >= SEEN)
      .map(([name, value, ways, said]) => `${name} ${way(value, ways, (v) => said(v))}`),
  ];
}

function focusLine({ focus }: Station, units: Units): string {
  if (focus.magnification !== undefined) return `magnification ${focus.magnification}`;
  if (focus.image_distance_mm !== undefined) return `bed ${mm(focus.image_distance_mm)}`;
  return `focus ${distance(focus.distance_m ?? null, units)}`;
}

function lightLine(planned: Station): string {
  const { exposure } = planned;
  if (!exposure) return '';
  const report = exposureReport(planned, exposure);
  const iso = isoOf(planned);
  const at = iso === null ? '' : ` ISO ${trimmed(iso, 1)}`;
  const light = lightSaid(planned, report);
  if (light === '') return '';
  const what = !report.flash ? 'time ' : report.flash.pops > 1 ? '' : 'flash ';
  return `${what}${light}${at}`;
}

/** The rest of a name that is longer is left out: a code has room for so much only. */
const NAME = 60;

/** What a station is set to, a line each, as the card has it carried out. */
export function cardText(planned: Station, units: Units = 'metric'): string {
  const station = carried(planned, units);
  const { camera, back, lens, exposure } = station;
  const lines = [
    cutText(planned.name, NAME),
    `${cutText(lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`, 40)} on ${trimmed(back.width_mm, 1)}×${trimmed(back.height_mm, 1)} mm, ${back.orientation === 'portrait' ? 'upright' : 'level'}`,
    `height ${distance(camera.height_m, units)}`,
    ...(Math.abs(camera.yaw_deg) >= SEEN
      ? [`turned ${way(camera.yaw_deg, ['right', 'left'], degrees)}`]
      : []),
    Math.abs(camera.pitch_deg) < SEEN
      ? 'level'
      : `tipped ${way(camera.pitch_deg, ['up', 'down'], degrees)}`,
    ...movementLines(station),
    focusLine(station, units),
    `stop ${fStop(station.aperture)}`,
    ...(exposure?.filters ?? []).map(
      ({ name, stops: takes }) =>
        `filter ${[cutText(name ?? '', 30), stops(takes)].filter(Boolean).join(' ')}`,
    ),
    lightLine(planned),
    ...(station.mosaic ? [`${station.mosaic.pattern}, see the card`] : []),
  ];
  return lines.filter(Boolean).join('\n');
}

/** Few lines for a luggage tag: two or three things on each. */
export function shortForm(planned: Station, units: Units = 'metric'): string[] {
  const [name, rig, ...rest] = cardText(planned, units).split('\n') as [
    string,
    string,
    ...string[],
  ];
  const lines: string[] = [name, rig];
  let line = '';
  for (const each of rest) {
    const longer = line === '' ? each : `${line} · ${each}`;
    if (longer.length > 44 && line !== '') {
      lines.push(line);
      line = each;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}
