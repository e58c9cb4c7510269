import { bedReading } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { atLaidFrame, layoutOf, type Layout } from '../mosaic/layout.js';
import { setupOf, type Setup } from '../optical/setup.js';
import { focusMissedMm } from './focusing.js';

/**
 * The setup at one frame of a mosaic: the image distance is held, so that all frames are windows on
 * one image, and what focuses goes along where the back leans.
 */
export function setupAtFrame(station: Station, layout: Layout, index: number): Setup {
  const s = setupOf(atLaidFrame(station, layout, index));
  const { imageDistanceMm } = layout.s;
  return { ...s, imageDistanceMm, bedMm: bedReading(s.stance, imageDistanceMm) };
}

/**
 * By how much the focus is missed where it is missed most, mm of draw, and at which frame: a back
 * that leans comes nearer to the lens as it goes across. Null: in the one picture, or in all alike.
 */
export function worstMissed(station: Station): readonly [mm: number, frame: number | null] {
  const { rear_tilt_deg = 0, rear_swing_deg = 0 } = station.movements;
  const leaned = rear_tilt_deg !== 0 || rear_swing_deg !== 0;
  if (!station.mosaic || station.held_off || !leaned)
    return [focusMissedMm(setupOf(station)), null];
  const layout = layoutOf(station);
  const all = layout.frames.map((_, i) => focusMissedMm(setupAtFrame(station, layout, i)));
  return all.reduce<readonly [number, number | null]>(
    (worst, each, i) => (Math.abs(each) > Math.abs(worst[0]) ? [each, i] : worst),
    [0, null],
  );
}
