import type { ReactNode } from 'react';
import { Button } from '../ui/button.js';

/** Head of a list: what is listed, the way to its archive and back, and what can be begun. */
export function ListTop({
  title,
  things,
  archived,
  onArchive,
  children,
}: {
  title: string;
  /** What is listed, as the way back from the archive names it. */
  things: string;
  archived: boolean;
  onArchive: (archived: boolean) => void;
  children?: ReactNode;
}) {
  return (
    <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
      <h1 className="min-w-0 text-2xl font-semibold break-words">{title}</h1>
      <div className="flex flex-wrap gap-2">
        <Button look="quiet" onClick={() => onArchive(!archived)}>
          {archived ? `Show current ${things}` : 'Show archive'}
        </Button>
        {children}
      </div>
    </div>
  );
}
