import type { Settings } from '../document/station.js';
import { fixed, fStop, mm, trimmed } from './format.js';
import { criterionWords } from './sharpness.js';
import type { Sayings, ValuesOf } from './findings.js';

/** What is said of an input that nobody gave: what was taken in its place, and why. */

const percent = (share: number): string => `${fixed(100 * share, 0)} %`;

export const ASSUMED_SAYS = {
  circle: (v: { wider: boolean; fromF: number; atF: number; circleMm: number }) =>
    `The circle is given ${v.wider ? 'from' : 'to'} ${fStop(v.fromF)} only; at ${fStop(v.atF)} that of ${fStop(v.fromF)} is taken, ${mm(v.circleMm)}.${v.wider ? ' Wider open it is as a rule smaller.' : ''}`,
  sharp_fraction: ({ share }: { share: number }) =>
    `Nobody measured how much of the circle is sharp; ${percent(share)} of it is taken.`,
  pupil_ratio: (_: null) =>
    'Exit and entrance pupil are taken to be alike. On a retrofocus wide or a telephoto design they are not, and leaned or close up it shows.',
  criterion: (v: { criterion: Settings['criterion']; on: 'film' | 'pixels' | 'no_pixels' }) =>
    `Nobody said what counts as sharp; ${criterionWords(v.criterion)} is usual ${{ film: 'on film', pixels: 'where the pixels are known', no_pixels: 'where the pixels are not known' }[v.on]}.`,
  flange_focal: ({ focalMm }: { focalMm: number }) =>
    `The flange focal distance is taken to be the focal length, ${trimmed(focalMm, 1)} mm; a telephoto design needs less draw, a retrofocus more.`,
  back_on_mount: (_: null) => 'The sensor is taken to lie where the back is mounted.',
  lens_register: (_: null) =>
    'The register of the lens is not given: it is taken to meet the body at infinity.',
  body_register: (_: null) =>
    'The register of the body is not given: it is taken to meet the lens at infinity.',
  throat: ({ name }: { name: string }) =>
    `The throat of ${name} is not given; it is taken to be wide enough to leave the corners light.`,
  contacts: ({ what }: { what: string }) =>
    `Not known: ${what}. They are taken to be there, so that the aperture is reckoned as set.`,
  level: (_: null) => 'The camera’s own level was never checked; it is taken to be true.',
  held_registers: (_: null) =>
    'Both registers are not given: lens and body are taken to have the same one, and the gap counts from where the lens would reach infinity.',
  held_throat: (_: null) =>
    'Neither the throat nor the width of the lens’s back is given: whether the flanges touch is not reckoned.',
  travel: (v: { what: 'back' | 'lens'; way: 'rise' | 'shift' }) =>
    `How far the ${v.what} goes ${v.way === 'rise' ? 'up and down' : 'sideways'} is not given; the frames are laid as if it went far enough.`,
  overlap: ({ share }: { share: number }) => `No overlap is given; ${percent(share)} is taken.`,
  seconds_each: ({ seconds }: { seconds: number }) =>
    `Nobody timed a frame; ${seconds} s for moving, settling and releasing are taken.`,
  bits: ({ bits }: { bits: number }) =>
    `The size of a file is not given; ${bits} bits a pixel are taken.`,
  far: (_: null) => 'Only the nearest thing is given; the farthest is taken to be at infinity.',
  meter: (_: null) =>
    'Nobody said what kind of meter it was; one in the hand is taken, which sees neither bellows nor converter.',
  shutter_steps: (_: null) => 'The steps of the shutter are not given; thirds of a stop are taken.',
  focus_by: ({ by }: { by: 'ring' | 'bed' }) =>
    by === 'ring'
      ? 'Nobody said how the lens focuses; it is taken to have a ring of its own, engraved in distances.'
      : 'Nobody said how the lens focuses; before film of this size it is taken to stand on a bed.',
  crossing: (_: null) =>
    'How far off it crosses is not given; the distance that is in focus is taken.',
} satisfies Sayings;

export type AssumedCode = keyof typeof ASSUMED_SAYS;

/** What a figure may rest on. */
export type Rests =
  | 'circle'
  | 'core'
  | 'light'
  | 'stop'
  | 'criterion'
  | 'sharpness'
  | 'exposure'
  | 'reach'
  | 'level'
  | 'iris'
  | 'held'
  | 'clearance'
  | 'overlap'
  | 'travel'
  | 'work'
  | 'depths'
  | 'meter'
  | 'dial'
  | 'crossing'
  | 'focusing';

/** One input that nobody gave, and what was taken in its place. */
export interface Assumption {
  readonly code: AssumedCode;
  /** What its sentence is made of. */
  readonly values: unknown;
  /** JSON pointer of the input. */
  readonly pointer: string;
  /** What is reckoned with; null where it is taken to be in order without a figure. */
  readonly value: unknown;
  /** The figures that would move with it. */
  readonly rests: readonly Rests[];
}

/** An assumption, its values held to its sentence. */
export const assumed = <Code extends AssumedCode>(
  code: Code,
  values: ValuesOf<typeof ASSUMED_SAYS, Code>,
  pointer: string,
  value: unknown,
  rests: readonly Rests[],
): Assumption => ({ code, values, pointer, value, rests });
