import { patchesLonger } from './marks.js';
import type { Station } from '../document/station.js';
import { setupOf } from '../optical/setup.js';

/** What the model does not know, as one would tell it to who shoots by it. */
export const NOT_KNOWN = [
  'The figures are those of an ideal thin lens. Real lenses bend the plane of sharp focus a little towards the edges of the frame: look at the corners on the glass, and close down half a stop more than is told here.',
  'Seen from the side, a leaned stop draws a patch out along one direction. Where that is more than 5 %, the length is given beside the figure.',
  'A real lens is thick. Distances are counted from the middle of a thin one, so a tape is right to a few centimetres; focus by eye.',
] as const;

/** Close up those centimetres matter: said where one works by magnification. */
export const CLOSE_UP_NOT_KNOWN =
  'Real lenses look out of their entrance pupil, some centimetres from where a thin lens would stand. This close, frame and distance are off by as much: set the camera up with these figures, then frame on the glass.';

/** A patch drawn out by less is as good as round. */
const ROUND = 0.05;

/** How much longer than told a patch is along one direction; empty where it is as good as round. */
export const longerWords = (longer: number): string =>
  longer > ROUND ? `${Math.round(100 * longer)} % longer one way` : '';

/** The same for each mark of a station. */
export const longerAtMarks = (station: Station): string[] =>
  patchesLonger(setupOf(station)).map(longerWords);
