import { Plus, X } from 'lucide-react';
import { engravedStops, parseFNumber, type Lens, type Station } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { textsDropped } from '../store/station.js';
import { useAppDispatch } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Field } from '../fields/field.js';
import { given, parseMm, Section, useStation } from '../fields/fields.js';

type Entry = Lens['circle'][number];

const withCircle = (station: Station, circle: Entry[]): Station => ({
  ...station,
  // Lines may be typed in any order; the document lists them from the widest stop on.
  lens: { ...station.lens, circle: [...circle].sort((a, b) => a.f_number - b.f_number) },
});

const withEntry = (station: Station, index: number, change: Partial<Entry>): Station =>
  withCircle(
    station,
    station.lens.circle.map((entry, i) => (i === index ? { ...entry, ...change } : entry)),
  );

/** One line more: the next whole stop, the same circle until it is known better. */
function longer(station: Station): Station {
  const { circle } = station.lens;
  const last = circle.at(-1)!;
  const next = engravedStops(last.f_number * 1.2, 1024, 'whole')[0] ?? last.f_number * 1.4;
  return withCircle(station, [...circle, { f_number: next, diameter_mm: last.diameter_mm }]);
}

/** The lens's image circle by stop, at infinity. */
export function CircleTable() {
  const { lens } = useStation();
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const alter = (label: string, write: (station: Station) => Station): void => {
    change(label, '/lens/circle', write);
    // Unfinished text belonged to lines that may have moved.
    dispatch(textsDropped('/lens/circle/'));
  };
  return (
    <Section title="Image circle by stop, at infinity">
      <ol>
        {lens.circle.map((entry, index) => (
          <li key={index} className="flex items-start justify-between gap-2 py-0.5">
            <Field
              label={`Stop, line ${index + 1}`}
              hideLabel
              className="w-28"
              inputClassName="w-full text-left!"
              pointer={`/lens/circle/${index}/f_number`}
              shown={`f/${given(entry.f_number)}`}
              parse={parseFNumber}
              write={(station, f_number) => withEntry(station, index, { f_number })}
            />
            <Field
              label={`Circle, line ${index + 1}`}
              hideLabel
              pointer={`/lens/circle/${index}/diameter_mm`}
              shown={given(entry.diameter_mm)}
              unit="mm"
              parse={parseMm}
              write={(station, diameter_mm) => withEntry(station, index, { diameter_mm })}
            />
            <button
              type="button"
              aria-label={`Remove line ${index + 1}`}
              disabled={lens.circle.length === 1}
              onClick={() =>
                alter('Remove a stop', (station) =>
                  withCircle(
                    station,
                    station.lens.circle.filter((_, i) => i !== index),
                  ),
                )
              }
              className="flex size-7 items-center justify-center text-quiet hover:text-ink disabled:opacity-30 pointer-coarse:size-11"
            >
              <X size={15} aria-hidden />
            </button>
          </li>
        ))}
      </ol>
      <Button onClick={() => alter('Add a stop', longer)}>
        <Plus size={15} aria-hidden /> Add a stop
      </Button>
    </Section>
  );
}
