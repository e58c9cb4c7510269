import { distanceParts, parseLengthMm, type Station } from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Field } from './field.js';
import { given } from './fields.js';

/** A length in the scene: written in the units in use, kept in metres. */
export function MetreField({
  label,
  pointer,
  value,
  write,
  clear,
  placeholder = '—',
}: {
  label: string;
  pointer: string;
  value: number | undefined;
  write: (station: Station, value: number) => Station;
  clear?: (station: Station) => Station;
  placeholder?: string | undefined;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const feet = units === 'feet' && value !== undefined;
  // The sign of a place below or to the left is kept apart from feet and inches.
  const [shown] = feet ? distanceParts(Math.abs(value), units) : [''];
  return (
    <Field
      label={label}
      pointer={pointer}
      unit={units === 'metric' ? 'm' : ''}
      shown={feet ? `${value < 0 ? '−' : ''}${shown}` : given(value)}
      parse={(text) => {
        const read = parseLengthMm(text, units === 'feet' ? 'ft' : 'm');
        return read.ok ? { ok: true, value: Number((read.value / 1000).toFixed(4)) } : read;
      }}
      write={write}
      {...(clear ? { clear, placeholder } : {})}
    />
  );
}
