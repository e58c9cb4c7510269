import { X } from 'lucide-react';
import { useId, useState } from 'react';
import {
  flashReading,
  readAs,
  withAt,
  withFlashReading,
  withReadAs,
  withReading,
  type Exposure,
  type ReadAs,
  type Station,
} from '@gangway/station';
import { ChoiceField, useStation } from '../fields/fields.js';
import { FieldLine, inputLook } from '../fields/line.js';
import { Rows, type Row } from '../fields/rows.js';
import { useEditing } from '../store/editing.js';
import { textsDropped } from '../store/station.js';
import { useAppDispatch } from '../store/store.js';

const READ_AS = [
  ['time', 'a time'],
  ['ev', 'EV'],
  ['spots', 'several spots'],
] as const satisfies readonly (readonly [ReadAs, string])[];

const METERS = [
  ['unknown', '—'],
  ['hand', 'in the hand'],
  ['lens', 'through the lens'],
] as const;

const meterOf = ({ exposure }: Station) => exposure?.meter;

const TIME: readonly Row[] = [
  {
    at: '/exposure/meter/time_s',
    label: 'Time',
    as: 'time',
    write: (station, time_s) => withReading(station, { time_s }),
  },
  {
    at: '/exposure/meter/f_number',
    label: 'At',
    as: 'stop',
    clear: true,
    placeholder: 'as set',
  },
];

const EV: readonly Row[] = [
  {
    at: '/exposure/meter/ev',
    label: 'EV',
    as: 'number',
    help: 'At the ISO the meter is set to.',
    write: (station, ev) => withReading(station, { ev }),
  },
];

const FLASH: readonly Row[] = [
  {
    at: '/exposure/meter/f_number',
    label: 'Reads',
    as: 'stop',
    clear: true,
    read: ({ exposure = {} }) => flashReading(exposure),
    write: withFlashReading,
  },
];

const ISO: readonly Row[] = [
  {
    at: '/exposure/meter/iso',
    label: 'Meter at ISO',
    as: 'number',
    clear: true,
    placeholder: 'as used',
  },
  { at: '/exposure/iso', label: 'ISO used', as: 'number', clear: true },
];

export function ReadingFields() {
  const station = useStation();
  const { change } = useEditing();
  const id = useId();
  // Before anything is read the document cannot say how it will be.
  const [wanted, setWanted] = useState<ReadAs | null>(null);
  const meter = meterOf(station);
  const there = readAs(station);
  const way = there === 'time' && meter?.time_s === undefined ? (wanted ?? there) : there;
  const flash = station.exposure?.flash === true;
  return (
    <div className="space-y-1.5">
      {!flash && (
        <FieldLine id={id} label="Read as" message={null}>
          <select
            id={id}
            value={way}
            onChange={(event) => {
              const next = event.target.value as ReadAs;
              setWanted(next);
              change('Set read as', '/exposure/meter', (now) => withReadAs(now, next));
            }}
            className={`min-h-8 bg-paper text-right font-medium ${inputLook(null)}`}
          >
            {READ_AS.map(([key, words]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </FieldLine>
      )}
      {flash ? (
        <Rows rows={FLASH} />
      ) : way === 'spots' ? (
        <SpotFields />
      ) : (
        <Rows rows={way === 'ev' ? EV : TIME} />
      )}
      <Rows rows={ISO} />
      <ChoiceField
        label="Meter"
        pointer="/exposure/meter/through_lens"
        value={meter?.through_lens === undefined ? 'unknown' : meter.through_lens ? 'lens' : 'hand'}
        options={METERS}
        write={(now, value) =>
          withAt(
            now,
            '/exposure/meter/through_lens',
            value === 'unknown' ? undefined : value === 'lens',
          )
        }
      />
    </div>
  );
}

type Spots = NonNullable<NonNullable<Exposure['meter']>['spots']>;

const spotsOf = (station: Station): Spots => meterOf(station)?.spots ?? [];

/** Spots of the scene, each with its EV; one may be placed where it is to fall. */
function SpotFields() {
  const station = useStation();
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const spots = spotsOf(station);
  const placed = spots.findIndex(({ place_stops }) => place_stops !== undefined);
  const nameOf = (i: number): string => spots[i]!.label || `Spot ${i + 1}`;
  return (
    <>
      {spots.map((_, i) => (
        <div key={i} className="flex items-center gap-1">
          <div className="min-w-0 flex-1">
            <Rows
              rows={[
                { at: `/exposure/meter/spots/${i}/ev`, label: `${nameOf(i)}, EV`, as: 'number' },
              ]}
            />
          </div>
          <button
            type="button"
            aria-label={`Remove ${nameOf(i)}`}
            onClick={() => {
              change('Remove a spot', '/exposure/meter/spots', (now) =>
                withReading(now, { spots: spotsOf(now).filter((__, j) => j !== i) }),
              );
              dispatch(textsDropped('/exposure/meter/spots/'));
            }}
            className="flex size-7 items-center justify-center text-quiet hover:text-ink pointer-coarse:size-11"
          >
            <X size={15} aria-hidden />
          </button>
        </div>
      ))}
      <Rows
        rows={[
          {
            at: `/exposure/meter/spots/${spots.length}/ev`,
            label: 'Another spot, EV',
            as: 'number',
            clear: true,
            write: (now, ev) => withReading(now, { spots: [...spotsOf(now), { ev }] }),
          },
        ]}
      />
      {spots.length > 0 && (
        <ChoiceField
          label="Expose for"
          pointer="/exposure/meter/spots"
          value={placed < 0 ? 'middle' : String(placed)}
          options={[
            ['middle', 'halfway between'],
            ...spots.map((_, i) => [String(i), nameOf(i)] as const),
          ]}
          write={(now, next) =>
            withReading(now, {
              spots: spotsOf(now).map(({ place_stops: _, ...spot }, i) =>
                String(i) === next ? { ...spot, place_stops: 0 } : spot,
              ),
            })
          }
        />
      )}
      {placed >= 0 && (
        <Rows
          rows={[
            {
              at: `/exposure/meter/spots/${placed}/place_stops`,
              label: 'It falls, from middle grey',
              as: 'stops',
            },
          ]}
        />
      )}
    </>
  );
}
