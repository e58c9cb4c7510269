/** What is said of a part of a lens that was measured: which, when and on what. */

interface Occasion {
  /** The day, where it was kept. */
  readonly on?: string;
  /** The back it was measured on, where it was kept. */
  readonly back?: string;
}

const own =
  (what: string) =>
  ({ on, back }: Occasion): string =>
    `${what} is this lens’s own, measured${on ? ` ${on}` : ''}${back ? ` on ${back}` : ''}.`;

export const MEASURED_SAYS = {
  circle: own('The circle'),
  falloff: own('Falloff'),
  sharpness: own('Sharpness'),
  detail: own('Detail by stop'),
};
