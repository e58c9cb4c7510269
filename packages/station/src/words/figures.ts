import {
  LONGEST_FIGURE,
  readAngleDeg,
  readDistanceM,
  readFNumber,
  readLengthMm,
  readRatio,
  readStops,
  readTimeS,
  type LengthUnit,
  type Read,
  type Unreadable,
} from '@gangway/optics';

/** Figures as people write them, with a sentence where a text is none. */

export type Parsed = { ok: true; value: number } | { ok: false; message: string };

const UNREADABLE_SAYS: Readonly<Record<Unreadable, (written: string) => string>> = {
  too_long: () => `This is too long for a figure; write at most ${LONGEST_FIGURE} characters.`,
  too_large: (written) => `“${written}” is too large to be a number here.`,
  no_length: (written) => `“${written}” is not a length; write for example 2.4 m or 7' 10".`,
  empty_length: () => 'Write a length, for example 2.4 m or 7\' 10".',
  no_angle: (written) => `“${written}” is not an angle; write degrees, for example 3.5.`,
  no_f_number: (written) => `“${written}” is not an aperture; write for example f/11.`,
  no_ratio: (written) => `“${written}” is not a number; write for example 0.5 or 1:2.`,
  no_time: (written) => `“${written}” is not a time; write for example 1/125, 4 s or 2 min.`,
  empty_time: () => 'Write a time, for example 1/125, 4 s or 2 min.',
  no_stops: (written) => `“${written}” is not a number of stops; write for example 1 1/3, or 8×.`,
  no_factor: () => 'A factor must be above 0; write for example 4×.',
};

const said = (read: Read): Parsed =>
  read.ok ? read : { ok: false, message: UNREADABLE_SAYS[read.unreadable](read.written) };

export const parseLengthMm = (text: string, bare: LengthUnit): Parsed =>
  said(readLengthMm(text, bare));
export const parseDistanceM = (text: string, bare: LengthUnit): Parsed =>
  said(readDistanceM(text, bare));
export const parseAngleDeg = (text: string): Parsed => said(readAngleDeg(text));
export const parseFNumber = (text: string): Parsed => said(readFNumber(text));
export const parseRatio = (text: string): Parsed => said(readRatio(text));
export const parseTimeS = (text: string): Parsed => said(readTimeS(text));
export const parseStops = (text: string): Parsed => said(readStops(text));

/** What a text too long for any figure is told. */
export const tooLongSaid = (): string => UNREADABLE_SAYS.too_long('');
