/** How many of something there may be, where more than the schema has to know it. */

/** A mosaic has no more frames, a sliding back no more stops: fifty by fifty. */
export const MOST_MOSAIC_FRAMES = 2500;
/** As many places can be given one by one. */
export const MOST_PLACES = 400;
