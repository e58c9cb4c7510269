import { X } from 'lucide-react';
import { useState } from 'react';
import {
  fixed,
  withAt,
  withExposure,
  withFilter,
  withoutFilter,
  withPlainFilter,
  type KitItemOf,
  type Stored,
} from '@gangway/station';
import { TextField, useStation } from '../fields/fields.js';
import { Rows } from '../fields/rows.js';
import { KitPicker } from '../rigs/kit-picker.js';
import { Line } from '../station/results.js';
import { Why } from '../station/why.js';
import { useEditing } from '../store/editing.js';
import { selectExposed } from '../store/exposure.js';
import { textsDropped } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';

/** Filters one over the other, what bellows and converters take, and a correction by hand. */
export function FilterFields() {
  const station = useStation();
  const { exposure, lens } = station;
  const notice = useNotice();
  const { report } = useAppSelector(selectExposed);
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const [picking, setPicking] = useState(false);
  const filters = exposure?.filters ?? [];
  const seen = exposure?.meter?.through_lens === true;
  return (
    <div className="space-y-1.5">
      <Line
        name="Bellows"
        term="bellows-factor"
        figure={report.bellows_stops === null ? '–' : fixed(report.bellows_stops, 2)}
        unit={seen ? 'stops, the meter saw it' : 'stops'}
        rests={['exposure']}
        why={<Why reason="exposureTime" of="light lost to the bellows" />}
      />
      {Math.abs(report.multiplier_stops) > 0.005 && (
        <Line
          name={report.multiplier_stops > 0 ? 'Converter' : 'Reducer'}
          figure={fixed(report.multiplier_stops, 2)}
          unit={seen ? 'stops, the meter saw it' : 'stops'}
        />
      )}
      {filters.map(({ name }, i) => (
        <div key={i} className="flex items-start gap-1 border-t border-rule pt-1">
          <div className="min-w-0 flex-1 space-y-1">
            <TextField
              label={`Filter ${i + 1}`}
              pointer={`/exposure/filters/${i}/name`}
              value={name}
              write={(now, text) => withAt(now, `/exposure/filters/${i}/name`, text)}
            />
            <Rows rows={[{ at: `/exposure/filters/${i}/stops`, label: 'takes', as: 'stops' }]} />
          </div>
          <button
            type="button"
            aria-label={`Take off ${name || `filter ${i + 1}`}`}
            onClick={() => {
              change('Take a filter off', '/exposure/filters', (now) => withoutFilter(now, i));
              dispatch(textsDropped('/exposure/filters/'));
            }}
            className="flex size-7 items-center justify-center text-quiet hover:text-ink pointer-coarse:size-11"
          >
            <X size={15} aria-hidden />
          </button>
        </div>
      ))}
      <Button onClick={() => setPicking(true)}>A filter from the kit</Button>
      <Rows
        rows={[
          {
            at: `/exposure/filters/${filters.length}/stops`,
            label: 'Another, it takes',
            as: 'stops',
            clear: true,
            write: (now, stops) => withPlainFilter(now, { stops }),
          },
        ]}
      />
      {filters.length > 0 && lens.filter === undefined && (
        <p className="text-[13px] text-quiet">
          Their rings are not looked at here: put the stack on the rig to see whether it cuts a
          corner.
        </p>
      )}
      <Rows
        rows={[
          {
            at: '/exposure/compensation_stops',
            label: 'Compensation',
            as: 'stops',
            clear: true,
            placeholder: '0',
            help: 'In stops, or as a factor of time: 4×.',
            write: (now, compensation_stops) => withExposure(now, { compensation_stops }),
          },
        ]}
      />
      {picking && (
        <KitPicker
          title="Which filter"
          kinds={['filter']}
          onClose={() => setPicking(false)}
          onPick={(stored) => {
            const next = withFilter(station, stored as Stored<KitItemOf<'filter'>>);
            if (typeof next === 'string') notice([next]);
            else change('Put a filter on', '/exposure/filters', () => next);
          }}
        />
      )}
    </div>
  );
}
