import { fStop } from '@gangway/station';
import type { OpenedFile } from './messages.js';

/** What is typed beside pictures, read and judged. */

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
