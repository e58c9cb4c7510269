import type { Corner } from '@gangway/optics';
import type { Movement, RearMovement } from '../document/movements.js';
import { distance, distanceFrom, fixed, fStop, signed, trimmed, type Units } from './format.js';
import { CORNER_NAMES, MOVEMENT_NAMES, sense, unitOf } from './names.js';
import { atLeast, atMost } from './rounded.js';

/** How a verdict is said: its largest figure, the words beside it, and all of it in one sentence. */
export interface VerdictSaid {
  readonly figure: string;
  readonly words: string;
  readonly sentence: string;
}

/** What to say when a cone is open on one side and the margin has no end. */
const NO_END = '∞';

const marginSaid = (marginMm: number | null): string =>
  marginMm === null ? NO_END : signed(marginMm, 1);

type At = { readonly fNumber: number };
type Margin = At & { readonly corner: Corner; readonly marginMm: number | null };

/** Every verdict by its code, made of its values. */
export const VERDICT_SAYS = {
  held_cover: (_: null): VerdictSaid => ({
    figure: 'By eye',
    words: 'the lens is held off',
    sentence:
      'The lens is held off the body; its circle wanders with the hand and is judged by eye.',
  }),
  beyond: (v: { movement: Movement | RearMovement; value: number }): VerdictSaid => ({
    figure: `${fixed(Math.abs(v.value), 1)} ${unitOf(v.movement)}`,
    words: `${sense(v.movement, v.value)}, past the mechanism`,
    sentence: `The ${MOVEMENT_NAMES[v.movement]} is set further than the mechanism goes.`,
  }),
  outside: ({ corner, marginMm, fNumber }: Margin): VerdictSaid => ({
    figure: marginSaid(marginMm),
    words: `mm, ${CORNER_NAMES[corner]} outside`,
    sentence: `The ${CORNER_NAMES[corner]} corner lies ${fixed(Math.abs(marginMm ?? 0), 1)} mm outside the circle at ${fStop(fNumber)}.`,
  }),
  ring: (_: null): VerdictSaid => ({
    figure: 'Ring',
    words: 'cuts a corner',
    sentence:
      'The filter ring cuts into a corner; shift less or use a larger filter on a step-up ring.',
  }),
  soft: ({
    corner,
    marginMm,
    fNumber,
    softMm,
  }: Margin & { softMm: number | null }): VerdictSaid => ({
    figure: marginSaid(marginMm),
    words: 'mm to spare, corner soft',
    sentence: `The frame is covered at ${fStop(fNumber)}; the ${CORNER_NAMES[corner]} corner lies ${fixed(Math.abs(softMm ?? 0), 1)} mm past the sharp core.`,
  }),
  sharp: ({ marginMm, fNumber }: Margin): VerdictSaid => ({
    figure: marginSaid(marginMm),
    words: 'mm to spare',
    sentence: `The whole frame lies within the sharp core at ${fStop(fNumber)}, ${marginMm === null ? 'with no end in sight' : `${fixed(marginMm, 1)} mm inside the circle`}.`,
  }),
  facade_behind: (_: null): VerdictSaid => ({
    figure: 'Behind',
    words: 'the façade',
    sentence: 'The façade does not lie ahead of the camera.',
  }),
  /** From where it would fit; null: from nowhere. */
  facade_too_large: ({ fromM }: { fromM: number | null }, units: Units): VerdictSaid => ({
    figure: 'Cut',
    words:
      fromM === null ? 'façade does not fit' : `façade fits from ${distanceFrom(fromM, units)}`,
    sentence: `The façade does not fit into the frame from here${fromM === null ? '' : `; it would from ${distanceFrom(fromM, units)}`}.`,
  }),
  /** The rise that brings the top in, and the most that leaves the foot in, where that is wanted. */
  facade_cut: (v: { neededMm: number; footMm: number | null }): VerdictSaid => {
    // Rounded towards what serves: 5.93 asked is 6.0.
    const least = fixed(atLeast(v.neededMm, 1), 1);
    const ask = `${least}${v.footMm === null ? '' : ` to ${fixed(atMost(v.footMm, 1), 1)}`}`;
    return {
      figure: `${least} mm`,
      words: 'of rise frames the façade',
      sentence: `The façade is cut as set; it asks for ${ask} mm of rise.`,
    };
  },
  rig_stopped: (v: { stops: number; first: string }): VerdictSaid => ({
    figure: String(v.stops),
    words: 'to settle in the rig',
    sentence: v.first,
  }),
  level: (_: null): VerdictSaid => ({
    figure: 'Level',
    words: 'verticals stay parallel',
    sentence: 'The sensor stands upright; verticals stay parallel.',
  }),
  pitched: ({ pitchDeg }: { pitchDeg: number }): VerdictSaid => {
    const way = pitchDeg > 0 ? 'up' : 'down';
    const figure = `${fixed(Math.abs(pitchDeg), 1)}°`;
    return {
      figure,
      words: `${way}, verticals meet`,
      sentence: `The sensor points ${figure} ${way}; verticals meet ${pitchDeg > 0 ? 'above' : 'below'}.`,
    };
  },
  rig_no: (v: { focalMm: number; first: string }): VerdictSaid => ({
    figure: focalSaid(v.focalMm),
    words: 'does not go together',
    sentence: v.first,
  }),
  rig_may: (v: {
    focalMm: number;
    near: boolean;
    unknown: number;
    first: string;
  }): VerdictSaid => ({
    figure: focalSaid(v.focalMm),
    words: `may work${v.near ? ', near work only' : ''}, ${v.unknown} not known`,
    sentence: `May work: ${v.unknown} ${v.unknown === 1 ? 'thing is' : 'things are'} not known. ${v.first}`,
  }),
  rig_works: ({ focalMm }: { focalMm: number }): VerdictSaid => ({
    figure: focalSaid(focalMm),
    words: 'works',
    sentence: 'Nothing is wrong with this rig.',
  }),
  rig_minds: (v: {
    focalMm: number;
    near: boolean;
    minds: number;
    first: string;
  }): VerdictSaid => ({
    figure: focalSaid(v.focalMm),
    words: `${v.near ? 'near work only' : 'works'}, ${v.minds} ${v.minds === 1 ? 'warning' : 'warnings'}`,
    sentence: v.first,
  }),
  held_focus: (
    v: {
      gapMm: number;
      planeM: number | null;
      pastInfinity: boolean;
      holds: number;
      asked: number;
    },
    units: Units,
  ): VerdictSaid => {
    const figure =
      v.planeM === null ? (v.pastInfinity ? 'Past ∞' : '∞') : distance(v.planeM, units);
    return {
      figure,
      words: v.asked === 0 ? 'sharp ahead, held off' : `ahead, ${v.holds} of ${v.asked} held`,
      sentence: `Held ${fixed(v.gapMm, 1)} mm off the body it is sharp straight ahead at ${figure}; ${v.holds} of ${v.asked} marks are as they are wanted.`,
    };
  },
  /** No marks: what is sharp straight ahead; null is infinity. */
  ahead: (v: At & { nearM: number | null; farM: number | null }, units: Units): VerdictSaid => {
    const near = distance(v.nearM, units);
    const far = v.farM === null ? '∞' : distance(v.farM, units);
    return {
      figure: near,
      words: `to ${far} is sharp ahead`,
      sentence: `Straight ahead it is sharp from ${near} to ${far === '∞' ? 'infinity' : far} at ${fStop(v.fNumber)}. No marks are set.`,
    };
  },
  /** `first` that is not as wanted; null where all are. */
  marks: (v: At & { holds: number; asked: number; first: string | null }): VerdictSaid => {
    const stop = fStop(v.fNumber);
    return {
      figure: stop,
      words: `holds ${v.holds} of ${v.asked}`,
      sentence:
        v.first === null
          ? `${stop} holds all ${v.asked} marks as they are wanted.`
          : `${stop} holds ${v.holds} of ${v.asked} marks; ${v.first} is not as wanted.`,
    };
  },
};

const focalSaid = (focalMm: number): string => `${trimmed(focalMm, 1)} mm`;

export type VerdictCode = keyof typeof VERDICT_SAYS;
