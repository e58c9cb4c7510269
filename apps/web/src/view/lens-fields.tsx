import {
  DEFAULT_SHARP_FRACTION,
  parseFNumber,
  parseRatio,
  withClosestFocus,
  withStops,
  type Lens,
  type Station,
} from '@gangway/station';
import { Field } from '../fields/field.js';
import { FigureField, given, Section, TextField, useStation } from '../fields/fields.js';

const withLens = (station: Station, lens: Partial<Lens>): Station => ({
  ...station,
  lens: { ...station.lens, ...lens },
});

function withoutLens(station: Station, key: keyof Lens): Station {
  const { [key]: _, ...lens } = station.lens;
  return { ...station, lens: lens as Lens };
}

export function LensFields() {
  const { lens } = useStation();
  return (
    <Section title="Lens">
      <TextField
        label="Name"
        pointer="/lens/name"
        value={lens.name}
        write={(station, name) => withLens(station, { name })}
      />
      <FigureField
        label="Focal length"
        pointer="/lens/focal_length_mm"
        unit="mm"
        value={lens.focal_length_mm}
        write={(station, focal_length_mm) => withLens(station, { focal_length_mm })}
      />
      <Field
        label="Widest stop"
        pointer="/lens/f_min"
        unit=""
        shown={`f/${given(lens.f_min)}`}
        parse={parseFNumber}
        write={(station, f_min) => withStops(station, { f_min })}
      />
      <Field
        label="Smallest stop"
        pointer="/lens/f_max"
        unit=""
        shown={`f/${given(lens.f_max)}`}
        parse={parseFNumber}
        write={(station, f_max) => withStops(station, { f_max })}
      />
      <FigureField
        label="Sharp part of the circle"
        pointer="/lens/sharp_fraction"
        unit="%"
        value={Number(((lens.sharp_fraction ?? DEFAULT_SHARP_FRACTION) * 100).toFixed(4))}
        write={(station, percent) => withLens(station, { sharp_fraction: percent / 100 })}
      />
      <FigureField
        label="Closest focus, from the sensor"
        pointer="/lens/close_focus/distance_mm"
        unit="mm"
        value={lens.close_focus?.distance_mm}
        write={withClosestFocus}
        clear={(station) => withoutLens(station, 'close_focus')}
      />
      {lens.close_focus && (
        <FigureField
          label="Magnification there"
          pointer="/lens/close_focus/magnification"
          unit="×"
          value={lens.close_focus.magnification}
          parse={parseRatio}
          write={(station, magnification) =>
            withLens(station, { close_focus: { ...station.lens.close_focus!, magnification } })
          }
        />
      )}
      <FigureField
        label="Filter ring, clear opening"
        pointer="/lens/filter/clear_diameter_mm"
        unit="mm"
        value={lens.filter?.clear_diameter_mm}
        write={(station, clear_diameter_mm) =>
          withLens(station, {
            filter: { ahead_of_pupil_mm: 20, ...station.lens.filter, clear_diameter_mm },
          })
        }
        clear={(station) => withoutLens(station, 'filter')}
      />
      {lens.filter && (
        <FigureField
          label="Ring ahead of the pupil"
          pointer="/lens/filter/ahead_of_pupil_mm"
          unit="mm"
          value={lens.filter.ahead_of_pupil_mm}
          write={(station, ahead_of_pupil_mm) =>
            withLens(station, { filter: { ...station.lens.filter!, ahead_of_pupil_mm } })
          }
        />
      )}
    </Section>
  );
}
