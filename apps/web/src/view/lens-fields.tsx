import {
  DEFAULT_SHARP_FRACTION,
  withAt,
  withClosestFocus,
  withStops,
  type Station,
} from '@gangway/station';
import { FigureField, Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const FIRST: readonly Row[] = [
  { at: '/lens/name', label: 'Name', as: 'text' },
  { at: '/lens/focal_length_mm', label: 'Focal length', as: 'mm' },
  {
    at: '/lens/f_min',
    label: 'Widest stop',
    as: 'stop',
    write: (station, f_min) => withStops(station, { f_min }),
  },
  {
    at: '/lens/f_max',
    label: 'Smallest stop',
    as: 'stop',
    write: (station, f_max) => withStops(station, { f_max }),
  },
];

/** A ring whose place is not given stands this far ahead of the pupil (common practice, no source). */
const RING_AHEAD_MM = 20;

const REST: readonly Row[] = [
  {
    at: '/lens/close_focus/distance_mm',
    label: 'Closest focus, from the sensor',
    as: 'mm',
    write: withClosestFocus,
    clear: '/lens/close_focus',
  },
  {
    at: '/lens/close_focus/magnification',
    label: 'Magnification there',
    as: '×',
    when: ({ lens }) => lens.close_focus !== undefined,
  },
  {
    at: '/lens/filter/clear_diameter_mm',
    label: 'Filter ring, clear opening',
    as: 'mm',
    write: (station, clear_diameter_mm) =>
      withAt(station, '/lens/filter', {
        ahead_of_pupil_mm: RING_AHEAD_MM,
        ...station.lens.filter,
        clear_diameter_mm,
      }),
    clear: '/lens/filter',
  },
  {
    at: '/lens/filter/ahead_of_pupil_mm',
    label: 'Ring ahead of the pupil',
    as: 'mm',
    when: ({ lens }) => lens.filter !== undefined,
  },
];

const SHARP = '/lens/sharp_fraction';
const withSharp = (station: Station, percent: number): Station =>
  withAt(station, SHARP, percent / 100);

export function LensFields() {
  const { lens } = useStation();
  return (
    <Section title="Lens">
      <Rows rows={FIRST} />
      <FigureField
        label="Sharp part of the circle"
        pointer={SHARP}
        unit="%"
        value={Number(((lens.sharp_fraction ?? DEFAULT_SHARP_FRACTION) * 100).toFixed(4))}
        write={withSharp}
      />
      <Rows rows={REST} />
    </Section>
  );
}
