/** Figures as Exif writes them: a numerator and a denominator of 32 bits each. */

const LARGEST = 0xffffffff;
/** Infinity, as Exif has it (CIPA DC-008, SubjectDistance). */
export const INFINITE = `${LARGEST}/1`;

/** A thousandth of a figure is less than any scale shows. */
const CLOSE = 1e-6;

/** The simplest fraction within a millionth of a value (continued fractions). */
export function rational(value: number): string {
  const negative = value < 0;
  const size = Math.abs(value);
  if (size >= LARGEST) return negative ? `-${INFINITE}` : INFINITE;
  let [p0, q0, p1, q1] = [0, 1, 1, 0];
  for (let rest = size, i = 0; i < 40; i++) {
    const whole = Math.floor(rest);
    const [p2, q2] = [whole * p1 + p0, whole * q1 + q0];
    if (p2 > LARGEST || q2 > LARGEST) break;
    [p0, q0, p1, q1] = [p1, q1, p2, q2];
    if (Math.abs(p1 / q1 - size) <= size * CLOSE || rest === whole) break;
    rest = 1 / (rest - whole);
  }
  return `${negative ? '-' : ''}${p1}/${q1}`;
}

/** A value to so many decimals, as a fraction. */
export const rationalTo = (value: number, decimals: number): string =>
  rational(Number(value.toFixed(decimals)));
