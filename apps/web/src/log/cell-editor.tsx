import { useEffect, useRef, useState } from 'react';

/** One cell being written. What cannot be used stays, with the reason. */
export function CellEditor({
  label,
  start,
  onDone,
}: {
  label: string;
  start: string;
  /** @returns why the text cannot be used; null: it was taken. A null text leaves all as it was. */
  onDone: (text: string | null, step: 'stay' | 'down' | 'right') => string | null;
}) {
  const [text, setText] = useState(start);
  const [fault, setFault] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const settled = useRef(false);
  useEffect(() => {
    const { current } = input;
    current?.focus();
    current?.setSelectionRange(0, current.value.length);
    if (current && current.value.length === 1) current.setSelectionRange(1, 1);
  }, []);
  const done = (step: 'stay' | 'down' | 'right'): void => {
    if (settled.current) return;
    settled.current = true;
    const refused = onDone(text === start && start.length > 1 ? null : text, step);
    if (refused !== null) {
      settled.current = false;
      setFault(refused);
    }
  };
  return (
    <span role="gridcell" className="relative">
      <input
        ref={input}
        value={text}
        aria-label={label}
        aria-invalid={fault !== null}
        onChange={(event) => {
          setFault(null);
          setText(event.target.value);
        }}
        onBlur={() => done('stay')}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') done('down');
          else if (event.key === 'Tab') {
            event.preventDefault();
            done('right');
          } else if (event.key === 'Escape') {
            settled.current = true;
            onDone(null, 'stay');
          }
        }}
        className={`absolute inset-0 z-10 w-full border-2 bg-paper px-1.5 ${fault ? 'border-outside' : 'border-ink'}`}
      />
      {fault && (
        <span
          role="alert"
          className="absolute top-full left-0 z-20 w-64 border border-outside bg-paper px-2 py-1 text-[13px] whitespace-normal text-outside"
        >
          {fault}
        </span>
      )}
    </span>
  );
}
