import { distanceParts, parseAngleDeg, parseLengthMm, type Station } from '@gangway/station';
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
    </Section>
  );
}
