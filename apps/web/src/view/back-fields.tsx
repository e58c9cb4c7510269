import { FORMATS, withAt } from '@gangway/station';
import { ChoiceField, Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const OTHER = 'other';

const NAME: readonly Row[] = [{ at: '/back/name', label: 'Name', as: 'text' }];
const SIDES: readonly Row[] = [
  { at: '/back/width_mm', label: 'Long side', as: 'mm' },
  { at: '/back/height_mm', label: 'Short side', as: 'mm' },
  { at: '/back/width_px', label: 'Pixels along the long side', as: 'px', clear: true },
];

export function BackFields() {
  const { back } = useStation();
  const format = FORMATS.find(
    (each) => each.width_mm === back.width_mm && each.height_mm === back.height_mm,
  );
  return (
    <Section title="Back">
      <Rows rows={NAME} />
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
          const { width_mm, height_mm } = chosen;
          return withAt(station, '/back', { ...station.back, width_mm, height_mm });
        }}
      />
      <Rows rows={SIDES} />
      <ChoiceField
        label="Turned"
        pointer="/back/orientation"
        value={back.orientation}
        options={[
          ['landscape', 'Level'],
          ['portrait', 'Upright'],
        ]}
        write={(station, orientation) => withAt(station, '/back/orientation', orientation)}
      />
    </Section>
  );
}
