import { useState } from 'react';
import { Minus, Plus } from 'lucide-react';
import {
  clicked,
  columnAt,
  fieldWith,
  parseLogged,
  standardOf,
  type LineSettings,
  type Logged,
  type OrderControl,
  type Station,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { useReadyNotes } from './ready-notes.js';

/** What is changed on the spot most often, the first with a keyboard of figures. */
const FIELDS = [
  'f_number',
  'time_s',
  'iso',
  'movements.rise_mm',
  'movements.shift_mm',
  'movements.tilt_deg',
] as const;
/** Where it focused, by whichever of them the hand reads on this rig. */
const READINGS = ['ring_m', 'ring_magnification', 'bed_mm', 'drawn_mm'] as const;

/** What a hand takes hold of for a field: a click of it is the least it changes. */
function controlOf(path: string, station: Station): OrderControl | null {
  if (path === 'f_number') return { kind: 'iris' };
  if (path === 'time_s') return { kind: 'shutter' };
  if (path === 'iso') return { kind: 'iso' };
  const movement = /^movements\.(rise|shift|tilt)_/.exec(path)?.[1] as 'rise' | undefined;
  if (!movement) return null;
  const standard = (movement as string) === 'tilt' ? 'front' : standardOf(station);
  return { kind: 'standard', standard, movement };
}

const BLANK = { id: '00000000-0000-4000-8000-000000000000', at: '2026-01-01T00:00:00Z', planned: true }; // prettier-ignore

/** What was done otherwise than planned, with a note of a few words. */
export function ChangeSheet({
  station,
  planned,
  onClose,
  onShot,
}: {
  station: Station;
  planned: LineSettings;
  onClose: () => void;
  onShot: (set: Partial<Logged>, note: string) => void;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const line = { ...BLANK, ...planned } as Logged;
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const [note, setNote] = useState('');
  const [kept, setKept] = useState(true);
  const [fault, setFault] = useState<{ path: string; message: string } | null>(null);
  const [ready, { add, drop }] = useReadyNotes();
  const [arranging, setArranging] = useState(false);
  const submit = (): void => {
    let now = line;
    const set: Record<string, unknown> = {};
    for (const [path, text] of Object.entries(texts)) {
      const column = columnAt(path)!;
      if (text === column.shown(line, units)) continue;
      const read = column.read(text);
      const [field, to] = read.ok ? fieldWith(now, path, read.value) : ['', null];
      const made = read.ok ? parseLogged({ ...now, [field]: to }) : null;
      if (!read.ok || (made && !made.ok)) {
        setFault({ path, message: read.ok ? sentenceOf(made) : read.message });
        return;
      }
      now = { ...now, [field]: to };
      set[field] = to;
    }
    if (!kept) set.kept = false;
    onShot(set as Partial<Logged>, note.trim());
  };
  const fields = [...FIELDS, ...READINGS.filter((path) => planned[path] !== undefined)];
  /** What a field says a click further; null at the end of the control, or where it does not click. */
  const further = (path: string, by: number): string | null => {
    const control = controlOf(path, station);
    const column = columnAt(path)!;
    const read = column.read(texts[path] ?? column.shown(line, units));
    if (!control || !read.ok || typeof read.value !== 'number') return null;
    const to = clicked(station, control, read.value, by);
    if (to === null) return null;
    const [field, value] = fieldWith(line, path, to);
    return column.shown({ ...line, [field]: value }, units);
  };
  return (
    <Dialog open title="Shot, with a change" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          submit();
        }}
        noValidate
      >
        <div className="grid gap-x-4 gap-y-2 sm:grid-cols-2">
          {fields.map((path) => {
            const column = columnAt(path)!;
            const shown = column.shown(line, units);
            const own = fault?.path === path ? fault.message : null;
            return (
              <div
                key={path}
                className="max-sm:flex max-sm:flex-wrap max-sm:items-center max-sm:gap-x-2"
              >
                <label htmlFor={`change-${path}`} className="text-[13px] text-quiet max-sm:w-20">
                  {label(column.label)}
                </label>
                <div className="flex items-stretch max-sm:min-w-0 max-sm:flex-1">
                  <Click
                    by={-1}
                    to={further(path, -1)}
                    onTake={(text) => setTexts({ ...texts, [path]: text })}
                  />
                  <input
                    id={`change-${path}`}
                    value={texts[path] ?? shown}
                    onChange={(event) => {
                      setFault(null);
                      setTexts({ ...texts, [path]: event.target.value });
                    }}
                    onFocus={(event) => event.target.select()}
                    autoComplete="off"
                    aria-invalid={own !== null}
                    className={`figure block min-h-11 w-full min-w-0 border bg-transparent px-2 text-[18px] ${texts[path] !== undefined && texts[path] !== shown ? 'border-costs' : 'border-rule-strong'}`}
                  />
                  <Click
                    by={1}
                    to={further(path, 1)}
                    onTake={(text) => setTexts({ ...texts, [path]: text })}
                  />
                </div>
                {own && (
                  <span role="alert" className="text-[13px] text-outside">
                    {own}
                  </span>
                )}
              </div>
            );
          })}
        </div>
        <label className="mt-3 block">
          <span className="text-[13px] text-quiet">Note</span>
          <input
            value={note}
            onChange={(event) => setNote(event.target.value)}
            maxLength={1000}
            autoComplete="off"
            className="block min-h-11 w-full border border-rule-strong bg-transparent px-2 text-[16px]"
          />
        </label>
        <div className="mt-2 flex flex-wrap gap-2" role="group" aria-label="Notes kept ready">
          {ready.map((each) => (
            <button
              key={each}
              type="button"
              aria-label={arranging ? `Take away “${each}”` : each}
              onClick={() =>
                arranging ? drop(each) : setNote(note === '' ? each : `${note}, ${each}`)
              }
              className={`min-h-11 rounded-full border px-3 ${arranging ? 'border-outside line-through' : 'border-rule-strong'}`}
            >
              {each}
            </button>
          ))}
        </div>
        <div className="flex flex-wrap gap-x-4 pt-1 text-[14px]">
          <button
            type="button"
            disabled={note.trim() === '' || ready.includes(note.trim())}
            onClick={() => add(note.trim())}
            className="min-h-9 underline underline-offset-4 disabled:opacity-40"
          >
            Keep this note ready
          </button>
          <button
            type="button"
            onClick={() => setArranging(!arranging)}
            className="min-h-9 underline underline-offset-4"
          >
            {arranging ? 'Done' : 'Take some away'}
          </button>
        </div>
        <label className="mt-1 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            checked={!kept}
            onChange={(event) => setKept(!event.target.checked)}
            className="size-6 accent-current"
          />
          Spoilt: to be taken again
        </label>
        <div className="sticky -bottom-5 -mx-5 mt-3 -mb-5 flex justify-end gap-2 border-t border-rule bg-paper px-5 py-3">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="strong" type="submit" className="min-h-12 px-8 text-[17px]">
            Shot
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

/** One click less or more of the control that is there. */
function Click({
  by,
  to,
  onTake,
}: {
  by: 1 | -1;
  to: string | null;
  onTake: (text: string) => void;
}) {
  const Sign = by < 0 ? Minus : Plus;
  if (to === null) return null;
  return (
    <button
      type="button"
      aria-label={`One click ${by < 0 ? 'less' : 'more'}: ${to}`}
      onClick={() => onTake(to)}
      className="grid min-h-11 w-11 shrink-0 place-items-center border border-rule-strong"
    >
      <Sign size={18} aria-hidden />
    </button>
  );
}

const label = (text: string): string => `${text[0]!.toUpperCase()}${text.slice(1)}`;

const sentenceOf = (made: ReturnType<typeof parseLogged> | null): string =>
  made && !made.ok ? `This ${made.problems[0]!.message}.` : '';
