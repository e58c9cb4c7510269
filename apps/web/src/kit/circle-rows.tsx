import { Plus, X } from 'lucide-react';
import { circleFor, FORMATS } from '@gangway/station';
import { Button } from '../ui/button.js';
import { onwards } from './onwards.js';

interface Props {
  /** As the table is written: `f/3.5: 62; f/8: 67`. */
  text: string;
  fMin: string;
  message: string | undefined;
  onChange: (text: string) => void;
}

type Row = readonly [stop: string, diameter: string];

const rowsOf = (text: string): Row[] =>
  text === ''
    ? [['', '']]
    : text.split(';').map((part) => {
        const [stop = '', diameter = ''] = part.split(':');
        return [stop.trim(), diameter.trim()] as const;
      });

const textOf = (rows: readonly Row[]): string =>
  rows.every(([stop, diameter]) => stop === '' && diameter === '')
    ? ''
    : rows.map(([stop, diameter]) => `${stop}: ${diameter}`).join('; ');

const INPUT =
  'min-h-8 w-24 max-sm:w-16 border-b border-rule bg-transparent text-right figure hover:border-rule-strong pointer-coarse:min-h-11';

/** The circle by stop, a line each. Those who do not know it begin with what the lens was made for. */
export function CircleRows({ text, fMin, message, onChange }: Props) {
  const rows = rowsOf(text);
  const set = (index: number, row: Row): void =>
    onChange(textOf(rows.map((each, i) => (i === index ? row : each))));
  return (
    <div>
      <ol>
        {rows.map(([stop, diameter], index) => (
          <li key={index} className="flex items-baseline gap-3 py-0.5 max-sm:gap-2">
            <label className="flex items-baseline gap-2">
              <span className="text-quiet">at</span>
              <input
                aria-label={`Stop, line ${index + 1}`}
                value={stop}
                placeholder={index === 0 ? fMin || 'f/4' : 'f/8'}
                onChange={(event) =>
                  set(index, [event.target.value.replace(/[;:]/g, ''), diameter])
                }
                autoComplete="off"
                onKeyDown={onwards}
                className={`${INPUT} placeholder:text-faint`}
              />
            </label>
            <label className="flex items-baseline gap-2">
              <span className="whitespace-nowrap text-quiet">a circle of</span>
              <input
                aria-label={`Circle, line ${index + 1}`}
                value={diameter}
                onChange={(event) => {
                  const filled = stop === '' && index === 0 ? fMin.trim() : stop;
                  set(index, [filled, event.target.value.replace(/[;:]/g, '')]);
                }}
                autoComplete="off"
                onKeyDown={onwards}
                className={INPUT}
              />
              <span className="text-[12px] text-quiet">mm</span>
            </label>
            <button
              type="button"
              aria-label={`Remove line ${index + 1}`}
              disabled={rows.length === 1}
              onClick={() => onChange(textOf(rows.filter((_, i) => i !== index)))}
              className="flex size-8 items-center justify-center text-quiet hover:text-ink disabled:opacity-30 pointer-coarse:size-11"
            >
              <X size={15} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button onClick={() => onChange(textOf([...rows, ['', '']]) || ': ; : ')}>
          <Plus size={15} aria-hidden /> Add a stop
        </Button>
        <label className="flex items-baseline gap-2 text-quiet">
          Not known? Made for
          <select
            value=""
            onChange={(event) => {
              const format = FORMATS.find(({ name }) => name === event.target.value);
              if (!format) return;
              onChange(textOf([[fMin.trim() || 'f/4', circleFor(format).toFixed(1)]]));
            }}
            className="min-h-8 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11"
          >
            <option value="">choose a format</option>
            {FORMATS.map(({ name }) => (
              <option key={name} value={name}>
                {name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {message !== undefined && (
        <p role="alert" className="mt-1 text-[13px] text-outside">
          {message}
        </p>
      )}
    </div>
  );
}
