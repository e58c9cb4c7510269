import { withAt, withExposure, type Station } from '@gangway/station';
import { ChoiceField, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const KINDS = [
  ['none', '—'],
  ['leaf', 'leaf'],
  ['focal_plane', 'focal plane'],
  ['electronic', 'electronic'],
] as const;

const STEPS = [
  ['unknown', '—'],
  ['full', 'full stops'],
  ['half', 'half stops'],
  ['third', 'thirds'],
] as const;

const isKind =
  (...kinds: string[]) =>
  ({ exposure }: Station): boolean =>
    exposure?.shutter !== undefined && kinds.includes(exposure.shutter.kind);

const SHUTTER: readonly Row[] = [
  {
    at: '/exposure/shutter/fastest_s',
    label: 'Fastest',
    as: 'time',
    clear: true,
    when: isKind('leaf', 'focal_plane', 'electronic'),
  },
  {
    at: '/exposure/shutter/slowest_s',
    label: 'Slowest',
    as: 'time',
    clear: true,
    when: isKind('leaf', 'focal_plane', 'electronic'),
  },
  {
    at: '/exposure/shutter/sync_s',
    label: 'Shortest with flash',
    as: 'time',
    clear: true,
    when: isKind('focal_plane'),
  },
  {
    at: '/exposure/shutter/readout_s',
    label: 'Reads from first to last line in',
    as: 'time',
    clear: true,
    when: isKind('electronic', 'focal_plane'),
  },
];

export function ShutterFields() {
  const { exposure } = useStation();
  return (
    <div className="space-y-1.5">
      <ChoiceField
        label="Kind"
        pointer="/exposure/shutter/kind"
        value={exposure?.shutter?.kind ?? 'none'}
        options={KINDS}
        write={(now, kind) =>
          withExposure(now, {
            shutter: kind === 'none' ? undefined : { ...now.exposure?.shutter, kind },
          })
        }
      />
      {exposure?.shutter && (
        <ChoiceField
          label="Steps"
          pointer="/exposure/shutter/steps"
          value={exposure.shutter.steps ?? 'unknown'}
          options={STEPS}
          write={(now, steps) =>
            withAt(now, '/exposure/shutter/steps', steps === 'unknown' ? undefined : steps)
          }
        />
      )}
      <Rows rows={SHUTTER} />
    </div>
  );
}
