import { saidOf, type ValuesOf } from './findings.js';
import { fixed, fStop, mm } from './format.js';

/** What keeps a layout from being larger. */
export type Limit =
  | { readonly by: 'circle' | 'core'; readonly aperture: number }
  | {
      readonly by: 'shift' | 'rise';
      readonly what: 'back' | 'lens';
      readonly lowMm: number;
      readonly highMm: number;
    }
  | { readonly by: 'travel'; readonly what: 'back' | 'lens'; readonly mostMm: number }
  | { readonly by: 'stops'; readonly what: 'back' | 'lens' };

export function limitSaid(limit: Limit): string {
  switch (limit.by) {
    case 'circle':
    case 'core':
      return `the ${limit.by === 'core' ? 'sharp core' : 'circle'} at ${fStop(limit.aperture)}`;
    case 'travel':
      return `the travel of the ${limit.what}, ${mm(limit.mostMm)}`;
    case 'stops':
      return `the stops of the ${limit.what}`;
    default: {
      const { by, what, lowMm, highMm } = limit;
      const range = -lowMm === highMm ? `±${mm(highMm)}` : `${mm(lowMm)} to ${mm(highMm)}`;
      return `the ${by} of the ${what}, ${range}`;
    }
  }
}

/** Detents too far apart for the overlap that is asked for. */
export interface StepTooLong {
  /** Shares of a frame: asked for, and the most there is on the detents. */
  readonly overlap: number;
  readonly mostOverlap: number;
  readonly longestStepMm: number;
  readonly detentMm: number;
}

const stepSaid = ({ overlap, mostOverlap, longestStepMm, detentMm }: StepTooLong): string =>
  `An overlap of ${fixed(100 * overlap, 0)} % asks for steps of ${fixed(longestStepMm, 1)} mm or less; the detents are ${fixed(detentMm, 1)} mm apart.${mostOverlap > 0 ? ` The most overlap on them is ${fixed(100 * mostOverlap, 0)} %.` : ''}`;

/** A picture by what was wished for: its angles, its sides, or its pixels. */
export type Had =
  | { readonly in: 'degrees'; readonly across: number; readonly up: number }
  | { readonly in: 'mm'; readonly across: number; readonly up: number }
  | { readonly in: 'px_across'; readonly across: number }
  | { readonly in: 'px'; readonly across: number; readonly up: number };

function hadSaid(had: Had): string {
  switch (had.in) {
    case 'degrees':
      return `${fixed(had.across, 1)}° × ${fixed(had.up, 1)}°`;
    case 'mm':
      return `${fixed(had.across, 1)} × ${fixed(had.up, 1)} mm`;
    case 'px_across':
      return `${had.across} px across`;
    case 'px':
      return `${fixed((had.across * had.up) / 1e6, 0)} MP`;
  }
}

const surely = (said: string, proven: boolean): string =>
  proven ? said : `${said} Not every layout was tried.`;

const WISH_SAYS = {
  no_pixels: ({ back }: { back: string | null }) =>
    `${back ?? 'The back'} has no pixels given, so that they cannot be wished for; give them in the kit.`,
  none: ({ step, sharp, proven }: { step: StepTooLong | null; sharp: boolean; proven: boolean }) =>
    surely(
      step
        ? stepSaid(step)
        : `No layout was found on this rig with every frame in the ${sharp ? 'sharp core' : 'circle'}.`,
      proven,
    ),
  nearest: (v: {
    step: StepTooLong | null;
    had: Had;
    frames: number;
    limit: Limit | null;
    proven: boolean;
  }) =>
    surely(
      `${v.step ? `${stepSaid(v.step)} ` : ''}The nearest by shift is ${hadSaid(v.had)}, from ${v.frames} ${v.frames === 1 ? 'frame' : 'frames'}${v.limit ? `, limited by ${limitSaid(v.limit)}` : ''}.`,
      v.proven,
    ),
};

type Code = keyof typeof WISH_SAYS;

/** Why no layout serves a wish. */
export type NoneServes = {
  [One in Code]: { readonly code: One; readonly values: ValuesOf<typeof WISH_SAYS, One> };
}[Code];

export const noneServes = <One extends Code>(
  code: One,
  values: ValuesOf<typeof WISH_SAYS, One>,
): NoneServes => ({ code, values }) as NoneServes;

/** In a sentence or two. */
export const noneServesSaid = (why: NoneServes): string => saidOf(WISH_SAYS, why);
