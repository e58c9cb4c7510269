import { movementsAsked, facadeView } from '../facade/facade.js';
import { fixed, mm } from '../words/format.js';
import type { Asked, Why } from './why.js';

export function whyFacadeRise({ station, report, setup: s }: Asked): Why {
  const { facade, camera, movement_limits: limits } = station;
  const front = limits.moves === 'front';
  const needed = report.facade?.rise_needed_mm ?? null;
  const seen = facade ? facadeView(s, facade) : null;
  const asks = seen && movementsAsked(seen);
  return {
    rests: ['level'],
    title: 'Rise that brings in the top',
    result: needed === null ? '—' : mm(needed, 2),
    words: front
      ? 'The top with its room is pictured above the middle by the image distance over the distance; the frame reaches half its height above its own middle. The lens goes up with the front, which the picture follows by a hair.'
      : 'The top with its room is pictured above the middle by the image distance over the distance; the frame reaches half its height above its own middle. The lens stays where it is.',
    formula: front ? 'r (1 + v/D) = v (H − h₀)/D − h/2' : 'r = v (H − h₀)/D − h/2',
    numbers: [
      { symbol: 'v', meaning: 'image distance', value: mm(s.imageDistanceMm, 2) },
      {
        symbol: 'H',
        meaning: 'top with the room wanted above',
        value: facade ? `${fixed(facade.top_m + (facade.headroom_m ?? 0), 2)} m` : '—',
      },
      { symbol: 'h₀', meaning: 'height of the sensor', value: `${fixed(camera.height_m, 2)} m` },
      {
        symbol: 'D',
        meaning: 'façade ahead of the lens centre',
        value: facade ? `${fixed(facade.distance_m - s.imageDistanceMm / 1000, 3)} m` : '—',
      },
      { symbol: 'h', meaning: 'height of the frame', value: mm(s.frame.heightMm, 1) },
      {
        symbol: '↓',
        meaning: 'rise above which the foot is cut',
        value:
          report.facade?.rise_before_foot_is_cut_mm === undefined ||
          report.facade.rise_before_foot_is_cut_mm === null
            ? 'not wanted'
            : mm(report.facade.rise_before_foot_is_cut_mm, 2),
      },
      {
        symbol: '↔',
        meaning: 'shift that brings in both sides, from and to',
        value: asks ? `${fixed(asks.right, 1)}, ${fixed(asks.left, 1)} mm` : '—',
      },
    ],
    source:
      'Central projection through the lens centre; pitched or turned, the same in the sensor’s own axes.',
  };
}
