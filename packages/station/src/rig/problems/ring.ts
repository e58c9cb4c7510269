import type { SettingCheck } from './problem.js';
import { turnedBack } from '../../optical/facts.js';

/**
 * From which shift or rise a filter ring cuts in, the lens straight. Closed form: the ring passes
 * angles up to tan β = (d − D) / 2 t p, on the back a circle of radius (v + (p − 1) f) tan β.
 */
export const ringCuts: SettingCheck<'ring_cuts'> = (setup) => {
  const { filter } = setup.facts.lens;
  if (!filter || filter.ahead_of_pupil_mm === 0) return [];
  const { clear_diameter_mm: clear, ahead_of_pupil_mm: ahead } = filter;
  const pupil = setup.engravedMm / setup.fNumber;
  const v = setup.imageDistanceMm;
  const { factor } = setup;
  const turned = turnedBack(setup.facts.back);
  const [w, h] = [turned.widthMm / factor / 2, turned.heightMm / factor / 2];
  const reachOf = (radius: number, along: number, across: number): number =>
    radius <= across ? -1 : Math.sqrt(radius ** 2 - across ** 2) - along;
  // Seen from the exit pupil; before the entrance pupil the same light comes in p times as steeply.
  const from = v + (setup.cone.apexMm ?? 0);
  const steep = ahead * setup.pupilRatio;
  const ring = from * Math.max(0, (clear - pupil) / (2 * steep));
  const circle = from * Math.tan(setup.cone.halfAngleRad);
  const { rise_mm: up, shift_mm: side } = setup.facts.limits;
  const most = (range: readonly [number, number] | undefined): number =>
    range ? Math.max(-range[0], range[1]) : Infinity;
  const ways = [
    {
      movement: 'shift' as const,
      cut: reachOf(ring, w, h),
      free: Math.min(reachOf(circle, w, h), most(side)),
    },
    {
      movement: 'rise' as const,
      cut: reachOf(ring, h, w),
      free: Math.min(reachOf(circle, h, w), most(up)),
    },
  ];
  const cutting = ways.filter(({ cut, free }) => cut < Math.max(0, free) - 1e-6);
  if (cutting.length === 0) return [];
  const far = Math.max(
    Math.hypot(w + Math.max(0, ways[0]!.free), h),
    Math.hypot(w, h + Math.max(0, ways[1]!.free)),
  );
  const enough = 2 * ((steep * far) / from + pupil / 2);
  return [
    {
      severity: 'warn',
      joint: null,
      values: {
        from: cutting.map(({ movement, cut }) => ({ movement, cutMm: cut < 0 ? null : cut })),
        clearMm: Math.ceil(enough),
      },
    },
  ];
};
