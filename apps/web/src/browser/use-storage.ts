import { useSyncExternalStore } from 'react';
import { storageTrouble } from './storage.js';

/** Why this browser can keep no edits at present, or null. */
export const useStorageTrouble = () =>
  useSyncExternalStore(storageTrouble.subscribe, storageTrouble.get);
