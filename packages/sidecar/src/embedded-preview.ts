/**
 * The picture that a raw file carries of itself: the largest JPEG inside it. Raw formats are many; what
 * a JPEG looks like from its first byte to its last is one.
 * Source: ITU-T T.81 (markers and their lengths).
 */

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
/** Baseline, extended and progressive; a raw file's own data is lossless (0xc3) and no picture. */
const SHOWN = new Set([0xc0, 0xc1, 0xc2]);

/** A file is looked through so many times at most. */
const TIMES_THROUGH = 6;

interface Found {
  readonly from: number;
  readonly to: number;
  readonly pixels: number;
  /** Colours, 4 of which are CMYK. */
  readonly colours: number;
}

/** Bytes that may still be looked at. */
interface Looks {
  left: number;
}

/** Follows a JPEG from its start. @returns null where it is none, or where too much was looked at */
function follow(bytes: Uint8Array, from: number, looks: Looks): Found | null {
  let at = from + 2;
  let pixels = 0;
  let colours = 0;
  while (at + 4 <= bytes.length) {
    if (--looks.left < 0 || bytes[at] !== 0xff) return null;
    const marker = bytes[at + 1]!;
    if (marker === 0xff) {
      at++;
      continue;
    }
    const length = (bytes[at + 2]! << 8) | bytes[at + 3]!;
    if (length < 2) return null;
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)) {
      if (!SHOWN.has(marker)) return null;
      colours = bytes[at + 9]!;
      pixels = ((bytes[at + 5]! << 8) | bytes[at + 6]!) * ((bytes[at + 7]! << 8) | bytes[at + 8]!);
    }
    at += 2 + length;
    if (marker !== SOS) continue;
    // Coded data: a marker in it is stuffed with a nought, or restarts.
    const coded = at;
    while (at + 1 < bytes.length) {
      const next = bytes[at + 1]!;
      if (bytes[at] === 0xff && next !== 0 && next !== 0xff && (next < 0xd0 || next > 0xd7)) break;
      at++;
    }
    looks.left -= at - coded;
    if (bytes[at + 1] === EOI) return { from, to: at + 2, pixels, colours };
  }
  return null;
}

/** @returns the bytes of the largest JPEG inside, or null where there is none */
export function embeddedPreview(bytes: Uint8Array): Uint8Array | null {
  let best: Found | null = null;
  // Beginnings that lead nowhere are as many as somebody likes: all together are looked through a few times.
  const looks: Looks = { left: TIMES_THROUGH * bytes.length };
  for (
    let at = bytes.indexOf(0xff);
    at >= 0 && at + 3 < bytes.length && looks.left > 0;
    at = bytes.indexOf(0xff, at + 1)
  ) {
    if (bytes[at + 1] !== SOI || bytes[at + 2] !== 0xff) continue;
    const found = follow(bytes, at, looks);
    if (!found) continue;
    if (!best || found.pixels > best.pixels) best = found;
    // Its own small picture lies inside it.
    at = found.to - 1;
  }
  return best && best.pixels > 0 ? bytes.subarray(best.from, best.to) : null;
}

/** @returns how many colours a JPEG has, or null where it is none, or is cut short */
export function wholeJpeg(bytes: Uint8Array): { readonly colours: number } | null {
  const found =
    bytes[0] === 0xff && bytes[1] === SOI
      ? follow(bytes, 0, { left: TIMES_THROUGH * bytes.length })
      : null;
  return found && found.pixels > 0 ? { colours: found.colours } : null;
}

const RAW = /\.(?:dng|cr[23w]|nef|nrw|arw|srf|sr2|raf|rw[2l]|orf|pef|ptx|iiq|3fr|fff|mef|mos|x3f|erf|kdc|dcr|raw)$/i; // prettier-ignore
export const isRaw = (path: string): boolean => RAW.test(path);
