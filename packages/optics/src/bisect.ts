/**
 * Halves what lies between a value that serves and one that does not.
 * @param serves true at `good`, false at `bad`, and turns once in between
 * @param within ends when the two are this near; else after as many halvings as a double can tell
 * @returns the last value that serves
 */
export function bisect(
  good: number,
  bad: number,
  serves: (value: number) => boolean,
  within = 0,
): number {
  let [yes, no] = [good, bad];
  for (let i = 0; i < HALVINGS && Math.abs(yes - no) > within; i++) {
    const middle = (yes + no) / 2;
    if (middle === yes || middle === no) break;
    if (serves(middle)) yes = middle;
    else no = middle;
  }
  return yes;
}

/** From the widest span asked for, some 10⁵, to the last digit. */
const HALVINGS = 80;
