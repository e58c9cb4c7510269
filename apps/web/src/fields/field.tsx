import clsx from 'clsx';
import { useId } from 'react';
import type { Parsed, Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { useTypedText } from '../store/typed-text.js';

interface Props {
  label: string;
  /** JSON pointer of what the field sets; also where unfinished text is kept. */
  pointer: string;
  /** The present value as text, without its unit. */
  shown: string;
  unit?: string;
  parse: (text: string) => Parsed;
  write: (station: Station, value: number) => Station;
  /** Empty text takes the value away instead of being refused. */
  clear?: (station: Station) => Station;
  placeholder?: string;
  hideLabel?: boolean;
  className?: string;
  inputClassName?: string;
}

/** A field for a figure with a unit. What it refuses stays as typed, with the reason beside it. */
export function Field(props: Props) {
  const { label, pointer, shown, unit, parse, write, clear, placeholder } = props;
  const id = useId();
  const { change } = useEditing();
  const { message, props: typed } = useTypedText(pointer, shown, (text) => {
    if (clear && text.trim() === '') return change(`Clear ${label}`, pointer, clear);
    const read = parse(text);
    return read.ok
      ? change(`Set ${label.toLowerCase()}`, pointer, (station) => write(station, read.value))
      : read.message;
  });

  return (
    <div className={props.className}>
      <div className="flex items-baseline justify-between gap-3">
        <label htmlFor={id} className={props.hideLabel ? 'sr-only' : 'text-quiet'}>
          {label}
        </label>
        <span className="flex items-baseline gap-1">
          <input
            id={id}
            {...typed}
            placeholder={placeholder}
            onFocus={(event) => event.target.select()}
            aria-describedby={message === null ? undefined : `${id}-why`}
            className={clsx(
              'min-h-7 border-b bg-transparent text-right figure outline-offset-1 placeholder:font-normal placeholder:text-faint pointer-coarse:min-h-11',
              message === null ? 'border-rule hover:border-rule-strong' : 'border-outside',
              props.inputClassName ?? 'w-20',
            )}
          />
          {unit !== undefined && <span className="w-7 text-[12px] text-quiet">{unit}</span>}
        </span>
      </div>
      {message !== null && (
        <p id={`${id}-why`} role="alert" className="mt-1 text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}
