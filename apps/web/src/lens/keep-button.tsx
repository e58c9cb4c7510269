import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/button.js';
import type { PartProps } from './part-props.js';
import type { Measured } from './use-lens.js';

/** Keeps what was found with the lens, and shows the way there. */
export function KeepButton({
  lens,
  keep,
  next,
  of,
  what,
  children = 'Keep with the lens',
}: Pick<PartProps, 'lens' | 'keep'> & {
  next: Measured | null | undefined;
  /** What it was made from; found anew it is kept anew. */
  of: unknown;
  /** What was found, as it is told once it is kept. */
  what: string;
  children?: string;
}) {
  const [kept, setKept] = useState<unknown>(null);
  if (!next) return null;
  if (kept === of) {
    return (
      <Link
        to={`/lenses/${lens.id}`}
        className="inline-flex min-h-9 items-center font-medium underline underline-offset-4 pointer-coarse:min-h-11"
      >
        Kept: see the lens
      </Link>
    );
  }
  const press = async (): Promise<void> => {
    if (await keep(next, `Kept with ${lens.document.name}: ${what}.`)) setKept(of);
  };
  return (
    <Button look="strong" onClick={() => void press()}>
      {children}
    </Button>
  );
}
