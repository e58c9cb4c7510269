import { circleOnBackMm } from '../cover/corners.js';
import { fixed, mm } from '../words/format.js';
import type { Asked, Why } from './why.js';

export function whyLimits({ station, report, setup: s }: Asked): Why {
  const { limits, limited_by: by } = report.coverage;
  const named = (value: number | null, reason: string): string =>
    value !== null ? `${mm(value, 2)}, ${reason}` : reason === 'nothing' ? 'no end' : 'not covered';
  return {
    rests: ['circle'],
    title: 'How far each movement goes alone',
    result: `${limits.rise_mm === null ? '—' : fixed(limits.rise_mm, 1)} mm of rise`,
    words:
      'Each movement runs on from zero, the others as they are set, until the first of the four corners meets the edge of the circle, or the mechanism ends. With the back leaned a standard still moves square to the bed; the bed is drawn to keep the focus.',
    formula:
      s.axis[2] === 1
        ? `|rise| ≤ √(R² − (|s| + w/2)²) − h/2,  R = ${s.pupilRatio === 1 ? 'v · C / 2f' : '(v + (p − 1) f) · C / 2pf'}`
        : 'all four corners: cos ∠(corner, axis) ≥ cos α',
    numbers: [
      {
        symbol: 'R',
        meaning: 'radius of the circle on the back',
        value: mm(circleOnBackMm(s) / s.factor / 2, 2),
      },
      {
        symbol: 'w × h',
        meaning: 'back as turned',
        value: `${fixed(s.frame.widthMm, 1)} × ${fixed(s.frame.heightMm, 1)} mm`,
      },
      {
        symbol: 's, r',
        meaning: 'shift and rise as they act',
        value: `${fixed(s.frame.shiftMm, 2)}, ${fixed(s.frame.riseMm, 2)} mm`,
      },
      { symbol: '↑', meaning: 'rise', value: named(limits.rise_mm, by.rise) },
      { symbol: '↓', meaning: 'fall', value: named(limits.fall_mm, by.fall) },
      { symbol: '←', meaning: 'shift left', value: named(limits.left_mm, by.left) },
      { symbol: '→', meaning: 'shift right', value: named(limits.right_mm, by.right) },
      ...(station.movement_limits.radial_shift_mm === undefined
        ? []
        : [
            {
              symbol: 'ρ',
              meaning: 'length of movement the turning lens has',
              value: mm(station.movement_limits.radial_shift_mm),
            },
          ]),
    ],
    source:
      'Closed form of a rectangle in a circle; leaned, the quadratic of the cone along each edge of the frame.',
  };
}
