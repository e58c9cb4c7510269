import { X } from 'lucide-react';
import {
  fixed,
  readAs,
  withExposure,
  withReading,
  withAt,
  type Exposure,
  type ReadAs,
  type Station,
} from '@gangway/station';
import { ChoiceField, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { Line } from '../station/results.js';
import type { Exposed } from '../store/exposure.js';
import { useEditing } from '../store/editing.js';
import { Button } from '../ui/button.js';
import { BracketLines, FlashLines } from './figures.js';

const READ_AS = [
  ['time', 'a time'],
  ['ev', 'EV'],
  ['spots', 'several spots'],
] as const satisfies readonly (readonly [ReadAs, string])[];

const METERS = [
  ['unknown', '—'],
  ['hand', 'in the hand'],
  ['lens', 'through the lens'],
] as const;

const meterOf = ({ exposure }: Station) => exposure?.meter;

/** A reading begun again in another way: the old one cannot stand beside it. */
const begun: Record<ReadAs, Parameters<typeof withReading>[1]> = {
  time: { time_s: 1 / 60 },
  ev: { ev: 10 },
  spots: {
    spots: [
      { label: 'Shadow', ev: 8 },
      { label: 'Light', ev: 12 },
    ],
  },
};

const READING: readonly Row[] = [
  {
    at: '/exposure/meter/time_s',
    label: 'Time',
    as: 'time',
    write: (station, time_s) => withReading(station, { time_s }),
    when: (station) => !station.exposure?.flash && readAs(station) === 'time',
  },
  {
    at: '/exposure/meter/ev',
    label: 'EV',
    as: 'number',
    help: 'At the ISO the meter is set to.',
    when: (station) => !station.exposure?.flash && readAs(station) === 'ev',
  },
  {
    at: '/exposure/meter/f_number',
    label: 'At',
    as: 'stop',
    clear: true,
    placeholder: 'as set',
    when: (station) => !station.exposure?.flash && readAs(station) === 'time',
  },
  {
    at: '/exposure/meter/f_number',
    label: 'Reads',
    as: 'stop',
    when: ({ exposure }) => exposure?.flash === true,
  },
  {
    at: '/exposure/meter/iso',
    label: 'Meter at ISO',
    as: 'number',
    clear: true,
    placeholder: 'as used',
  },
  { at: '/exposure/iso', label: 'ISO used', as: 'number', clear: true },
];

export function ReadingFields() {
  const station = useStation();
  const meter = meterOf(station);
  const way = readAs(station);
  return (
    <div className="space-y-1.5">
      {!station.exposure?.flash && (
        <ChoiceField
          label="Read as"
          pointer="/exposure/meter"
          value={way}
          options={READ_AS}
          write={(now, next) => (readAs(now) === next ? now : withReading(now, begun[next]))}
        />
      )}
      {way === 'spots' && !station.exposure?.flash && <SpotFields />}
      <Rows rows={READING} />
      <ChoiceField
        label="Meter"
        pointer="/exposure/meter/through_lens"
        value={meter?.through_lens === undefined ? 'unknown' : meter.through_lens ? 'lens' : 'hand'}
        options={METERS}
        write={(now, value) =>
          withAt(
            now,
            '/exposure/meter/through_lens',
            value === 'unknown' ? undefined : value === 'lens',
          )
        }
      />
    </div>
  );
}

/** Spots of the scene, each with its EV; one may be placed where it is to fall. */
function SpotFields() {
  const station = useStation();
  const { change } = useEditing();
  const spots = meterOf(station)?.spots ?? [];
  const write = (label: string, next: NonNullable<NonNullable<Exposure['meter']>['spots']>): void =>
    void change(label, '/exposure/meter/spots', (now) => withReading(now, { spots: next }));
  const placed = spots.findIndex(({ place_stops }) => place_stops !== undefined);
  return (
    <>
      {spots.map(({ label }, i) => (
        <div key={i} className="flex items-center gap-1">
          <div className="min-w-0 flex-1">
            <Rows
              rows={[
                {
                  at: `/exposure/meter/spots/${i}/ev`,
                  label: `${label || `Spot ${i + 1}`}, EV`,
                  as: 'number',
                },
              ]}
            />
          </div>
          <button
            type="button"
            aria-label={`Remove ${label || `spot ${i + 1}`}`}
            disabled={spots.length === 1}
            onClick={() =>
              write(
                'Remove a spot',
                spots.filter((_, j) => j !== i),
              )
            }
            className="flex size-7 items-center justify-center text-quiet hover:text-ink disabled:opacity-30 pointer-coarse:size-11"
          >
            <X size={15} aria-hidden />
          </button>
        </div>
      ))}
      <Button
        onClick={() =>
          write('Add a spot', [
            ...spots,
            { label: `Spot ${spots.length + 1}`, ev: spots.at(-1)?.ev ?? 10 },
          ])
        }
      >
        Add a spot
      </Button>
      <ChoiceField
        label="Expose for"
        pointer="/exposure/meter/spots"
        value={placed < 0 ? 'middle' : String(placed)}
        options={[
          ['middle', 'halfway between'],
          ...spots.map(({ label }, i) => [String(i), label || `Spot ${i + 1}`] as const),
        ]}
        write={(now, next) =>
          withReading(now, {
            spots: (meterOf(now)?.spots ?? []).map(({ place_stops: _, ...spot }, i) =>
              String(i) === next ? { ...spot, place_stops: 0 } : spot,
            ),
          })
        }
      />
      {placed >= 0 && (
        <Rows
          rows={[
            {
              at: `/exposure/meter/spots/${placed}/place_stops`,
              label: 'It falls, from middle grey',
              as: 'stops',
            },
          ]}
        />
      )}
    </>
  );
}

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

const USUAL_STEP = 5 / 3;

const BRACKETS: readonly Row[] = [
  {
    at: '/exposure/brackets/frames',
    label: 'Exposures',
    as: 'number',
    usual: 1,
    write: (station, frames) =>
      withExposure(station, {
        brackets:
          frames === 1
            ? undefined
            : { step_stops: USUAL_STEP, ...station.exposure?.brackets, frames },
      }),
  },
  {
    at: '/exposure/brackets/step_stops',
    label: 'Apart',
    as: 'stops',
    when: ({ exposure }) => exposure?.brackets !== undefined,
  },
  { at: '/exposure/medium_range_stops', label: 'One exposure holds', as: 'stops', clear: true },
  {
    at: '/exposure/scene_range_stops',
    label: 'The scene spans',
    as: 'stops',
    clear: true,
    placeholder: 'spots',
  },
];

export function BracketFields({ exposed }: { exposed: Exposed }) {
  return (
    <div className="space-y-1.5">
      <Rows rows={BRACKETS} />
      <BracketLines exposed={exposed} />
    </div>
  );
}

const FLASH: readonly Row[] = [
  {
    at: '/exposure/flash_power/metered',
    label: 'Power when it was read',
    as: '×',
    usual: 1,
    clear: true,
    when: ({ exposure }) => exposure?.flash === true,
  },
  {
    at: '/exposure/flash_power/least',
    label: 'Its least power',
    as: '×',
    clear: true,
    help: 'A share of full: 1/64.',
    when: ({ exposure }) => exposure?.flash === true,
  },
];

/** With flash the light is made up by aperture, power and pops. */
export function FlashFields({ exposed }: { exposed: Exposed }) {
  const { exposure } = useStation();
  return (
    <div className="space-y-1.5">
      <ChoiceField
        label="Lit by"
        pointer="/exposure/flash"
        value={exposure?.flash ? 'flash' : 'light'}
        options={[
          ['light', 'what is there'],
          ['flash', 'flash'],
        ]}
        write={(now, value) => withExposure(now, { flash: value === 'flash' ? true : undefined })}
      />
      <Rows rows={FLASH} />
      <FlashLines report={exposed.report} />
    </div>
  );
}

const CROSSING: readonly Row[] = [
  {
    at: '/exposure/crossing/speed_m_s',
    label: 'It crosses at, m/s',
    as: 'number',
    clear: '/exposure/crossing',
    write: (station, speed_m_s) =>
      withExposure(station, {
        crossing: {
          distance_m: station.focus.distance_m ?? 20,
          ...station.exposure?.crossing,
          speed_m_s,
        },
      }),
    when: ({ exposure }) => exposure?.moving === true,
  },
  {
    at: '/exposure/crossing/distance_m',
    label: 'Its distance',
    as: 'metre',
    when: ({ exposure }) => exposure?.crossing !== undefined,
  },
];

export function MovingFields({ exposed: { station, report } }: { exposed: Exposed }) {
  const { exposure } = useStation();
  const { smear_px: smear, skew_px: skew } = report;
  const px = (value: number): string => fixed(value, value < 9.95 ? 1 : 0);
  return (
    <div className="space-y-1.5">
      <ChoiceField
        label="Anything in front"
        pointer="/exposure/moving"
        value={exposure?.moving ? 'moves' : 'still'}
        options={[
          ['still', 'stands still'],
          ['moves', 'moves'],
        ]}
        write={(now, value) =>
          withExposure(now, {
            moving: value === 'moves' ? true : undefined,
            ...(value === 'moves' ? {} : { crossing: undefined }),
          })
        }
      />
      <Rows rows={CROSSING} />
      {smear !== null && <Line name="Runs while it is open" figure={px(smear)} unit="px" />}
      {skew !== null && <Line name="Leans as it is read" figure={px(skew)} unit="px" />}
      {exposure?.crossing && station.back.width_px === undefined && (
        <p className="text-[13px] text-quiet">Give the back’s pixels to see smear and skew.</p>
      )}
    </div>
  );
}
