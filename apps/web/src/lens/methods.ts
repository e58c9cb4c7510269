import type { Sheet } from '@gangway/paper';
import type { Paper } from '@gangway/paper';

/** Ways of measuring a lens: what each is for, and how to shoot it in five lines. */

export const METHODS = ['series', 'flat', 'edge', 'zero'] as const;
export type Method = (typeof METHODS)[number];

export interface MethodWords {
  readonly title: string;
  /** What it finds. */
  readonly finds: string;
  /** What is needed, in a few words. */
  readonly takes: string;
  readonly lines: readonly string[];
  /** The chart it is shot from, and how it is made. */
  readonly target: { readonly words: string; readonly file: string; readonly sheet: (paper: Paper) => Promise<Sheet> } | null; // prettier-ignore
  readonly care?: string;
}

const FLAT_LINES = [
  'Hold white, translucent plastic flat against the lens, and point it at an even sky or a lit wall.',
  'Focus at infinity, tilt and swing at zero; leave the plastic where it is.',
  'Take one picture with rise and shift at zero, then one shifted as far as it goes to each side.',
  'Expose so that the middle is bright and nothing is blown out, and all pictures of a stop alike.',
  'Do so at each stop that you use. Write down rise and shift of every picture.',
];

export const METHOD_WORDS: Readonly<Record<Method, MethodWords>> = {
  series: {
    title: 'Same scene, every stop',
    finds: 'Which stop is best in the middle, at the edges and in the corners, and what lags.',
    takes: 'one picture a stop',
    lines: [
      'Find something flat with fine detail to the corners: brickwork or foliage far off, or print.',
      'Stand square before it on a tripod. Focus on the middle, wide open, magnified; then leave it.',
      'Take the same picture at every stop, even out the light by time alone, and touch nothing else.',
      'Lowest ISO, self-timer; no sharpening, no noise reduction, no lens correction.',
      'To tell a lean from a decentred lens, do it again focused a little nearer and a little farther.',
    ],
    target: null,
  },
  flat: {
    title: 'Flat field',
    finds: 'Where the circle ends at each stop, how light falls off, and where its middle lies.',
    takes: '5 pictures a stop, white',
    lines: FLAT_LINES,
    target: {
      words: 'Note to write on',
      file: 'Flat-field note',
      sheet: async (paper) => (await import('@gangway/paper')).flatNote(FLAT_LINES, paper),
    },
    care: 'Never point it at the sun: through a lens it burns eyes, plastic and sensor.',
  },
  edge: {
    title: 'Edge chart',
    finds: 'How sharp the lens is, in line pairs a millimetre: at a place and a stop.',
    takes: 'print it, true to scale',
    lines: [
      'Print the chart at 100 %, hang it flat and upright, and light it evenly from both sides.',
      'Stand square before it on a tripod, so far off that a square is 60 pixels wide or more.',
      'Place it in the middle of the frame, at an edge, in a corner; focus each time, magnified.',
      'Lowest ISO, self-timer; the white a stop below blown out; no sharpening, no noise reduction.',
      'One picture for each place and stop. Mark one edge in each, with some room beside it.',
    ],
    target: {
      words: 'Edge chart',
      file: 'Edge chart',
      sheet: async (paper) => (await import('@gangway/paper')).edgeChart(paper),
    },
  },
  zero: {
    title: 'Zero of the tilt',
    finds: 'What the scale reads when the lens is truly straight.',
    takes: '3 pictures or more',
    lines: [
      'Print the fine lines, hang them upright and flat, and fill the frame with them.',
      'Camera level and square before it, on a tripod; lens wide open.',
      'Focus on the middle with the scale at zero, magnified; then leave the focus alone.',
      'Take a picture at each of five small leans by the scale: −1°, −0.5°, 0°, +0.5°, +1°.',
      'No sharpening. Tilt and swing each have their own zero: do one, then the other.',
    ],
    target: {
      words: 'Focus ruler and fine print',
      file: 'Focus ruler',
      sheet: async (paper) => (await import('@gangway/paper')).focusRuler(paper),
    },
  },
};

export const isMethod = (text: string): text is Method => (METHODS as readonly string[]).includes(text); // prettier-ignore
