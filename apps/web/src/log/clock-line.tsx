import { useState } from 'react';
import type { Offset } from '@gangway/station';
import { clockSaid, offsetSaid, readOffset } from './offset-words.js';

/** How a camera’s clock stands against the log, found, given or undecided. */
export function ClockLine({
  name,
  offset,
  onGive,
}: {
  name: string;
  offset: Offset;
  onGive: (seconds: number | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState(false);
  const { figure, words } = clockSaid(offset);
  const undecided = offset.kind === 'undecided';
  const give = (): void => {
    if (text === null) return;
    const seconds = text.trim() === '' ? null : readOffset(text);
    if (text.trim() !== '' && seconds === null) {
      setFault(true);
      return;
    }
    setText(null);
    onGive(seconds);
  };
  return (
    <div>
      <p className="text-[13px] text-quiet">{name}’s clock</p>
      <p>
        <span className={`figure text-[32px] leading-9 ${undecided ? 'text-costs' : ''}`}>
          {figure}
        </span>{' '}
        <span className="text-[13px] text-quiet">{words}</span>
      </p>
      {undecided && offset.offsetsS.length > 1 && (
        <p className="flex flex-wrap gap-2 py-1">
          {offset.offsetsS.slice(0, 4).map((seconds) => (
            <button
              key={seconds}
              type="button"
              className="min-h-9 rounded-sm border border-rule-strong px-2 pointer-coarse:min-h-11"
              onClick={() => onGive(Math.round(seconds))}
            >
              {offsetSaid(seconds)}
            </button>
          ))}
        </p>
      )}
      {text === null ? (
        <p className="flex gap-3 text-[13px]">
          <button
            type="button"
            className="min-h-8 underline underline-offset-4"
            onClick={() => setText(offset.kind === 'undecided' ? '' : offsetSaid(offset.offsetS))}
          >
            Set it by hand
          </button>
          {offset.kind === 'given' && (
            <button
              type="button"
              className="min-h-8 underline underline-offset-4"
              onClick={() => onGive(null)}
            >
              Find it from the times
            </button>
          )}
        </p>
      ) : (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            give();
          }}
        >
          <input
            aria-label={`How far ${name}’s clock is ahead or behind`}
            aria-invalid={fault}
            value={text}
            placeholder="1 h 0 min 37 s behind"
            onChange={(event) => {
              setFault(false);
              setText(event.target.value);
            }}
            className="min-h-9 w-56 border border-rule-strong bg-paper px-2 pointer-coarse:min-h-11"
          />
          <button type="submit" className="min-h-9 underline underline-offset-4">
            Use it
          </button>
          {fault && (
            <span role="alert" className="text-[13px] text-outside">
              Write it like 1 h 0 min 37 s behind, or −1:00:37.
            </span>
          )}
        </form>
      )}
    </div>
  );
}
