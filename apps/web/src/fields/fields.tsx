import { useId, type ReactNode } from 'react';
import { parseLengthMm, type Parsed, type Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectOpen, selectStation } from '../store/selectors.js';
import { textDropped, textRefused } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { useTypedText } from '../store/typed-text.js';
import { Field } from './field.js';
import { described, FieldLine, inputLook } from './line.js';

/** A figure as it was given: no rounding, no needless zeros. */
export const given = (value: number | undefined): string =>
  value === undefined ? '' : String(value).replace('-', '−');

export const parseNumber = (text: string): Parsed => {
  const value = Number(text.trim().replace('−', '-').replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(value)
    ? { ok: true, value }
    : { ok: false, message: `“${text.trim()}” is not a number; write for example 2 or 0.8.` };
};

export const parseMm = (text: string): Parsed => parseLengthMm(text, 'mm');

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-2 text-[15px] font-semibold">{title}</h2>
      <div className="space-y-1.5">{children}</div>
    </section>
  );
}

/** A length in mm, or another plain figure, at one place of the document. */
export function FigureField({
  label,
  pointer,
  unit,
  value,
  write,
  parse = unit === 'mm' ? parseMm : parseNumber,
  clear,
}: {
  label: string;
  pointer: string;
  unit?: string;
  value: number | undefined;
  write: (station: Station, value: number) => Station;
  parse?: (text: string) => Parsed;
  clear?: (station: Station) => Station;
}) {
  return (
    <Field
      label={label}
      pointer={pointer}
      shown={given(value)}
      unit={unit ?? ''}
      parse={parse}
      write={write}
      {...(clear ? { clear, placeholder: '—' } : {})}
    />
  );
}

export function TextField({
  label,
  pointer,
  value,
  write,
  refuse,
}: {
  label: string;
  pointer: string;
  value: string | undefined;
  write: (station: Station, value: string) => Station;
  /** The sentence that says why a text cannot be read; null where it can. */
  refuse?: (text: string) => string | null;
}) {
  const id = useId();
  const { change } = useEditing();
  const { message, props } = useTypedText(
    pointer,
    value ?? '',
    (text) =>
      refuse?.(text.trim()) ??
      change(`Set ${label.toLowerCase()}`, pointer, (station) => write(station, text.trim())),
  );
  return (
    <FieldLine {...{ id, label, message }}>
      <input
        id={id}
        {...props}
        {...described(id, message)}
        placeholder="—"
        className={`min-h-7 min-w-0 flex-1 text-right font-medium ${inputLook(message)}`}
      />
    </FieldLine>
  );
}

export function ChoiceField<T extends string>({
  label,
  pointer,
  value,
  options,
  write,
}: {
  label: string;
  pointer: string;
  value: T;
  options: readonly (readonly [T, string])[];
  write: (station: Station, value: T) => Station;
}) {
  const id = useId();
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const message = useAppSelector((state) => selectOpen(state).typed[pointer]?.message ?? null);
  return (
    <FieldLine {...{ id, label, message }}>
      <select
        id={id}
        value={value}
        {...described(id, message)}
        onChange={(event) => {
          const next = event.target.value as T;
          const refused = change(`Set ${label.toLowerCase()}`, pointer, (station) =>
            write(station, next),
          );
          dispatch(
            refused === null
              ? textDropped(pointer)
              : textRefused({ pointer, text: next, message: refused }),
          );
        }}
        className={`min-h-8 bg-paper text-right font-medium ${inputLook(null)}`}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </FieldLine>
  );
}

export const useStation = (): Station => useAppSelector(selectStation);
