import { useState } from 'react';
import type { KitUpdate } from '@gangway/station';
import { Button } from '../ui/button.js';
import { DifferenceTable } from '../ui/difference-table.js';

/** Says that the kit has changed since a copy was taken, and what taking the change would alter. */
export function UpdateNotice({
  updates,
  what,
  onTake,
}: {
  updates: readonly KitUpdate[];
  what: string;
  onTake: () => void;
}) {
  const [open, setOpen] = useState(false);
  const names = updates.map(({ name }) => `“${name}”`).join(', ');
  return (
    <section
      aria-label="Changes in the kit"
      className="border-b border-rule border-l-4 border-l-costs px-4 py-2"
    >
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <p className="min-w-0 flex-1">
          {names} {updates.length === 1 ? 'was' : 'were'} changed in the kit since. {what} keeps its
          own copy.
        </p>
        <Button look="quiet" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Hide' : 'What would change'}
        </Button>
        <Button onClick={onTake}>Take the change</Button>
      </div>
      {open && (
        <div className="mt-2 max-w-2xl">
          {updates.map(({ name, changes }) => (
            <DifferenceTable key={name} rows={changes} mine={`${name} here`} theirs="In the kit" />
          ))}
        </div>
      )}
    </section>
  );
}
