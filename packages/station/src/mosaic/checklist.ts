import type { Station } from '../document/station.js';
import { shiftedFrontSaid } from './shifted-front.js';
import { refocuses, type Layout } from './layout.js';
import { fixed, fStop, mm } from '../words/format.js';
import { frameThroatStops } from './light.js';
import { lensStays } from './parallax.js';
import { mostOf } from '@gangway/optics';

/** What to set by hand and to look at before the first frame; common practice, no source. */
export function manualList(station: Station): string[] {
  const { lens, chain } = station;
  const adapted = lens.iris === 'mechanical' || chain.some(({ kind }) => kind === 'adapter');
  return [
    `Meter with everything at zero, then fix time, ${fStop(station.aperture)} and ISO by hand; a shifted meter reads wrong.`,
    refocuses(station)
      ? 'Fix the white balance; autofocus off: the focus is set anew with each frame.'
      : 'Fix the white balance; focus once, then switch autofocus off.',
    'Stabiliser off, on lens and body.',
    ...(adapted
      ? ['Set the iris by its own ring and leave it; tape a lever that springs back.']
      : []),
    'Wait until people, cars and branches are out of an overlap, or expose so long that they smear evenly in every frame.',
    'Remote release; wait for the camera to settle after each move.',
  ];
}

/** What stands on the tripod, and what to mind as lens or body goes across. */
export function standList(station: Station, layout: Layout): string[] {
  const { mosaic, frame, frames } = layout;
  const { lens } = station;
  const said: string[] = [];
  if (mosaic.moves === 'camera') {
    said.push(
      'Put the entrance pupil over the axis of turning: two uprights, near and far, must not part as you turn.',
    );
  } else if (mosaic.moves === 'rear') {
    said.push(
      'The lens stays still: near and far do not part. Clamp what holds the lens, let the back go.',
    );
  } else if (!lensStays(layout)) {
    said.push(
      lens.has_foot
        ? 'Clamp the lens by its foot instead of the body: the body then goes across, the lens stays, and near and far do not part.'
        : 'The lens goes across and near and far part: move the body back by as much, or hold the lens instead of the body on the tripod.',
    );
  }
  if (mosaic.pattern === 'pinwheel' || (mosaic.pattern === 'ring' && mosaic.moves === 'rear')) {
    const reach = mostOf(
      frames.map(
        ({ centre }) =>
          Math.hypot(centre.x, centre.y) + Math.hypot(frame.widthMm, frame.heightMm) / 2,
      ),
    );
    said.push(
      `The sensor’s corners sweep ${mm(reach, 0)} round the middle; the body sweeps further. Turn it once by hand and see that grip and plate clear the tripod head.`,
    );
  }
  const shading = Math.max(
    0,
    ...frames.map((each) => frameThroatStops(station, layout, each) ?? 0),
  );
  if (shading > 0.1) {
    said.push(
      `The body’s throat moves with the sensor and takes ${Number.isFinite(shading) ? `${fixed(shading, 1)} stops` : 'all light'} from a corner; a white frame shot at each place evens it out.`,
    );
  }
  const front = shiftedFrontSaid(station, layout);
  if (front) said.push(front);
  said.push(
    'Keep a hand on what you unclamp. Cap the lens between frames if the sun is in the picture, and never look at the sun through a finder.',
  );
  return said;
}
