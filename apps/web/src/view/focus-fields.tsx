import {
  CONTROLS,
  distanceParts,
  focusDistanceM,
  focusWay,
  parseRatio,
  withFocusWay,
  type FocusWay,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Field } from '../fields/field.js';
import { ChoiceField, FigureField, Section, useStation } from '../fields/fields.js';

const FOCUS: readonly (readonly [FocusWay, string])[] = [
  ['distance', 'By distance'],
  ['magnification', 'By magnification'],
  ['image_distance', 'On the bed'],
];

export function FocusFields() {
  const station = useStation();
  const { focus } = station;
  const units = useAppSelector((state) => state.preferences.units);
  const control = CONTROLS.distance;
  const [distance, unit] = distanceParts(focusDistanceM(station), units);
  return (
    <Section title="Focus">
      <ChoiceField
        label="Set"
        pointer="/focus"
        value={focusWay(focus)}
        options={FOCUS}
        write={withFocusWay}
      />
      {focus.distance_m !== undefined && (
        <Field
          label="From the sensor, straight ahead"
          pointer="/focus/distance_m"
          unit={unit}
          shown={distance}
          parse={(text) => control.parse(text, units)}
          write={control.write}
        />
      )}
      {focus.magnification !== undefined && (
        <FigureField
          label="Magnification"
          pointer="/focus/magnification"
          unit="×"
          value={focus.magnification}
          parse={parseRatio}
          write={(now, magnification) => ({ ...now, focus: { magnification } })}
        />
      )}
      {focus.image_distance_mm !== undefined && (
        <FigureField
          label="On the bed, lens straight"
          pointer="/focus/image_distance_mm"
          unit="mm"
          value={focus.image_distance_mm}
          write={(now, image_distance_mm) => ({ ...now, focus: { image_distance_mm } })}
        />
      )}
    </Section>
  );
}
