import { useState } from 'react';
import {
  stops,
  timeSaid,
  trimmed,
  withAt,
  withDevelopment,
  withExposure,
  withFilm,
  withoutFilm,
  type KitItemOf,
  type Station,
  type Stored,
} from '@gangway/station';
import { ChoiceField, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { KitPicker } from '../rigs/kit-picker.js';
import { Line } from '../station/results.js';
import { Why } from '../station/why.js';
import type { Exposed } from '../store/exposure.js';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';

/** Films begin to answer less at about this time; common practice, no source. */
const FROM_S = 1;

const byTable = ({ exposure }: Station): boolean => exposure?.reciprocity?.table !== undefined;

const LONG: readonly Row[] = [
  {
    at: '/exposure/reciprocity/exponent',
    label: 'Long times, exponent',
    as: 'number',
    clear: '/exposure/reciprocity',
    write: (now, exponent) =>
      withExposure(now, {
        reciprocity: { exponent, from_s: now.exposure?.reciprocity?.from_s ?? FROM_S },
      }),
    when: (station) => !byTable(station),
  },
  {
    at: '/exposure/reciprocity/from_s',
    label: 'past',
    as: 'time',
    when: ({ exposure }) => exposure?.reciprocity?.exponent !== undefined,
  },
];

/** The film in the holder, how it answers to long times, and how it is developed. */
export function FilmFields({ exposed: { station: shown, report } }: { exposed: Exposed }) {
  const { exposure } = useStation();
  const { change } = useEditing();
  const [picking, setPicking] = useState(false);
  const film = exposure?.film;
  const table = exposure?.reciprocity?.table;
  const developments = film?.developments ?? [];
  const answered =
    report.given_s !== null && report.time_s !== null && report.given_s > report.time_s * 1.005;
  return (
    <div className="space-y-1.5">
      {film && (
        <Line
          name={film.name || 'Film'}
          figure={film.iso === undefined ? '' : `ISO ${trimmed(film.iso, 1)}`}
        />
      )}
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => setPicking(true)}>
          {film ? 'Another film' : 'A film from the kit'}
        </Button>
        {film && (
          <Button onClick={() => change('Take the film out', '/exposure/film', withoutFilm)}>
            Take it out
          </Button>
        )}
      </div>
      {table && (
        <div className="flex items-baseline justify-between gap-2">
          <span className="text-quiet">
            Long times by table, to {timeSaid(table.at(-1)!.metered_s)} metered
          </span>
          <Button
            look="quiet"
            onClick={() =>
              change('Drop the table', '/exposure/reciprocity', (now) =>
                withAt(now, '/exposure/reciprocity', undefined),
              )
            }
          >
            Drop it
          </Button>
        </div>
      )}
      <Rows rows={LONG} />
      {answered && (
        <Line
          name={`${timeSaid(report.time_s!)} asks`}
          term="reciprocity"
          figure={timeSaid(report.given_s!)}
          why={<Why reason="exposureFilm" of="long times on film" />}
        />
      )}
      {developments.length > 0 && (
        <ChoiceField
          label="Developed"
          pointer="/exposure/development"
          value={shown.exposure?.development ?? ''}
          options={[
            ['', 'as usual'],
            ...developments.map(
              ({ name, range_stops: range }) =>
                [name, range === undefined ? name : `${name}, holds ${stops(range)}`] as const,
            ),
          ]}
          write={(now, name) => withDevelopment(now, name === '' ? null : name)}
        />
      )}
      {picking && (
        <KitPicker
          title="Which film"
          kinds={['film']}
          onClose={() => setPicking(false)}
          onPick={(stored) =>
            change('Load a film', '/exposure/film', (now) =>
              withFilm(now, stored as Stored<KitItemOf<'film'>>),
            )
          }
        />
      )}
    </div>
  );
}
