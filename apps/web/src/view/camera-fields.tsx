import {
  degrees,
  distanceParts,
  parseAngleDeg,
  parseLengthMm,
  type Station,
} from '@gangway/station';
import { useAppSelector } from '../store/store.js';
import { Field } from '../fields/field.js';
import { given, Section, useStation } from '../fields/fields.js';

const LEVEL_OFFSETS = [
  ['level_offset_deg', 'Your level is off by, up'],
  ['level_offset_roll_deg', 'and to the right'],
] as const;

export function CameraFields() {
  const { camera } = useStation();
  const units = useAppSelector((state) => state.preferences.units);
  const [height, unit] = distanceParts(camera.height_m, units);
  const set = (station: Station, change: Partial<Station['camera']>): Station => ({
    ...station,
    camera: { ...station.camera, ...change },
  });
  return (
    <Section title="Camera">
      <Field
        label="Height of the sensor"
        pointer="/camera/height_m"
        unit={unit}
        shown={units === 'metric' ? given(camera.height_m) : height}
        parse={(text) => {
          const read = parseLengthMm(text, units === 'feet' ? 'ft' : 'm');
          return read.ok ? { ok: true, value: read.value / 1000 } : read;
        }}
        write={(station, height_m) => set(station, { height_m })}
      />
      <Field
        label="Pitch, up positive"
        pointer="/camera/pitch_deg"
        unit="°"
        shown={given(camera.pitch_deg)}
        parse={parseAngleDeg}
        write={(station, pitch_deg) => set(station, { pitch_deg })}
      />
      <Field
        label="Yaw, right positive"
        pointer="/camera/yaw_deg"
        unit="°"
        shown={given(camera.yaw_deg)}
        parse={parseAngleDeg}
        write={(station, yaw_deg) => set(station, { yaw_deg })}
      />
      {LEVEL_OFFSETS.map(([field, label]) => (
        <Field
          key={field}
          label={label}
          pointer={`/camera/${field}`}
          unit="°"
          shown={given(camera[field])}
          placeholder="0"
          parse={parseAngleDeg}
          write={(station, value) => set(station, { [field]: value })}
          clear={(station) => {
            const { [field]: _, ...rest } = station.camera;
            return { ...station, camera: rest as Station['camera'] };
          }}
        />
      ))}
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
