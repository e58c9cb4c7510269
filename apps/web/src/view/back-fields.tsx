import { FORMATS, type Back, type Station } from '@gangway/station';
import { ChoiceField, FigureField, Section, TextField, useStation } from '../fields/fields.js';

const withBack = (station: Station, back: Partial<Back>): Station => ({
  ...station,
  back: { ...station.back, ...back },
});

function withoutPixels(station: Station): Station {
  const { width_px: _w, height_px: _h, ...back } = station.back;
  return { ...station, back };
}

const OTHER = 'other';

export function BackFields() {
  const { back } = useStation();
  const format = FORMATS.find(
    (each) => each.width_mm === back.width_mm && each.height_mm === back.height_mm,
  );
  return (
    <Section title="Back">
      <TextField
        label="Name"
        pointer="/back/name"
        value={back.name}
        write={(station, name) => withBack(station, { name })}
      />
      <ChoiceField
        label="Format"
        pointer="/back/format"
        value={format?.name ?? OTHER}
        options={[
          ...FORMATS.map(({ name }) => [name, name] as const),
          [OTHER, 'Other: give the sides'] as const,
        ]}
        write={(station, name) => {
          const chosen = FORMATS.find((each) => each.name === name);
          if (!chosen) return station;
          const { name: _, ...sides } = chosen;
          return withBack(station, sides);
        }}
      />
      <FigureField
        label="Long side"
        pointer="/back/width_mm"
        unit="mm"
        value={back.width_mm}
        write={(station, width_mm) => withBack(station, { width_mm })}
      />
      <FigureField
        label="Short side"
        pointer="/back/height_mm"
        unit="mm"
        value={back.height_mm}
        write={(station, height_mm) => withBack(station, { height_mm })}
      />
      <FigureField
        label="Pixels along the long side"
        pointer="/back/width_px"
        unit="px"
        value={back.width_px}
        write={(station, width_px) => withBack(station, { width_px })}
        clear={withoutPixels}
      />
      <ChoiceField
        label="Turned"
        pointer="/back/orientation"
        value={back.orientation}
        options={[
          ['landscape', 'Level'],
          ['portrait', 'Upright'],
        ]}
        write={(station, orientation) => withBack(station, { orientation })}
      />
    </Section>
  );
}
