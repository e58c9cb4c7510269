/** At a magnification of minus the pupil ratio the sensor stands in the exit pupil itself. */
export const NO_IMAGE =
  'The sensor stands at or before the exit pupil of the lens: no image is formed there. Draw the lens out.';
