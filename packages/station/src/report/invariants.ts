/** What must always hold, looked at while Gangway is worked on and tested; in use it costs nothing. */

let held = false;

/** From here on every report is looked through. */
export const holdInvariants = (): void => {
  held = true;
};

/** The place of a number that JSON cannot say, as a pointer; null where there is none. */
export function notFinite(value: unknown, pointer = ''): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : `${pointer}: ${value}`;
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, inner] of Object.entries(value)) {
    const found = notFinite(inner, `${pointer}/${key}`);
    if (found) return found;
  }
  return null;
}

/** @throws where a figure is not a number, and invariants are held */
export function finiteThroughout<T>(report: T): T {
  const found = held ? notFinite(report) : null;
  if (found) throw new Error(`A figure of the report is no number: ${found}`);
  return report;
}
