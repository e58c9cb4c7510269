import { useEffect, useState } from 'react';
import { timeSaid } from '@gangway/station';

const LOOK_MS = 100;

/** Minutes and seconds as a clock shows them; below ten seconds the tenth too. */
function clockSaid(seconds: number): string {
  const whole = Math.max(0, seconds);
  if (whole < 10) return whole.toFixed(1);
  const rounded = Math.round(whole);
  return `${Math.floor(rounded / 60)}:${String(rounded % 60).padStart(2, '0')}`;
}

/**
 * A clock for a shutter that is held open: it runs on through a reload, and what it reads when it is
 * closed goes into the log.
 */
export function LongExposure({
  startMs,
  onStart,
  plannedS,
  onDone,
}: {
  /** When it was started; null while it is not running. */
  startMs: number | null;
  onStart: (startMs: number | null) => void;
  plannedS: number;
  onDone: (timeS: number, openedMs: number) => void;
}) {
  const [nowMs, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (startMs === null) return;
    const timer = setInterval(() => setNow(Date.now()), LOOK_MS);
    return () => clearInterval(timer);
  }, [startMs]);
  if (startMs === null) {
    return (
      <button
        type="button"
        className="my-1 min-h-12 w-full rounded-sm border border-rule-strong px-4 text-[17px] font-medium"
        onClick={() => {
          setNow(Date.now());
          onStart(Date.now());
        }}
      >
        Start the clock: {timeSaid(plannedS)}
      </button>
    );
  }
  const gone = Math.max(0, (nowMs - startMs) / 1000);
  const left = plannedS - gone;
  const close = (timeS: number): void => {
    onStart(null);
    onDone(timeS, startMs);
  };
  return (
    <div className="my-1 border-y border-rule py-2">
      <p className="flex items-baseline justify-between gap-3">
        <span className="text-quiet">{left > 0 ? 'Close in' : 'Close now; over by'}</span>
        <span
          role="timer"
          aria-live="off"
          className={`figure text-[44px] leading-[48px] ${left > 0 ? '' : 'text-outside'}`}
        >
          {clockSaid(Math.abs(left))}
        </span>
      </p>
      <div aria-hidden className="my-1 h-1.5 bg-stage">
        <div
          className={`h-full ${left > 0 ? 'bg-within' : 'bg-outside'}`}
          style={{ width: `${Math.min(100, (100 * gone) / plannedS)}%` }}
        />
      </div>
      <div className="flex gap-2">
        <button
          type="button"
          className="min-h-12 flex-1 rounded-sm border border-ink bg-ink px-3 font-semibold text-on-strong"
          onClick={() => close(Math.max(0.1, Math.round((Date.now() - startMs) / 100) / 10))}
        >
          Closed
        </button>
        <button
          type="button"
          className="min-h-12 rounded-sm border border-rule-strong px-3"
          onClick={() => onStart(null)}
        >
          Not taken
        </button>
      </div>
    </div>
  );
}
