import type { Shelf } from '../../src/browser/storage.js';

/** What a browser's storage does, in a map; more text than it has room for is refused. */
export function shelfOf(kept = new Map<string, string>(), room = Infinity): Shelf {
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => {
      const others = [...kept].filter(([name]) => name !== key).map(([, text]) => text.length);
      if (others.reduce((sum, size) => sum + size, value.length) > room) throw new Error('full');
      kept.set(key, value);
    },
    removeItem: (key) => void kept.delete(key),
  };
}
