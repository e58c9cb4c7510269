import { useCallback, useEffect, useState } from 'react';

/** One frame at a time: the frame that is looked at, null for all of them. */
export interface Stepping {
  readonly at: number | null;
  readonly show: (index: number | null) => void;
  readonly step: (by: 1 | -1) => void;
}

const writes = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

const KEYS: Record<string, 1 | -1> = { n: 1, p: -1 };

/** Steps through frames, by buttons and by the keys N and P. */
export function useStepping(count: number): Stepping {
  const [at, show] = useState<number | null>(null);
  // A frame that is gone is not looked at.
  const held = at !== null && at < count ? at : null;
  const step = useCallback(
    (by: 1 | -1) =>
      show((now) => {
        if (count === 0) return null;
        if (now === null || now >= count) return by === 1 ? 0 : count - 1;
        const next = now + by;
        return next < 0 || next >= count ? null : next;
      }),
    [count],
  );
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const by = KEYS[event.key.toLowerCase()];
      const busy = event.ctrlKey || event.metaKey || event.defaultPrevented || writes(event.target);
      if (!by || busy || document.querySelector('[role="dialog"]')) return;
      event.preventDefault();
      step(by);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [step]);
  return { at: held, show, step };
}
