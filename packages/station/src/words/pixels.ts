import { LONGEST_FIGURE } from '@gangway/optics';
import { tooLongSaid, type Parsed } from './figures.js';

const PITCH = /^(?:pitch\s+)?(\d+(?:[.,]\d+)?)\s*(?:µm|μm|um|micron|microns)$/i;

/**
 * Pixels along a side as people know them: their number, or their pitch, `3.76 µm`.
 * @param sideMm the side; without it a pitch says nothing
 */
export function parsePixels(text: string, sideMm: number | undefined): Parsed {
  const written = text.trim();
  if (written.length > LONGEST_FIGURE) {
    return { ok: false, message: tooLongSaid() };
  }
  const pitch = PITCH.exec(written);
  if (pitch) {
    const um = Number(pitch[1]!.replace(',', '.'));
    if (um === 0) return { ok: false, message: 'A pitch is more than nothing; write 3.76 µm.' };
    return sideMm === undefined
      ? { ok: false, message: 'Give the side in millimetres first; then its pixels follow.' }
      : { ok: true, value: Math.round((sideMm * 1000) / um) };
  }
  const value = Number(written.replace(/\s*px$/i, '').replace(/[\u2009\u00a0 ]/g, ''));
  return Number.isFinite(value) && written !== ''
    ? { ok: true, value }
    : {
        ok: false,
        message: `“${written}” is neither a number of pixels nor a pitch; write 8256 or 3.76 µm.`,
      };
}

/** From one pixel to the next, µm. */
export const pitchUm = (sideMm: number, pixels: number): number => (sideMm * 1000) / pixels;
