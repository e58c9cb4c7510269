/** Right and up of an arrow key, as a unit step. */
const ARROWS: Record<string, readonly [number, number]> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
};

interface Pressed {
  readonly key: string;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}

/** The step a pressed arrow asks for: Shift ten times, Alt a tenth; null for any other key. */
export function arrowStep(pressed: Pressed, detent: number): readonly [number, number] | null {
  const arrow = ARROWS[pressed.key];
  if (!arrow || pressed.ctrlKey || pressed.metaKey) return null;
  const size = detent * (pressed.shiftKey ? 10 : pressed.altKey ? 0.1 : 1);
  return [arrow[0] * size, arrow[1] * size];
}
