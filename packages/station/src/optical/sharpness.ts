import { ACUITY_ARCMIN } from '@gangway/optics';
import type { Station } from '../document/station.js';
import { keptPart, setupOf } from './setup.js';
import { turnedBack } from './facts.js';

/** What a standard of sharpness comes to where a picture is looked at. */
export interface SharpnessMeans {
  /** Circle of confusion on the back, µm. */
  readonly cocUm: number;
  /** The same in pixels of the back; null where they are not known. */
  readonly pixels: number | null;
  /** The widest print that is sharp all over seen from 25 cm, mm. */
  readonly printMm: number;
}

/** Where a print is held to be looked at. */
const READING_MM = 250;

export function sharpnessMeans(station: Station): SharpnessMeans {
  const s = setupOf(station);
  const coc = s.cocMm * s.factor;
  const across = keptPart(turnedBack(station.back), station.crop).widthMm;
  const seen = READING_MM * Math.tan((ACUITY_ARCMIN / 60) * (Math.PI / 180));
  return {
    cocUm: coc * 1000,
    pixels: s.pixelPitchMm === null ? null : coc / s.pixelPitchMm,
    printMm: (across * seen) / coc,
  };
}
