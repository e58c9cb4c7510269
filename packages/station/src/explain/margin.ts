import { angleFromAxis, degrees, frameCorner } from '@gangway/optics';
import { fixed, fStop, mm, signed } from '../words/format.js';
import { CORNER_NAMES } from '../words/names.js';
import type { Asked, Why } from './why.js';

export function whyMargin({ station, report, setup: s }: Asked): Why {
  const { worst_corner: corner, margin_mm: margin } = report.coverage;
  const place = frameCorner(s.frame, corner);
  const straight = s.axis[2] === 1;
  const central = s.pupilRatio === 1;
  return {
    rests: ['circle'],
    title: `Margin of the ${CORNER_NAMES[corner]} corner`,
    result: margin === null ? 'no end' : `${signed(margin, 2)} mm`,
    words: straight
      ? 'The lens covers a cone about its axis. On the back that is a circle which grows with the image distance; the margin is its radius less the way from its middle to the corner.'
      : 'The lens covers a cone about its axis. Leaned, the cone cuts the back in an ellipse that moves with the lean; the margin runs from where the axis meets the back, through the corner, to the ellipse.',
    formula: straight
      ? central
        ? 'margin = v · tan α − √(x² + y²),  tan α = C / 2f'
        : 'margin = (v + (p − 1) f) tan α − √(x² + y²),  tan α = C / 2pf'
      : central
        ? 'cos ∠(corner, axis) ≥ cos α,  tan α = C / 2f'
        : 'cos ∠(corner, axis) ≥ cos α, seen from the exit pupil,  tan α = C / 2pf',
    numbers: [
      {
        symbol: 'C',
        meaning: `circle at ${fStop(station.aperture)}, at infinity`,
        value: mm(s.circleMm),
      },
      { symbol: 'f', meaning: 'focal length', value: mm(s.engravedMm) },
      {
        symbol: 'α',
        meaning: 'half-angle covered',
        value: `${fixed(degrees(s.cone.halfAngleRad), 2)}°`,
      },
      ...(s.pupilRatio === 1
        ? []
        : [{ symbol: 'p', meaning: 'exit over entrance pupil', value: fixed(s.pupilRatio, 3) }]),
      { symbol: 'v', meaning: 'image distance', value: mm(s.imageDistanceMm, 2) },
      {
        symbol: 'x, y',
        meaning: 'corner in the picture',
        value: `${fixed(place.x, 2)}, ${fixed(place.y, 2)} mm`,
      },
      {
        symbol: '∠',
        meaning: 'corner from the lens axis',
        value: `${fixed(degrees(angleFromAxis(s.cone, place)), 2)}°`,
      },
      ...(s.factor === 1
        ? []
        : [
            {
              symbol: 'M',
              meaning: 'multiplier; the back counts as 1/M the size',
              value: fixed(s.factor, 3),
            },
          ]),
    ],
    source: 'Plane section of the cone of coverage; the circle by stop is the lens’s own data.',
  };
}
