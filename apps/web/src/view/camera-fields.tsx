import { levelShows } from '@gangway/station';
import { Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const CAMERA: readonly Row[] = [
  { at: '/camera/height_m', label: 'Height of the sensor', as: 'metre' },
  { at: '/camera/pitch_deg', label: 'Pitch, up positive', as: '°' },
  { at: '/camera/yaw_deg', label: 'Yaw, right positive', as: '°' },
  {
    at: '/camera/level_offset_deg',
    label: 'Your level is off by, up',
    as: '°',
    clear: true,
    placeholder: '0',
  },
  {
    at: '/camera/level_offset_roll_deg',
    label: 'and to the right',
    as: '°',
    clear: true,
    placeholder: '0',
  },
];

export function CameraFields() {
  const shows = levelShows(useStation().camera);
  return (
    <Section title="Camera">
      <Rows rows={CAMERA} />
      {shows !== null && <p className="text-[13px] text-quiet">{shows}</p>}
    </Section>
  );
}
