import {
  assumedWhy,
  CARE_NAMES,
  CARE_WORDS,
  careOf,
  CARES,
  withAt,
  type CareKind,
  type Station,
} from '@gangway/station';
import { TextField } from '../fields/fields.js';
import { Aside } from '../station/aside.js';
import { Group } from '../station/results.js';
import { selectCard } from '../store/card.js';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';

const withCare = (station: Station, care: readonly CareKind[]): Station =>
  withAt(station, '/stand/care', [...care]);

/** What the card says that nothing else of the station does: how the place is found, what to be careful of. */
export function StandFields() {
  const station = useAppSelector(selectStation);
  const { unsettled, assumed } = useAppSelector(selectCard);
  const { change } = useEditing();
  const on = careOf(station);
  return (
    <Aside label="What is on the card">
      <Group title="The place">
        <TextField
          label="How to find it again"
          pointer="/stand/note"
          value={station.stand?.note}
          write={(now, text) => withAt(now, '/stand/note', text === '' ? undefined : text)}
        />
      </Group>
      <Group title="To be careful of here">
        <div className="space-y-1">
          {CARES.map((kind) => (
            <label key={kind} className="flex items-center gap-2 pointer-coarse:min-h-11">
              <input
                type="checkbox"
                checked={on.includes(kind)}
                onChange={(event) =>
                  change('Set what to be careful of', '/stand/care', (now) => {
                    const before = careOf(now);
                    return withCare(
                      now,
                      event.target.checked
                        ? [...before, kind]
                        : before.filter((each) => each !== kind),
                    );
                  })
                }
                className="size-6 accent-current"
              />
              <span title={CARE_WORDS[kind]}>{CARE_NAMES[kind]}</span>
            </label>
          ))}
        </div>
        <p className="pt-1 text-[13px] text-quiet">
          Short reminders only: local rules and licensed practice come first.
        </p>
      </Group>
      {unsettled.warnings.length > 0 && (
        <Group title="Warnings">
          <ul className="space-y-1.5">
            {unsettled.warnings.map((each) => (
              <li key={each} className="border-l-2 border-costs pl-3">
                {each}
              </li>
            ))}
          </ul>
        </Group>
      )}
      {assumed.length > 0 && (
        <Group title="Rests on what nobody gave">
          <ul className="space-y-1 text-[13px] text-quiet">
            {assumed.map((each) => (
              <li key={each.pointer}>{assumedWhy(each)}</li>
            ))}
          </ul>
        </Group>
      )}
    </Aside>
  );
}
