import { radians, tiltSwingOf, turnedAxis } from '@gangway/optics';
import type { Card, CardStep, Station } from '../../src/index.js';
import { mechanicsOf } from '../../src/optical/turning.js';

/** A card carried out by somebody who has nothing else: its words and figures, read as they stand. */

const number = (text: string): number => Number(text.replace('−', '-'));
const figureOf = (step: CardStep): number => number(/−?[\d.]+/.exec(step.figure!)![0]);

type Movements = Record<string, number>;

/** “Raise the lens”, “Shift the back left”, “Lean the front standard forward”: what moves, and which way. */
function moved(set: Movements, { says }: CardStep, size: number, rear: boolean): void {
  const back = /the (back|rear standard)/.test(says);
  const put = (name: string, value: number): void => {
    const own = back && !(rear && /_mm$/.test(name)) ? `rear_${name}` : name;
    set[own] = value + 0;
  };
  if (/^Raise/.test(says)) put('rise_mm', back ? -size : size);
  else if (/^Lower/.test(says)) put('rise_mm', back ? size : -size);
  else if (/^Shift .* right$/.test(says)) put('shift_mm', back ? -size : size);
  else if (/^Shift .* left$/.test(says)) put('shift_mm', back ? size : -size);
  else if (/^Lean .* back at its top$/.test(says)) put('tilt_deg', size);
  else if (/^Lean .* forward at its top$/.test(says)) put('tilt_deg', -size);
  else if (/^Lean .* forward$/.test(says)) put('tilt_deg', size);
  else if (/^Lean .* back$/.test(says)) put('tilt_deg', -size);
  else if (/^Swing .* right$/.test(says)) put('swing_deg', size);
  else if (/^Swing .* left$/.test(says)) put('swing_deg', -size);
  else throw new Error(`nobody knows what to do: ${says}`);
}

function focusRead({ says, figure = '' }: CardStep): Station['focus'] {
  if (/magnification/.test(says)) return { magnification: number(figure.replace(' ×', '')) };
  if (/bed/.test(says)) return { image_distance_mm: number(figure.replace(' mm', '')) };
  return { distance_m: figure === '∞' ? null : number(figure.replace(' m', '')) };
}

/** “turned to 30°, its tilt to 90°: shift −8.0 mm, lean 3.0°” as movements of the picture. */
export function turnedRead(line: string, station: Station): Movements {
  const [, angle, tilt, shift, lean] =
    /turned to ([\d.]+)°(?:, its tilt to ([\d.]+)°)?: shift (−?[\d.]+) mm, lean (−?[\d.]+)°/.exec(
      line,
    )!;
  const made = mechanicsOf(station)!;
  const at = radians(number(angle!));
  const leanAt = tilt === undefined ? number(angle!) + (made.apartDeg ?? 0) : number(tilt);
  const axis = tiltSwingOf(turnedAxis({ leanDeg: number(lean!), turnDeg: leanAt }));
  const round = (value: number, to: number): number => Number(value.toFixed(to)) + 0;
  return {
    ...(made.shift
      ? {
          rise_mm: round(number(shift!) * Math.cos(at), 2),
          shift_mm: round(number(shift!) * Math.sin(at), 2),
        }
      : {}),
    ...(made.tilt ? { tilt_deg: round(axis.tiltDeg, 3), swing_deg: round(axis.swingDeg, 3) } : {}),
  };
}

/** Where the card ends up: the rig and the scene as they are, everything else as it is told. */
export function carriedOut(card: Card, planned: Station): Station {
  const { steps } = card;
  const step = (id: string): CardStep | undefined => steps.find((each) => each.id === id);
  const rear = planned.movement_limits.moves === 'rear';
  const set: Movements = { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0 };
  for (const name of Object.keys(planned.movements)) set[name] = 0;
  for (const each of steps) {
    if (each.part === 'move' && each.id !== 'straight' && each.id !== 'turn') {
      moved(set, each, figureOf(each), rear);
    }
  }
  const [yaw, level] = [step('yaw'), step('level')!];
  const pitch = figureOf(level);
  return {
    ...planned,
    back: {
      ...planned.back,
      orientation: step('back')!.figure === 'upright' ? 'portrait' : 'landscape',
    },
    camera: {
      ...planned.camera,
      height_m: figureOf(step('height')!),
      pitch_deg: (/tip it down/.test(level.says) ? -pitch : pitch) + 0,
      yaw_deg: yaw ? (/ left /.test(yaw.says) ? -1 : 1) * figureOf(yaw) : 0,
    },
    movements: set as unknown as Station['movements'],
    focus: focusRead(step('focus')!),
    aperture: stopMeant(step('stop')!),
  };
}

/** f/11 means the eleventh sixth of two: 11.31 (ISO 517). */
export function stopMeant({ figure = '' }: CardStep): number {
  const engraved = number(figure.replace('f/', ''));
  const meant = 2 ** (Math.round(6 * Math.log2(engraved)) / 6);
  return ENGRAVED.has(engraved) ? meant : engraved;
}

/** Thirds of a stop as rings have them; source: ISO 517 and common practice. */
const ENGRAVED = new Set([
  0.5, 0.6, 0.7, 0.8, 0.9, 1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6,
  6.3, 7.1, 8, 9, 10, 11, 13, 14, 16, 18, 20, 22, 25, 29, 32, 36, 40, 45, 51, 57, 64, 72, 80, 90,
  102, 114, 128,
]);
