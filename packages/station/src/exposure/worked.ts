import type { FlashAnswer } from './flash.js';

/** Steps of a shutter nobody described. */
export const USUAL_STEPS = 'third';

/** What an exposure comes to, before anything is said against it. */
export interface Worked {
  /** Null where the sensor stands at or before the exit pupil: no image is formed. */
  bellows_stops: number | null;
  multiplier_stops: number;
  filter_stops: number;
  /** Filters, and with a hand-held meter bellows and multipliers. */
  added_stops: number;
  compensation_stops: number;
  /** What the meter asks here, before reciprocity; null without a reading, and with flash. */
  time_s: number | null;
  /** What to give; null past the end of a table, too. */
  given_s: number | null;
  /** The shutter’s nearest step; null past its slowest, too. */
  dial_s: number | null;
  off_stops: number | null;
  /** Shortest first. */
  brackets_s: (number | null)[];
  /** The same as the shutter’s scale has them; null past its slowest, too. */
  brackets_dial_s: (number | null)[];
  scene_range_stops: number | null;
  span_stops: number | null;
  covers_range: boolean | null;
  /** Light lost at the darkest corner of the frame, not added. */
  corner_stops: number | null;
  flash_stops: number | null;
  flash: FlashAnswer | null;
  /** Of what crosses the frame, while the shutter is open and while it reads. */
  smear_px: number | null;
  skew_px: number | null;
  /** From the first exposure to the end of the last, with brackets and the frames of a mosaic. */
  total_s: number | null;
  /** Time of day, where it is said when it begins. */
  ends_at: string | null;
}
