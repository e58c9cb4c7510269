import clsx from 'clsx';
import { useId } from 'react';
import type { Parsed, Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { useTypedText } from '../store/typed-text.js';
import { described, FieldLine, inputLook } from './line.js';

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
  help?: string;
  hideLabel?: boolean;
  className?: string;
  inputClassName?: string;
}

/** A field for a figure with a unit. What it refuses stays as typed, with the reason beside it. */
export function Field(props: Props) {
  const { label, pointer, shown, unit, parse, write, clear, placeholder, help } = props;
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
    <FieldLine
      {...{ id, label, message, unit, help }}
      hideLabel={props.hideLabel}
      className={props.className}
    >
      <input
        id={id}
        {...typed}
        {...described(id, message, help)}
        placeholder={placeholder}
        onFocus={(event) => event.target.select()}
        className={clsx(
          'min-h-7 text-right figure outline-offset-1 placeholder:font-normal placeholder:text-faint',
          inputLook(message),
          props.inputClassName ?? 'w-20',
        )}
      />
    </FieldLine>
  );
}
