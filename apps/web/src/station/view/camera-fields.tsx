import {
  degrees,
  distanceParts,
  parseAngleDeg,
  parseLengthMm,
  type Station,
} from '@gangway/station';
import { useAppSelector } from '../../store/store.js';
import { Field } from '../../ui/field.js';
import { given, Section, useStation } from './fields.js';

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
      <Field
        label="Your level is off by, up"
        pointer="/camera/level_offset_deg"
        unit="°"
        shown={given(camera.level_offset_deg)}
        placeholder="0"
        parse={parseAngleDeg}
        write={(station, level_offset_deg) => set(station, { level_offset_deg })}
        clear={(station) => {
          const { level_offset_deg: _, ...rest } = station.camera;
          return { ...station, camera: rest };
        }}
      />
      <Field
        label="and to the right"
        pointer="/camera/level_offset_roll_deg"
        unit="°"
        shown={given(camera.level_offset_roll_deg)}
        placeholder="0"
        parse={parseAngleDeg}
        write={(station, level_offset_roll_deg) => set(station, { level_offset_roll_deg })}
        clear={(station) => {
          const { level_offset_roll_deg: _, ...rest } = station.camera;
          return { ...station, camera: rest };
        }}
      />
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
