import { prove, type Proof } from '@gangway/frames';
import { nextTime, proofPlan, type Station } from '@gangway/station';
import { openPictures } from './pictures.js';
import type { Streams } from './streams.js';

/** `gangway prove`: one line of JSON, whatever the verdict. */

interface Told {
  readonly notes: readonly { readonly file: string; readonly what: string }[];
  readonly aside: Proof['setAside'];
}

export const proofJson = (proof: Proof, { notes, aside }: Told): Record<string, unknown> => ({
  frames: proof.frames.map((frame) => ({
    file: frame.file,
    order: frame.order,
    x_mm: frame.xMm,
    y_mm: frame.yMm,
    rotation_deg: frame.rotationDeg,
    off_px: [frame.offPx.x, frame.offPx.y],
    exposure_stops: frame.exposureStops,
    turned_deg: frame.turnedDeg,
    tied: frame.tied,
  })),
  overlaps: proof.overlaps.map((overlap) => ({
    a: overlap.a,
    b: overlap.b,
    residual_px: overlap.residualPx,
    parallax_px: overlap.parallaxPx,
    exposure_stops: overlap.exposureStops,
    matched: overlap.matched,
    verdict: overlap.verdict,
    off_px: [overlap.offPx.x, overlap.offPx.y],
  })),
  width_px: proof.widthPx,
  height_px: proof.heightPx,
  verdict: proof.verdict,
  set_aside: [...aside, ...proof.setAside],
  missing: proof.missing,
  order_by: proof.orderBy,
  notes,
  next_time: nextTime(proof),
});

export async function proveFrames(
  station: Station,
  files: readonly string[],
  { out, err }: Pick<Streams, 'out' | 'err'>,
): Promise<number> {
  const plan = proofPlan(station);
  if (!plan) {
    err('prove: the station has no mosaic: lay one out, or give another station\n');
    return 2;
  }
  const { opened, aside } = await openPictures(files);
  const proof = await prove(opened.map(({ file }) => file), plan); // prettier-ignore
  const notes = opened.flatMap(({ file, note }) => (note === null ? [] : [{ file: file.name, what: note }])); // prettier-ignore
  out(`${JSON.stringify(proofJson(proof, { notes, aside }))}\n`);
  return 0;
}
