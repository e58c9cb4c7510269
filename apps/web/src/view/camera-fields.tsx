import { orderLines, ordersIn, ordersOf } from '@gangway/station';
import { Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { useAppSelector } from '../store/store.js';

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
  const station = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const { level_offset_deg: up = 0, level_offset_roll_deg: right = 0 } = station.camera;
  const lines =
    up === 0 && right === 0 ? [] : orderLines(ordersIn(ordersOf(station, units), 'level'));
  return (
    <Section title="Camera">
      <Rows rows={CAMERA} />
      {lines.map((line) => (
        <p key={line} className="text-[13px] text-quiet">
          {line}
        </p>
      ))}
    </Section>
  );
}
