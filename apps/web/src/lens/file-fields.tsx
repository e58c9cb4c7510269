import { useCallback, useMemo } from 'react';
import * as z from 'zod';
import { useKept } from '../browser/use-kept.js';
import type { OpenedFile } from './messages.js';
import type { Method } from './methods.js';
import { numberTyped, type Column, type Typed } from './typed.js';

/** What the files do not tell of themselves, typed beside them; it outlives a reload. */

const shape = z.record(z.string(), z.record(z.string(), z.string()));

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
