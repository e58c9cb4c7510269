import { useState } from 'react';
import { isAway } from './api.js';

const AGAIN_MS = 2000;

/**
 * For what a page shows: asked for again while the server or its database is away.
 * @returns the time from one try to the next, ms (0: none), and what to tell the query's error to
 */
export function useTries(): [number, (error: unknown) => void] {
  const [pauseMs, setPauseMs] = useState(0);
  const heed = (error: unknown): void => {
    const wanted = isAway(error) ? AGAIN_MS : 0;
    if (wanted !== pauseMs) setPauseMs(wanted);
  };
  return [pauseMs, heed];
}
