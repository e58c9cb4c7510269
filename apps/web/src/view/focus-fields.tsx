import {
  CONTROLS,
  distanceParts,
  focusControl,
  focusDistanceM,
  focusWay,
  orderLines,
  ordersIn,
  ordersOf,
  withFocusWay,
  type FocusWay,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Field } from '../fields/field.js';
import { ChoiceField, Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const FOCUS: readonly (readonly [FocusWay, string])[] = [
  ['distance', 'By distance'],
  ['magnification', 'By magnification'],
  ['image_distance', 'On the bed'],
];

const OTHER_WAYS: readonly Row[] = [
  {
    at: '/focus/magnification',
    label: 'Magnification',
    as: '×',
    when: ({ focus }) => focus.magnification !== undefined,
  },
  {
    at: '/focus/image_distance_mm',
    label: 'On the bed, lens straight',
    as: 'mm',
    when: ({ focus }) => focus.image_distance_mm !== undefined,
  },
];

const BED: readonly Row[] = [
  { at: '/bed/infinity_mm', label: 'The bed reads at infinity', as: 'mm', clear: true },
];

/** What the hand then sets: a ring and a bed are engraved for the lens straight. */
function HandSets() {
  const station = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const lines = orderLines(ordersIn(ordersOf(station, units), 'focus'));
  return (
    <>
      {focusControl(station).by === 'bed' && <Rows rows={BED} />}
      <p className="pt-1 text-[13px] text-quiet">{lines.join(' ')}</p>
    </>
  );
}

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
      <Rows rows={OTHER_WAYS} />
      <HandSets />
    </Section>
  );
}
