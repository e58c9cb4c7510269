import type { Corner } from '@gangway/optics';
import { fixed, mm, trimmed } from './format.js';
import { CORNER_NAMES } from './names.js';
import type { Found } from './findings.js';

/** Frames by their numbers: “frame 2”, “frames 1, 2 and 5”. */
export function framesSaid(indices: readonly number[]): string {
  const numbers = indices.map((i) => String(i + 1));
  if (numbers.length === 1) return `frame ${numbers[0]}`;
  if (numbers.length > 6) return `${numbers.length} frames`;
  return `frames ${numbers.slice(0, -1).join(', ')} and ${numbers.at(-1)}`;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What is said of a mosaic's problems. */
export const MOSAIC_SAYS = {
  standard_still: ({ asked, own }: { asked: 'back' | 'lens'; own: 'back' | 'lens' }) =>
    `The mosaic asks for the ${asked} to move; on this rig only the ${own} does.`,
  too_many_frames: ({ most }: { most: number }) =>
    `So many frames are not laid out: a mosaic has at most ${most}. Take fewer columns or rows.`,
  no_frames: (_: null) => 'No frame is laid out yet; add one, or choose another pattern.',
  lean_lost: ({ frames, part }: { frames: readonly number[]; part: string }) =>
    `The lean is lost at ${framesSaid(frames)}: shift and lean sit on one part, and turning ${part} to shift there turns the lean away. Lay the frames out along the way that it leans, or take the lean off.`,
  focus_lost: ({
    frames,
    byMm,
    bellows,
  }: {
    frames: readonly number[];
    /** The worst of them: below 0 past infinity, or bellows that are too long. */
    byMm: number;
    bellows: boolean;
  }) => {
    const by = mm(Math.abs(byMm), Math.abs(byMm) < 1 ? 2 : 1);
    const past = bellows
      ? `the bellows would have to be ${by} ${byMm < 0 ? 'shorter' : 'longer'} than they go`
      : `it lies ${by} ${byMm < 0 ? 'past infinity' : 'past the closest'}`;
    return `The back leans, so the focus goes along as it is moved: at ${framesSaid(frames)} ${past}. Lean the back less, or lay the frames closer together.`;
  },
  out_of_reach: ({
    standard,
    frames,
    mostMm,
  }: {
    standard: string;
    frames: readonly number[];
    mostMm: number;
  }) =>
    `${capital(standard)} does not go as far as ${framesSaid(frames)}, ${frames.length === 1 ? '' : 'up to '}${mm(mostMm)} from zero.`,
  apart: ({ a, b, gapMm, px }: { a: number; b: number; gapMm: number; px: number | null }) =>
    `${capital(framesSaid([a, b]))} are ${px === null ? mm(gapMm, 2) : `${fixed(px, 0)} px`} apart: nothing joins them.`,
  no_picture: ({ turns }: { turns: boolean }) =>
    turns
      ? 'Nothing is left all along: the frames are cut too far above or below.'
      : 'The middle of the layout lies in no frame or gets no light; add a frame in the middle.',
  past_half_turn: ({ endDeg, horizontalDeg }: { endDeg: number; horizontalDeg: number }) =>
    `A flat picture ends before ${endDeg}°; this turn sees ${fixed(horizontalDeg, 0)}°. Take fewer frames, or lay it on a cylinder.`,
  past_whole_turn: ({ horizontalDeg }: { horizontalDeg: number }) =>
    `The frames go round past themselves, ${fixed(horizontalDeg, 0)}°; take fewer.`,
  not_covered: ({ frames, corners }: { frames: readonly number[]; corners: readonly Corner[] }) =>
    frames.length === 1
      ? `${capital(framesSaid(frames))} is black in ${corners.length === 1 ? `its ${CORNER_NAMES[corners[0]!]} corner` : `${corners.length} corners`}; the picture is cut to what is lit.`
      : `${capital(framesSaid(frames))} have black corners; the picture is cut to what is lit.`,
  thin_overlap: ({
    a,
    b,
    share,
    wanted,
  }: {
    a: number;
    b: number;
    share: number;
    wanted: number;
  }) =>
    `${capital(framesSaid([a, b]))} share ${fixed(100 * share, 0)} % only; ${fixed(100 * wanted, 0)} % is wanted.`,
  between_stops: ({
    frames,
    at,
    standard,
    detentMm,
  }: {
    frames: readonly number[];
    at: 'stops' | 'turns' | 'detents';
    standard: 'back' | 'lens';
    detentMm: number;
  }) => {
    const what = {
      stops: `at no stop of the ${standard}`,
      turns: 'at an angle at which nothing stops, or between detents',
      detents: `between detents of ${trimmed(detentMm, 2)} mm`,
    }[at];
    return `${capital(framesSaid(frames))} ${frames.length === 1 ? 'lies' : 'lie'} ${what}${at === 'stops' ? '.' : '; set by the scale.'}`;
  },
  pitched: ({ offDeg }: { offDeg: number }) =>
    `The camera points ${fixed(Math.abs(offDeg), 1)}° ${offDeg > 0 ? 'up' : 'down'}: turned about the upright, its frames climb and the figures here do not hold. Level it and use rise.`,
  turned_close: (_: null) =>
    'So close, the plane of focus turns away with the camera and a flat thing is sharp in one frame only; shift the back or the lens instead.',
  behind_lens: ({ nearMm }: { nearMm: number }) =>
    `The nearest thing, ${fixed(nearMm, 0)} mm from the sensor, lies behind the lens; give another.`,
  cropped: (_: null) =>
    'The crop of the single picture is not used here: frames are taken whole. Ask for a shape of the picture instead.',
  no_turning_back: (_: null) =>
    'No turning adapter is named in the rig, so whether it reaches these places is not known; give its stops in the kit.',
};

export type MosaicFinding = Found<typeof MOSAIC_SAYS>;
export type MosaicProblemCode = keyof typeof MOSAIC_SAYS;
