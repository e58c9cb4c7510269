import { useState } from 'react';
import type { LogColumn } from '@gangway/station';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { counted } from '../ui/counted.js';

/** One thing changed in many lines. */
export function ChangeMany({
  count,
  columns,
  onClose,
  onChange,
}: {
  count: number;
  columns: readonly LogColumn[];
  onClose: () => void;
  /** @returns why it cannot be done, or null */
  onChange: (column: LogColumn, text: string) => string | null;
}) {
  const [path, setPath] = useState('note');
  const [text, setText] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const column = columns.find((each) => each.path === path)!;
  return (
    <Dialog open title={`Change ${counted(count, 'line')}`} onClose={onClose}>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          setFault(onChange(column, text));
        }}
      >
        <div className="grid grid-cols-2 gap-4">
          <label className="block">
            <span className="text-[13px] text-quiet">What</span>
            <select
              value={path}
              onChange={(event) => {
                setPath(event.target.value);
                setFault(null);
              }}
              className="block min-h-11 w-full border border-rule-strong bg-paper px-2"
            >
              {columns.map((each) => (
                <option key={each.path} value={each.path}>
                  {each.label}
                </option>
              ))}
            </select>
          </label>
          <label className="block">
            <span className="text-[13px] text-quiet">To; empty takes it away</span>
            <input
              value={text}
              onChange={(event) => {
                setText(event.target.value);
                setFault(null);
              }}
              autoComplete="off"
              aria-invalid={fault !== null}
              className="block min-h-11 w-full border border-rule-strong bg-transparent px-2"
            />
          </label>
        </div>
        {fault && (
          <p role="alert" className="pt-2 text-outside">
            {fault}
          </p>
        )}
        <div className="mt-4 flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="strong" type="submit">
            Change them
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
