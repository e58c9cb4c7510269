import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { TermId } from '../words/terms.js';
import { Word } from '../words/word.js';

interface Props {
  /** Of the input; what is said under it is `${id}-why`. */
  id: string;
  label: string;
  hideLabel?: boolean | undefined;
  /** Why what was typed cannot be used. */
  message: string | null;
  /** What helps to fill it in; a message takes its place. */
  help?: string | undefined;
  unit?: string | undefined;
  /** The word that the label opens to. */
  term?: TermId | undefined;
  className?: string | undefined;
  children: ReactNode;
}

/** One line of a form: its label, what is typed or chosen, its unit, and what is to be said of it. */
export function FieldLine({
  id,
  label,
  hideLabel,
  message,
  help,
  unit,
  term,
  className,
  children,
}: Props) {
  const under = message ?? help;
  return (
    <div className={className}>
      <div className="flex items-baseline justify-between gap-3">
        {term !== undefined && (
          <span className="text-quiet">
            <Word id={term}>{label}</Word>
          </span>
        )}
        <label htmlFor={id} className={hideLabel || term !== undefined ? 'sr-only' : 'text-quiet'}>
          {label}
        </label>
        {unit === undefined ? (
          children
        ) : (
          <span className="flex items-baseline gap-1">
            {children}
            <span className="w-7 text-[12px] text-quiet">{unit}</span>
          </span>
        )}
      </div>
      {under !== undefined && (
        <p
          id={`${id}-why`}
          {...(message === null ? {} : { role: 'alert' })}
          className={clsx('mt-1 text-[13px]', message === null ? 'text-quiet' : 'text-outside')}
        >
          {under}
        </p>
      )}
    </div>
  );
}

/** What an input says of the line it stands in. */
export const described = (id: string, message: string | null, help?: string) =>
  message === null && help === undefined ? {} : { 'aria-describedby': `${id}-why` };

export const inputLook = (message: string | null): string =>
  clsx(
    'border-b bg-transparent pointer-coarse:min-h-11',
    message === null ? 'border-rule hover:border-rule-strong' : 'border-outside',
  );
