import { degrees, type Station } from '@gangway/station';
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
  const { camera } = useStation();
  return (
    <Section title="Camera">
      <Rows rows={CAMERA} />
      <LevelWords camera={camera} />
    </Section>
  );
}

/** What the user's own level shows when the camera stands as planned. */
function LevelWords({ camera }: { camera: Station['camera'] }) {
  const { level_offset_deg: up = 0, level_offset_roll_deg: right = 0 } = camera;
  if (up === 0 && right === 0) return null;
  const pitch = camera.pitch_deg + up;
  const words = [
    Math.abs(pitch) < 0.005
      ? 'level fore and aft'
      : `${degrees(Math.abs(pitch), 2)} ${pitch > 0 ? 'up' : 'down'}`,
    Math.abs(right) < 0.005
      ? 'level across'
      : `${degrees(Math.abs(right), 2)} to the ${right > 0 ? 'right' : 'left'}`,
  ];
  return (
    <p className="text-[13px] text-quiet">Set it until your level shows {words.join(', ')}.</p>
  );
}
