import { fixed, fStop } from '../words/format.js';
import { stopTable } from '../focus/stops.js';
import type { Asked, Why } from './why.js';

export function whyBestStop({ station }: Asked): Why {
  const { best, why } = stopTable(station);
  return {
    rests: ['sharpness', 'exposure'],
    title: 'Best stop',
    result: best ? fStop(best.fNumber) : '—',
    words: `Stopping down shrinks the blur and grows the Airy disc; the two add as one spot. ${why}`,
    formula: '√(b² + Airy²), b = (p f/N) |v − q| / (q + (p − 1) f a_z), Airy = 2.44 λ N (1 + m/p)',
    numbers: best
      ? [
          {
            symbol: 'b',
            meaning: 'blur of the worst mark',
            value: `${fixed(best.worstBlurUm!, 1)} µm`,
          },
          { symbol: 'Airy', meaning: 'Airy disc', value: `${fixed(best.airyUm, 1)} µm` },
          { symbol: 'N_eff', meaning: 'f-number that acts', value: fixed(best.effective, 1) },
          { symbol: 'λ', meaning: 'wavelength', value: '0.546 µm' },
        ]
      : [],
    // Hansma (1996): from memory.
    source:
      'Airy disc: any optics text, e.g. Hecht, Optics. Of two marks alone it acts as √(375 Δ), which is set over 1 + m/p on the ring: Hansma, View Camera Focusing in Practice (1996).',
  };
}
