import { useEffect, useState } from 'react';

const CAN = 'wakeLock' in navigator;

/** Keeps the screen on while it is asked for, where the browser can. @returns whether it does */
export function useAwake(wanted: boolean): 'on' | 'off' | 'cannot' {
  const [state, setState] = useState<'on' | 'off' | 'cannot'>(CAN ? 'off' : 'cannot');
  useEffect(() => {
    if (!wanted || !CAN) return undefined;
    let lock: WakeLockSentinel | null = null;
    let left = false;
    const ask = async (): Promise<void> => {
      try {
        lock = await navigator.wakeLock.request('screen');
        if (left) void lock.release();
        else setState('on');
        lock.addEventListener('release', () => !left && setState('off'));
      } catch {
        // A phone low on charge may refuse.
        if (!left) setState('cannot');
      }
    };
    // The browser lets go of it whenever the page is out of sight.
    const onSight = (): void => void (document.visibilityState === 'visible' && ask());
    document.addEventListener('visibilitychange', onSight);
    void ask();
    return () => {
      left = true;
      document.removeEventListener('visibilitychange', onSight);
      void lock?.release();
    };
  }, [wanted]);
  return wanted ? state : 'off';
}
