/** What is taken where a station does not say; common practice, no source. */

/** Overlap of neighbouring frames, as a share of the frame's side. */
export const DEFAULT_OVERLAP = 0.3;
/** Moving, settling and releasing once, s. */
export const MOSAIC_SECONDS_EACH = 25;
/** Of a pixel in the file, as raw files have them unpacked. */
export const BITS = 16;
