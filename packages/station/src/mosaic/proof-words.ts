import type { Proof, ProvedFrame, ProvedOverlap, Verdict } from '@gangway/frames';
import { fixed } from '../words/format.js';
import { framesSaid } from '../words/mosaic-problems.js';
import { mostOf } from '@gangway/optics';

/** What a proof found, as one says it, and what to do next time. */

/** Less than this nobody sees, pixels. */
const SEEN_PX = 0.05;

/** A way on the picture, y up: “4.1 px down”. */
export function waySaid({ x, y }: { readonly x: number; readonly y: number }): string {
  const parts = [
    { by: y, plus: 'up', minus: 'down' },
    { by: x, plus: 'right', minus: 'left' },
  ].filter(({ by }) => Math.abs(by) >= SEEN_PX);
  if (parts.length === 0) return '0 px';
  // The smaller part is named when it is not small beside the other.
  const most = mostOf(parts.map(({ by }) => Math.abs(by)));
  return parts
    .filter(({ by }) => Math.abs(by) > most / 5)
    .map(({ by, plus, minus }) => `${fixed(Math.abs(by), 1)} px ${by > 0 ? plus : minus}`)
    .join(' and ');
}

const stopsSaid = (stops: number): string =>
  `${fixed(Math.abs(stops), 1)} stops ${stops > 0 ? 'brighter' : 'darker'}`;

/** One overlap in a few words. */
export function overlapSaid(overlap: ProvedOverlap): string {
  const { verdict, residualPx, parallaxPx, exposureStops, offPx, turnDeg, slipPx } = overlap;
  switch (verdict) {
    case 'unsure':
      return 'Too little to see where they meet.';
    case 'moving':
      return 'Something moved in between; the rest fits.';
    case 'parallax':
      return `Near and far part by ${fixed(parallaxPx, 1)} px.`;
    case 'slipped':
      return Math.hypot(offPx.x, offPx.y) >= slipPx / 2
        ? `Off the plan by ${waySaid(offPx)}.`
        : `Turned by ${fixed(Math.abs(turnDeg), 2)}°.`;
    case 'light':
      return `Frame ${overlap.b} is ${stopsSaid(exposureStops ?? 0)} than frame ${overlap.a}.`;
    case 'still':
      return `Fits to ${fixed(Math.max(0.1, residualPx), 1)} px.`;
  }
}

/** The frame that most of the slipped overlaps have in common, and lies farthest off. */
function slippedFrame({ frames, overlaps }: Proof): ProvedFrame | null {
  const slipped = overlaps.filter(({ verdict }) => verdict === 'slipped');
  const times = (order: number): number => slipped.filter(({ a, b }) => a === order || b === order).length; // prettier-ignore
  const far = ({ offPx }: ProvedFrame): number => Math.hypot(offPx.x, offPx.y);
  const touched = frames.filter(({ order, tied }) => tied && times(order) > 0);
  if (touched.length === 0) return null;
  return touched.reduce((most, each) => {
    const [a, b] = [times(each.order), times(most.order)];
    return a > b || (a === b && far(each) > far(most)) ? each : most;
  });
}

const pairsSaid = (of: readonly ProvedOverlap[]): string => {
  const orders = [...new Set(of.flatMap(({ a, b }) => [a, b]))].sort((p, q) => p - q);
  return framesSaid(orders.map((order) => order - 1));
};

interface Cause {
  readonly verdict: Exclude<Verdict, 'still'>;
  readonly say: (proof: Proof, of: readonly ProvedOverlap[]) => string;
}

const CAUSES: readonly Cause[] = [
  {
    verdict: 'parallax',
    say: (_, of) =>
      `Near and far part by up to ${fixed(mostOf(of.map(({ parallaxPx }) => parallaxPx)), 1)} px between ${pairsSaid(of)}: the lens moved. Move the back and hold the lens, or step back from what is near.`,
  },
  {
    verdict: 'moving',
    say: (_, of) =>
      `Something moved between ${pairsSaid(of)}. Take those again when it is still, or expose for so long that it smears evenly.`,
  },
  {
    verdict: 'slipped',
    say: (proof) => {
      const frame = slippedFrame(proof);
      if (!frame) return 'A frame slipped: lock the movements before each exposure.';
      const { x, y } = frame.offPx;
      const turned = proof.overlaps.find(({ verdict, turnDeg }) => verdict === 'slipped' && Math.abs(turnDeg) > 0.02); // prettier-ignore
      if (turned && Math.hypot(x, y) < 3) return `Frame ${frame.order} is turned by ${fixed(Math.abs(turned.turnDeg), 2)}°: level it, and lock what turns.`; // prettier-ignore
      const lock = Math.abs(y) > Math.abs(x) ? 'the rise' : 'the shift';
      return `Frame ${frame.order} slipped ${waySaid(frame.offPx)}: lock ${lock}, and look again before each exposure.`;
    },
  },
  {
    verdict: 'light',
    say: (_, of) =>
      `The light changed between ${pairsSaid(of)}. Set time, aperture, sensitivity and white balance by hand, and wait for the clouds.`,
  },
  {
    verdict: 'unsure',
    say: (_, of) =>
      `There is too little to see where ${pairsSaid(of)} meet. Overlap them more, or let them meet over something with detail.`,
  },
];

/** What the proof says as a whole and what to do next time, a sentence or a few; worst first. */
export function nextTime(proof: Proof): string {
  const { overlaps, missing, frames, setAside } = proof;
  if (frames.length === 0) return 'No frame could be read.';
  const said = CAUSES.flatMap(({ verdict, say }) => {
    const of = overlaps.filter((each) => each.verdict === verdict);
    return of.length > 0 ? [say(proof, of)] : [];
  });
  const turned = frames.filter(({ turnedDeg }) => turnedDeg !== 0);
  return [
    ...(missing.length > 0
      ? [`No file shows ${framesSaid(missing.map((order) => order - 1))}: take ${missing.length === 1 ? 'it' : 'them'} again.`] // prettier-ignore
      : []),
    ...said,
    ...(turned.length > 0
      ? [`${turned.length === 1 ? `Frame ${turned[0]!.order} lay` : `${turned.length} frames lay`} turned in the file.`] // prettier-ignore
      : []),
    ...(said.length === 0 && missing.length === 0 && overlaps.length > 0
      ? ['Lens, body and light stood still: merge it.']
      : []),
    ...(setAside.length > 0 ? [`${setAside.length === 1 ? 'One file was' : `${setAside.length} files were`} set aside.`] : []), // prettier-ignore
  ].join(' ');
}
