import { useState } from 'react';
import {
  readReciprocity,
  stops,
  timeSaid,
  trimmed,
  withDevelopment,
  withExposure,
  withFilm,
  withoutFilm,
  writeReciprocity,
  type KitItemOf,
  type Stored,
} from '@gangway/station';
import { ChoiceField, TextField, useStation } from '../fields/fields.js';
import { KitPicker } from '../rigs/kit-picker.js';
import { Line } from '../station/results.js';
import { Why } from '../station/why.js';
import type { Exposed } from '../store/exposure.js';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';

const LONG = '/exposure/reciprocity';

/** How the film answers to long times: an exponent with where it begins, or a table. */
function LongTimes() {
  const { exposure } = useStation();
  const reciprocity = exposure?.reciprocity;
  return (
    <>
      <TextField
        label="Long times"
        pointer={LONG}
        value={reciprocity && writeReciprocity(reciprocity)}
        refuse={(text) => {
          const read = text === '' ? null : readReciprocity(text);
          return read && !read.ok ? read.message : null;
        }}
        write={(now, text) => {
          const read = readReciprocity(text);
          return withExposure(now, {
            reciprocity: text !== '' && read.ok ? read.value : undefined,
          });
        }}
      />
      {!reciprocity && (
        <p className="text-[13px] text-quiet">
          An exponent: 1.31 past 1 s. Or a table, metered and given: 1 s: 1.5 s; 10 s: 25 s.
        </p>
      )}
    </>
  );
}

/** The film in the holder, how it answers to long times, and how it is developed. */
export function FilmFields({ exposed: { station: shown, report } }: { exposed: Exposed }) {
  const { exposure } = useStation();
  const { change } = useEditing();
  const [picking, setPicking] = useState(false);
  const film = exposure?.film;
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
      <LongTimes />
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
