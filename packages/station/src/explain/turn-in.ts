import { fixed, mm } from '../words/format.js';
import type { Asked, Why } from './why.js';

export function whyTurnIn({ station, report, setup: s }: Asked): Why {
  const asked = station.turn_in ?? { yaw_deg: 0, keep: 'left' as const };
  const found = report.turn_in;
  return {
    rests: [],
    title: 'Shift that holds the picture',
    result: found === undefined || found.shift_mm === null ? '—' : mm(found.shift_mm, 2),
    words:
      asked.keep === 'center'
        ? 'What stood in the middle stands the turn’s angle to the other side afterwards; the frame is shifted there.'
        : 'What stood at the kept edge stands nearer to straight ahead afterwards, by the turn’s angle; the frame is shifted until its edge lies there.',
    formula:
      asked.keep === 'center'
        ? 's = v tan(β₀ − ψ)'
        : 's = v tan(β − ψ) ∓ w/2,  β = atan((s₀ ± w/2)/v)',
    numbers: [
      { symbol: 'ψ', meaning: 'yaw, right positive', value: `${fixed(asked.yaw_deg, 2)}°` },
      { symbol: 'v', meaning: 'image distance', value: mm(s.imageDistanceMm, 2) },
      { symbol: 'w', meaning: 'width of the frame', value: mm(s.frame.widthMm, 1) },
      { symbol: 's₀', meaning: 'shift before', value: mm(s.frame.shiftMm, 2) },
      {
        symbol: '−',
        meaning: 'the far edge loses',
        value:
          found === undefined || found.far_edge_lost_deg === null
            ? '—'
            : `${fixed(found.far_edge_lost_deg, 2)}°`,
      },
    ],
    source:
      'Plain trigonometry for far things; stretch 1/cos β: Kingslake, Optics in Photography (1992).',
  };
}
