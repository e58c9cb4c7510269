import { useCallback, useMemo } from 'react';
import * as z from 'zod';
import { fStop } from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import type { OpenedFile } from './messages.js';
import type { Method } from './methods.js';

/** What the files do not tell of themselves, typed beside them; it outlives a reload. */

const shape = z.record(z.string(), z.record(z.string(), z.string()));

/** “f/5.6”, “−11 mm”, “0,5°” as a number; NaN where it is none, null where nothing is typed. */
export function numberTyped(text: string | undefined): number | null {
  const plain = (text ?? '').trim().replace('−', '-').replace(',', '.').replace(/^f\s*\/\s*/i, '').replace(/\s*(?:mm|°)$/i, ''); // prettier-ignore
  if (plain === '') return null;
  return /^[+-]?(?:\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : NaN;
}

export interface Typed {
  readonly of: (name: string, field: string) => number | null;
  readonly text: (name: string, field: string) => string;
  readonly type: (name: string, field: string, text: string) => void;
  /** Several at once. */
  readonly typeAll: (all: Readonly<Record<string, Readonly<Record<string, string>>>>) => void;
}

export function useTyped(lens: string, method: Method): Typed {
  const [kept, setKept] = useKept(`lens.typed.${lens}.${method}`, shape, {});
  const type = useCallback(
    (name: string, field: string, text: string) =>
      setKept({ ...kept, [name]: { ...kept[name], [field]: text } }),
    [kept, setKept],
  );
  return useMemo(
    () => ({
      of: (name, field) => numberTyped(kept[name]?.[field]),
      text: (name, field) => kept[name]?.[field] ?? '',
      type,
      typeAll: (all) => setKept({ ...kept, ...all }),
    }),
    [kept, type, setKept],
  );
}

export interface Column {
  readonly field: string;
  readonly label: string;
  /** What may stand in it, said when it does not. */
  readonly allowed: string;
  readonly sound: (value: number) => boolean;
  /** What the file tells itself; then nothing is asked. */
  readonly told?: (file: OpenedFile) => string | null;
  readonly needed: boolean;
}

export const STOP_COLUMN: Column = {
  field: 'stop',
  label: 'f-number',
  allowed: 'an f-number from 0.5 to 256',
  sound: (value) => value >= 0.5 && value <= 256,
  told: ({ fNumber }) => (fNumber === null ? null : fStop(fNumber)),
  needed: true,
};

/** Why a file is not ready yet; null when it is. */
export function wrongWith(file: OpenedFile, columns: readonly Column[], typed: Typed): string | null {
  for (const { field, label, allowed, sound, told, needed } of columns) {
    if ((told?.(file) ?? null) !== null) continue;
    const value = typed.of(file.name, field);
    if (value === null) {
      if (needed) return `${label} of ${file.name} is missing: give ${allowed}.`;
    } else if (!sound(value)) return `${label} of ${file.name} must be ${allowed}.`;
  }
  return null;
} // prettier-ignore

/** The files, each with what has to be told of it. */
export function FileFields({
  files,
  columns,
  typed,
}: {
  files: readonly OpenedFile[];
  columns: readonly Column[];
  typed: Typed;
}) {
  return (
    <table className="w-full text-[13px]">
      <thead className="text-quiet">
        <tr>
          <th className="text-left font-normal">Picture</th>
          {columns.map(({ field, label }) => (
            <th key={field} className="pl-2 text-right font-normal">
              {label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {files.map((file) => (
          <tr key={file.index} className="border-t border-rule">
            <th className="max-w-36 truncate py-1 text-left font-normal" title={file.name}>
              {file.name}
            </th>
            {columns.map(({ field, label, sound, told }) => {
              const own = told?.(file) ?? null;
              const value = typed.of(file.name, field);
              return (
                <td key={field} className="pl-2 text-right">
                  {own === null ? (
                    <input
                      aria-label={`${label} of ${file.name}`}
                      aria-invalid={value !== null && !sound(value)}
                      value={typed.text(file.name, field)}
                      onChange={({ target }) => typed.type(file.name, field, target.value)}
                      className="figure min-h-8 w-16 border-b border-rule-strong bg-paper text-right aria-invalid:border-outside pointer-coarse:min-h-11"
                    />
                  ) : (
                    <span className="figure">{own}</span>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
