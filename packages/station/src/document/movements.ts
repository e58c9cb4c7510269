/** Movements by the names they have in the document. */

export type Movement = 'rise_mm' | 'shift_mm' | 'tilt_deg' | 'swing_deg';
export const MOVEMENTS = ['rise_mm', 'shift_mm', 'tilt_deg', 'swing_deg'] as const;

/** What the back does by itself. */
export const REAR_MOVEMENTS = [
  'rear_rise_mm',
  'rear_shift_mm',
  'rear_tilt_deg',
  'rear_swing_deg',
] as const;
export type RearMovement = (typeof REAR_MOVEMENTS)[number];
