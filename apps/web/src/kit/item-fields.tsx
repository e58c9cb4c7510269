import { useState } from 'react';
import type { Control, UseFormRegister } from 'react-hook-form';
import type { FieldDef, FieldGroup, Kind } from '@gangway/station';
import { described, FieldLine, inputLook } from '../fields/line.js';
import type { TermId } from '../words/terms.js';
import { nameOf, type Values } from './item-values.js';
import { onwards } from './onwards.js';

/** Some fields under a heading; those that are not needed first open when wanted. */
export function Group({
  group,
  kind,
  filled,
  wrong,
  children,
}: {
  group: FieldGroup;
  kind: Kind;
  filled: boolean;
  wrong: boolean;
  children: React.ReactNode;
}) {
  const [open, setOpen] = useState(group.open === true || filled);
  const shown = open || wrong;
  if (group.open) {
    return (
      <section>
        <h2 className="mb-2 text-[15px] font-semibold">{group.title}</h2>
        <div className="space-y-1.5">{children}</div>
      </section>
    );
  }
  return (
    <section>
      <h2>
        <button
          type="button"
          aria-expanded={shown}
          onClick={() => setOpen(!shown)}
          className="flex min-h-9 w-full items-baseline gap-2 border-t border-rule pt-2 text-left text-[15px] font-semibold pointer-coarse:min-h-11"
        >
          {group.title}
          {!shown && (
            <span className="truncate text-[13px] font-normal text-quiet">
              {filled
                ? 'filled in'
                : group.fields
                    .slice(0, 3)
                    .map(({ label }) => label.toLowerCase())
                    .join(', ')}
            </span>
          )}
        </button>
      </h2>
      {shown && (
        <div className="mt-1 space-y-1.5" data-kind={kind}>
          {children}
        </div>
      )}
    </section>
  );
}

const UNITS: Partial<Record<FieldDef['input'], string>> = {
  length: 'mm',
  offset: 'mm',
  range_mm: 'mm',
  range_deg: '°',
  angle: '°',
  angles: '°',
  mass: 'g',
  pixels: 'px',
  ratio: '×',
};

/** One field of the form. */
export function TextLine({
  field,
  register,
  message,
  hint,
  onLeave,
  onType,
}: {
  field: FieldDef;
  register: UseFormRegister<Values>;
  control: Control<Values>;
  message: string | undefined;
  hint: string | undefined;
  onLeave: () => void;
  onType: () => void;
}) {
  const name = nameOf(field.path);
  const id = `field-${name}`;
  const bound = register(name, { onBlur: onLeave, onChange: onType });
  const wrong = message ?? null;
  const help = hint ?? field.help;
  const why = described(id, wrong, help);
  const wide = field.input === 'text' || field.input === 'notes';
  const look = inputLook(wrong);
  return (
    <FieldLine
      {...{ id, help }}
      term={TERM_OF[field.path]}
      label={field.label}
      message={wrong}
      unit={wide ? undefined : (UNITS[field.input] ?? '')}
    >
      {field.input === 'choice' || field.input === 'yesno' ? (
        <select
          id={id}
          {...bound}
          {...why}
          className={`min-h-8 bg-page text-right font-medium ${look}`}
        >
          <option value="">—</option>
          {(field.options ?? YES_NO).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      ) : field.input === 'notes' ? (
        <textarea
          id={id}
          rows={3}
          {...bound}
          {...why}
          className={`w-full border bg-transparent px-2 py-1 ${look}`}
        />
      ) : (
        <input
          id={id}
          {...bound}
          {...why}
          autoComplete="off"
          spellCheck={false}
          onKeyDown={onwards}
          aria-invalid={message !== undefined}
          aria-required={field.needed ?? false}
          placeholder={field.needed ? '' : '—'}
          className={`min-h-8 text-right placeholder:text-faint ${look} ${wide ? 'min-w-0 flex-1 font-medium' : 'w-32 figure'}`}
        />
      )}
    </FieldLine>
  );
}

/** Fields whose names are words of the trade. */
const TERM_OF: Readonly<Record<string, TermId>> = {
  register_mm: 'register',
  throat_mm: 'throat',
  width_px: 'pixel-pitch',
  factor: 'converter',
  bellows_max_mm: 'draw',
  sharp_fraction: 'sharp-core',
  f_max: 'stop',
  'movement.rise_mm': 'rise',
  'movement.shift_mm': 'shift',
  'movement.tilt_deg': 'tilt',
  'movement.swing_deg': 'swing',
  'movement.moves': 'standard',
};

const YES_NO = [
  ['yes', 'yes'],
  ['no', 'no'],
] as const;
