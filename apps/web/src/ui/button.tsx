import clsx from 'clsx';
import type { ComponentProps } from 'react';

type Look = 'plain' | 'strong' | 'quiet';

const LOOKS: Record<Look, string> = {
  plain: 'border border-rule-strong bg-paper hover:border-ink',
  strong: 'border border-ink bg-ink text-on-strong',
  quiet: 'border border-transparent text-quiet hover:text-ink',
};

export function Button({
  look = 'plain',
  className,
  ...rest
}: ComponentProps<'button'> & { look?: Look }) {
  return (
    <button
      type="button"
      {...rest}
      className={clsx(
        'print:hidden inline-flex min-h-9 items-center justify-center gap-1.5 rounded-sm px-3 font-medium whitespace-nowrap disabled:opacity-40 pointer-coarse:min-h-11',
        LOOKS[look],
        className,
      )}
    />
  );
}
