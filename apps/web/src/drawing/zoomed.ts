/** What is looked at: the place in the middle, y up, and CSS pixels for each of its lengths. */
export interface Seen {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
}

/** The same place under the hand, closer by a factor. */
export function zoomedAt(
  { x, y, scale }: Seen,
  by: number,
  hand: { readonly x: number; readonly y: number },
  [least, most]: readonly [number, number],
): Seen {
  const next = Math.min(most, Math.max(least, scale * by));
  // From the middle to the hand it is as far before as after, in pixels.
  return { x: x + hand.x / scale - hand.x / next, y: y + hand.y / scale - hand.y / next, scale: next }; // prettier-ignore
}
