/** A file dropped on a page of the kit, on its way to the import page. */
let dropped: File | null = null;
let hear: ((file: File) => void) | null = null;

export function dropKit(file: File): void {
  if (hear) hear(file);
  else dropped = file;
}

/** Takes what was dropped, now and later. @returns what ends it */
export function onKitDropped(take: (file: File) => void): () => void {
  hear = take;
  if (dropped) {
    const file = dropped;
    dropped = null;
    take(file);
  }
  return () => {
    hear = null;
  };
}
