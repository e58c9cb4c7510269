import { useSyncExternalStore } from 'react';

const narrow = matchMedia('(width < 640px)');

const subscribe = (changed: () => void): (() => void) => {
  narrow.addEventListener('change', changed);
  return () => narrow.removeEventListener('change', changed);
};

/** Whether the window is as narrow as a phone, for what a style sheet cannot say. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => narrow.matches);
