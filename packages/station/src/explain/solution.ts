import { degrees, fixed, fStop, mm } from '../words/format.js';
import { advised } from '../focus/advised.js';
import type { Asked, Why } from './why.js';

export function whySolution({ station }: Asked): Why {
  const answer = advised(station);
  const common = {
    rests: ['sharpness', 'circle'] as const,
    title: 'Lean, focus and stop',
    words:
      'Of all leans and focus settings the rig allows, the one whose wedge holds every sharp mark at the widest stop: the largest f-number that any of them asks for is made least. Circle, filter ring and the ends of the bed are conditions of it: stops and bellows limit where the lens stands, whichever way it leans. A plain tilt or swing is preferred to a slanting lean that gains less than a stop.',
    formula:
      'least over θ, φ, v of the greatest N = p f |v − q| / (c (q + (p − 1) f a_z)), q = f (P·n) / (P·a − f)',
    // Madsen (1975): from memory.
    source:
      'Thin-lens conjugates; Merklinger, Focusing the View Camera (1993). Solved by a sequence of linear programs: Madsen (1975).',
  };
  if (!answer) return { ...common, result: '—', numbers: [] };
  const { solved, setup: s, engravedNeeded } = answer;
  return {
    ...common,
    result: `f/${fixed(engravedNeeded, 1)}`,
    numbers: [
      { symbol: 'f', meaning: 'focal length that acts', value: mm(s.focalLengthMm) },
      { symbol: 'c', meaning: 'circle of confusion', value: mm(s.cocMm, 4) },
      { symbol: 'θ', meaning: 'tilt found', value: degrees(solved.lens.tiltDeg, 2) },
      { symbol: 'φ', meaning: 'swing found', value: degrees(solved.lens.swingDeg, 2) },
      { symbol: 'v', meaning: 'image distance found', value: mm(solved.imageDistanceMm, 2) },
      { symbol: 'w', meaning: 'what to set on the bed', value: mm(solved.bedMm, 2) },
      {
        symbol: 'N',
        meaning: 'least f-number that holds all; set',
        value: `${fixed(engravedNeeded, 2)}; ${fStop(answer.station.aperture)}`,
      },
    ],
  };
}
