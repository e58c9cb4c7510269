import clsx from 'clsx';
import { Suspense, useState, type ReactNode } from 'react';

/** A ring after a figure. What it opens to is asked for now and then, and loaded with the first asking. */
export function RingMark({
  label,
  ring,
  look,
  className,
  children,
}: {
  label: string;
  ring: ReactNode;
  /** How the button looks, shut or open. */
  look: string;
  className?: string | undefined;
  /** What it opens to. */
  children: ReactNode;
}) {
  const [asked, setAsked] = useState(false);
  const closed = (
    <button
      type="button"
      aria-label={label}
      aria-haspopup="dialog"
      className={clsx(look, className)}
      onClick={() => setAsked(true)}
    >
      {ring}
    </button>
  );
  return asked ? <Suspense fallback={closed}>{children}</Suspense> : closed;
}
