import type { EdgeProblem, FlatProblem, SeriesProblem, ZeroProblem } from '@gangway/frames';

/** What spoiled a measurement, and what to do about it. */

export const EDGE_PROBLEMS: Readonly<Record<EdgeProblem, string>> = {
  no_edge: 'There is no edge here. Mark an area with one straight edge between dark and light.',
  angle:
    'The edge is less than 2° or more than 43° from the rows or columns. Turn the chart by about 5°.',
  clipped: 'The light side is blown out. Give less light, by a stop or more.',
  curved: 'The edge is not straight. Take one that is, or a shorter piece of it.',
  short:
    'The edge is too short, or there is too little beside it: 20 rows, and 8 pixels each side.',
  faint: 'Dark and light differ too little. Light the chart more, or print it blacker.',
  sharpened:
    'The file was sharpened: light overshoots on both sides. The figures flatter the lens. Turn sharpening off.',
};

export const FLAT_PROBLEMS: Readonly<Record<FlatProblem, string>> = {
  clipped: 'Some of the white is blown out and was left out. Give less light.',
  dark: 'The white is too dark for its corners. Give more light.',
  uneven: 'The light falls off to one side as no lens does. The slope was taken off; even light is better.', // prettier-ignore
  middle_unsure: 'The middle of the circle is known only roughly. Add pictures shifted to all four sides.', // prettier-ignore
  middle_unseen: 'No picture shows the middle of the circle. Add one with all movements at zero.',
  too_little: 'There is too little to see. Take an evenly lit white that fills the frame.',
  patchy: 'The white is patchy. Hold white plastic before the lens, or defocus.',
};

export const SERIES_PROBLEMS: Readonly<Record<SeriesProblem, string>> = {
  few_stops: 'Fewer than three stops: what is best is not known on both sides.',
  foreign: 'Some pictures show something else, and were left out.',
  moved:
    'The camera moved between pictures. They were laid over each other again; lock the tripod.',
  clipped: 'Parts are blown out and were left out. Give less light.',
  too_little:
    'Too few places have fine detail. Take brickwork, foliage or print, all over the frame.',
  best_at_end: 'The best stop is the first or the last of the series. Add stops beyond it.',
};

export const ZERO_PROBLEMS: Readonly<Record<ZeroProblem, string>> = {
  too_few: 'Two pictures at two leans are the least; three or more are better.',
  even_chart: 'With two pictures both sides of the chart are taken to be alike. Add a third to be sure.', // prettier-ignore
  too_little: 'The chart does not tell. Fill the frame with fine print, square before the camera.',
  outside: 'The zero lies outside the leans that were tried. Add pictures beyond it.',
  foreign: 'Some pictures show something else, and were left out.',
};

export interface MeasuringProblem {
  readonly code: string;
  readonly message: string;
}

/** Problems with their words. */
export const withWords = <Code extends string>(
  codes: readonly Code[],
  words: Readonly<Record<Code, string>>,
): MeasuringProblem[] => codes.map((code) => ({ code, message: words[code] }));
