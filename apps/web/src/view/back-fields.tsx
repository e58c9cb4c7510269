import {
  DIAGONAL_24X36_MM,
  fixed,
  FORMATS,
  parsePixels,
  pitchUm,
  trimmed,
  withAt,
  type Station,
} from '@gangway/station';
import { Line } from '../station/results.js';
import { selectReport } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { ChoiceField, Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const OTHER = 'other';

const NAME: readonly Row[] = [{ at: '/back/name', label: 'Name', as: 'text' }];
const SIDES: readonly Row[] = [
  { at: '/back/width_mm', label: 'Long side', as: 'mm' },
  { at: '/back/height_mm', label: 'Short side', as: 'mm' },
  {
    at: '/back/width_px',
    label: 'Pixels along the long side',
    as: 'px',
    clear: true,
    parse: (text, { back }) => parsePixels(text, back.width_mm),
    help: 'Their number, or their pitch: 3.76 µm.',
  },
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
      <FormatFigures />
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

/** What follows from the size of the back: the pixels, and which lens is normal on it. */
function FormatFigures() {
  const { back }: Station = useStation();
  // With what a converter or reducer makes of it.
  const focal = useAppSelector((state) => selectReport(state).optics.focal_length_mm);
  const diagonal = Math.hypot(back.width_mm, back.height_mm);
  return (
    <div className="border-y border-rule py-1 text-[13px]">
      {back.width_px !== undefined && (
        <Line
          name="Pixel pitch"
          term="pixel-pitch"
          figure={trimmed(pitchUm(back.width_mm, back.width_px), 2)}
          unit="µm"
        />
      )}
      <Line name="Normal lens here" term="normal-lens" figure={fixed(diagonal, 0)} unit="mm" />
      <Line
        name="Like, on 24 × 36 mm"
        term="equivalent"
        figure={fixed((focal * DIAGONAL_24X36_MM) / diagonal, 1)}
        unit="mm"
      />
    </div>
  );
}
