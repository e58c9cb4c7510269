/** One line of a lens's circle table: the image circle at infinity focus at a stop. */
export interface CircleAtStop {
  readonly fNumber: number;
  readonly diameterMm: number;
}

/**
 * Image circle diameter at a stop, focused at infinity: linear in log₂ of the f-number
 * between entries, held at the end values outside, never extrapolated.
 * @param table at least one entry, f-numbers strictly rising
 */
export function circleDiameterMm(table: readonly CircleAtStop[], fNumber: number): number {
  const first = table[0];
  if (!first) throw new RangeError('a circle table needs at least one entry');
  if (fNumber <= first.fNumber) return first.diameterMm;
  for (let i = 1; i < table.length; i++) {
    const below = table[i - 1]!;
    const above = table[i]!;
    if (fNumber <= above.fNumber) {
      const share = Math.log2(fNumber / below.fNumber) / Math.log2(above.fNumber / below.fNumber);
      return below.diameterMm + share * (above.diameterMm - below.diameterMm);
    }
  }
  return table[table.length - 1]!.diameterMm;
}

/**
 * Half-angle of the cone a lens covers about its axis, seen from the exit pupil, radians. The circle
 * is quoted at infinity, where that pupil stands p f before it.
 */
export function coneHalfAngleRad(
  diameterMm: number,
  focalLengthMm: number,
  pupilRatio = 1,
): number {
  return Math.atan(diameterMm / (2 * pupilRatio * focalLengthMm));
}

const THIRDS = [
  1, 1.1, 1.2, 1.4, 1.6, 1.8, 2, 2.2, 2.5, 2.8, 3.2, 3.5, 4, 4.5, 5, 5.6, 6.3, 7.1, 8, 9, 10, 11,
  13, 14, 16, 18, 20, 22, 25, 29, 32, 36, 40, 45, 51, 57, 64, 72, 80, 90, 102, 114, 128,
] as const;

/** Stops as engraved, whole and by thirds, within a range. Source: ISO 517 (powers of √2). */
export function engravedStops(fMin: number, fMax: number, step: 'whole' | 'third'): number[] {
  const slack = 1e-9;
  return THIRDS.filter(
    (n, i) =>
      (step === 'third' || i % 3 === 0) && n >= fMin * (1 - slack) && n <= fMax * (1 + slack),
  );
}

/** A ring is engraved to about this share: f/3.5 stands for 3.56, f/22 for 22.6. */
export const ENGRAVED = 0.03;

/** The stops of a ring as they act: exact powers of the sixth root of two from end to end. */
export function ringStops(fMin: number, fMax: number): number[] {
  const first = Math.ceil(6 * Math.log2(fMin * (1 - ENGRAVED)));
  const last = Math.floor(6 * Math.log2(fMax * (1 + ENGRAVED)));
  // A lens of one stop that is on no ring has that one.
  if (last < first) return [fMin];
  return Array.from({ length: last - first + 1 }, (_, i) => 2 ** ((first + i) / 6));
}

/** As a ring says it: 11 for 11.31; any other f-number as it is. */
export function engravedFNumber(fNumber: number): number {
  const at = MEANT.findIndex((meant) => Math.abs(meant / fNumber - 1) < ENGRAVED / 10);
  return at < 0 ? fNumber : THIRDS[at]!;
}

/** The power of the sixth root of two that an engraved f-number stands for. */
const powerOf = (fNumber: number): number => 2 ** (Math.round(6 * Math.log2(fNumber)) / 6);

const MEANT = THIRDS.map(powerOf);

/**
 * An engraved f-number is a rounded power of √2: f/11 means 11.31. Source: ISO 517.
 * @returns the power it stands for, by thirds of a stop; any other f-number as it is
 */
export function meantFNumber(fNumber: number): number {
  const engraved = THIRDS.some((each) => Math.abs(each - fNumber) < 1e-6);
  return engraved ? powerOf(fNumber) : fNumber;
}

/**
 * Stops of light between two f-numbers as a photographer counts them, engraved ones for what
 * they mean; positive when `to` is the smaller opening.
 */
export const stopsBetween = (from: number, to: number): number =>
  2 * Math.log2(meantFNumber(to) / meantFNumber(from));
