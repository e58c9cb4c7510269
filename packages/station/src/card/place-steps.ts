import { distance, trimmed } from '../words/format.js';
import { partTitle } from '../words/names.js';
import { tapesOf } from './stand.js';
import type { CardStep, Told } from './step.js';

/** Where the camera stands, what is on it, and what is looked at in the end. */

export const tapeSteps = ({ station, units }: Told): CardStep[] =>
  tapesOf(station).map(({ to, m }, i) => ({
    id: `stand ${i}`,
    part: 'stand',
    says: `Tripod to ${to}`,
    figure: distance(m, units),
  }));

/** How to find the place again. */
export function placeSteps({ station }: Told): CardStep[] {
  const { stand } = station;
  const tapes = tapesOf(station);
  return [
    ...(tapes.length === 0 && !stand?.note
      ? [
          {
            id: 'place',
            part: 'stand' as const,
            says: 'Nothing round it is measured: mark where the feet stand',
          },
        ]
      : []),
    ...(stand?.note
      ? [{ id: 'place', part: 'stand' as const, says: 'To find it again', detail: stand.note }]
      : []),
  ];
}

export function rigSteps({ station }: Told): CardStep[] {
  const { lens, chain, back } = station;
  const parts = [
    lens.name ?? `${trimmed(lens.focal_length_mm, 1)} mm`,
    ...chain.map(partTitle),
    back.name ?? `${trimmed(back.width_mm, 1)} × ${trimmed(back.height_mm, 1)} mm`,
  ];
  const ring = lens.filter?.name;
  const film = station.exposure?.film?.name;
  return [
    {
      id: 'rig',
      part: 'rig',
      says: parts.join(' + '),
      ...(ring ? { detail: `With ${ring}.` } : {}),
    },
    ...(film ? [{ id: 'film', part: 'rig' as const, says: `Film: ${film}` }] : []),
  ];
}

/** What to look at before leaving. */
export function lookSteps({ station, report }: Told): CardStep[] {
  const sharp = (station.marks ?? []).flatMap(({ must, label }, i) =>
    must === 'sharp' ? [label || `mark ${i + 1}`] : [],
  );
  const out = (report.marks ?? []).flatMap(({ in_frame: inside }, i) =>
    inside || station.marks![i]!.must === 'free' ? [] : [i],
  );
  return [
    ...(sharp.length > 0
      ? [
          {
            id: 'look',
            part: 'look' as const,
            says: 'Look at under the magnifier',
            detail: `${sharp.join(', ')}.`,
          },
        ]
      : []),
    ...(out.length > 0 && !station.mosaic
      ? [
          {
            id: 'out',
            part: 'look' as const,
            says: 'Outside the frame as planned',
            detail: `${out.map((i) => station.marks![i]!.label || `mark ${i + 1}`).join(', ')}.`,
          },
        ]
      : []),
    {
      id: 'corners',
      part: 'look',
      says: 'Look at all four corners, and at the side a window or the sun is on',
      detail: 'Shade the lens with a hand that stays out of the picture.',
    },
  ];
}
