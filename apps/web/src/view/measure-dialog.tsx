import { useId, useState } from 'react';
import {
  fixed,
  levelDistanceM,
  parseLengthMm,
  withMeasured,
  type Measured,
} from '@gangway/station';
import * as z from 'zod';
import { useEditing } from '../store/editing.js';
import { textsDropped } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { useKept } from '../browser/use-kept.js';
import { given, useStation } from '../fields/fields.js';

const textsShape = z.object({
  reading: z.string(),
  slope: z.boolean(),
  aimed: z.string(),
  held: z.string(),
  from: z.enum(['sensor', 'tripod']),
  ahead: z.string(),
});
type Texts = z.infer<typeof textsShape>;

/** The distance as a laser or tape gave it: along the slope or level, from sensor or tripod. */
export function MeasureDialog({ onClose }: { onClose: () => void }) {
  const station = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const { change } = useEditing();
  const dispatch = useAppDispatch();
  const { measured } = station.facade!;
  const [texts, setTexts] = useKept('reading', textsShape, {
    reading: given(measured?.reading_m),
    slope: measured?.slope ?? false,
    aimed: given(measured?.aimed_m),
    held: given(measured?.held_m ?? station.camera.height_m),
    from: measured?.from ?? 'sensor',
    ahead: given(measured?.sensor_ahead_m ?? 0),
  });
  const [failed, setFailed] = useState<string | null>(null);

  const metres = (text: string): number | string => {
    const read = parseLengthMm(text, units === 'feet' ? 'ft' : 'm');
    return read.ok ? read.value / 1000 : read.message;
  };
  const read = (): Measured | string => {
    const reading = metres(texts.reading);
    if (typeof reading === 'string')
      return texts.reading.trim() === '' ? 'Type the reading.' : reading;
    if (reading <= 0) return 'The reading must be above 0.';
    const ahead = texts.from === 'tripod' ? metres(texts.ahead || '0') : 0;
    const aimed = texts.slope ? metres(texts.aimed) : 0;
    const held = texts.slope ? metres(texts.held) : 0;
    for (const each of [ahead, aimed, held]) if (typeof each === 'string') return each;
    return {
      reading_m: reading,
      slope: texts.slope,
      from: texts.from,
      ...(texts.slope ? { aimed_m: aimed as number, held_m: held as number } : {}),
      ...(texts.from === 'tripod' ? { sensor_ahead_m: ahead as number } : {}),
    };
  };
  const found = read();
  const level = typeof found === 'string' ? found : levelDistanceM(found, station.camera.height_m);

  const use = (): void => {
    if (typeof found === 'string') {
      setFailed(found);
      return;
    }
    const next = withMeasured(station, found);
    const refused =
      typeof next === 'string'
        ? next
        : change('Distance from a reading', '/facade/distance_m', () => next);
    if (refused !== null) {
      setFailed(refused);
      return;
    }
    dispatch(textsDropped('/facade/distance_m'));
    onClose();
  };
  const set = (part: Partial<Texts>): void => {
    setFailed(null);
    setTexts({ ...texts, ...part });
  };

  return (
    <Dialog open onClose={onClose} title="Distance from a reading">
      <form
        className="space-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          use();
        }}
      >
        <Row label="Reading" value={texts.reading} onChange={(reading) => set({ reading })} />
        <Choice
          label="Read"
          value={texts.slope ? 'slope' : 'level'}
          options={[
            ['level', 'level'],
            ['slope', 'along the slope'],
          ]}
          onChange={(way) => set({ slope: way === 'slope' })}
        />
        {texts.slope && (
          <>
            <Row
              label="Aimed at a height of"
              value={texts.aimed}
              onChange={(aimed) => set({ aimed })}
            />
            <Row
              label="Held at a height of"
              value={texts.held}
              onChange={(held) => set({ held })}
            />
          </>
        )}
        <Choice
          label="From"
          value={texts.from}
          options={[
            ['sensor', 'the sensor mark'],
            ['tripod', 'the tripod’s centre'],
          ]}
          onChange={(from) => set({ from: from as Texts['from'] })}
        />
        {texts.from === 'tripod' && (
          <Row
            label="Sensor ahead of the tripod by"
            value={texts.ahead}
            onChange={(ahead) => set({ ahead })}
          />
        )}
        <p className="pt-2" role="status">
          {typeof level === 'number' ? (
            <>
              <span className="figure text-[24px]">{fixed(level, 3)}</span>{' '}
              <span className="text-quiet">m level from the sensor</span>
            </>
          ) : (
            <span className={failed === null ? 'text-quiet' : 'text-outside'}>{level}</span>
          )}
        </p>
        {failed !== null && typeof level === 'number' && (
          <p role="alert" className="text-outside">
            {failed}
          </p>
        )}
        <div className="flex gap-2 pt-2">
          <Button look="strong" type="submit">
            Use this distance
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}

function Row({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
}) {
  const id = useId();
  return (
    <div className="flex items-baseline justify-between gap-3">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        value={value}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
        className="figure min-h-9 w-28 border-b border-rule-strong bg-transparent text-right pointer-coarse:min-h-11"
      />
    </div>
  );
}

function Choice({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div className="flex items-baseline justify-between gap-3">
      <label htmlFor={id}>{label}</label>
      <select
        id={id}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="min-h-9 border-b border-rule-strong bg-paper text-right pointer-coarse:min-h-11"
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}
