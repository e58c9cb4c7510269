import { fixed, USUAL_BRACKET_STEP, withExposure } from '@gangway/station';
import { ChoiceField, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { Line } from '../station/results.js';
import type { Exposed } from '../store/exposure.js';
import { BracketLines, FlashLines } from './figures.js';

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
            : { step_stops: USUAL_BRACKET_STEP, ...station.exposure?.brackets, frames },
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
        crossing: { ...station.exposure?.crossing, speed_m_s },
      }),
    when: ({ exposure }) => exposure?.moving === true,
  },
  {
    at: '/exposure/crossing/distance_m',
    label: 'Its distance',
    as: 'metre',
    clear: true,
    placeholder: 'in focus',
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
      {smear !== null && (
        <Line name="Runs while it is open" figure={px(smear)} unit="px" rests={['crossing']} />
      )}
      {skew !== null && (
        <Line name="Leans as it is read" figure={px(skew)} unit="px" rests={['crossing']} />
      )}
      {exposure?.crossing && smear === null && skew === null && (
        <p className="text-[13px] text-quiet">
          {station.back.width_px === undefined
            ? 'Give the back’s pixels to see smear and skew.'
            : 'Give its distance and a reading to see smear and skew.'}
        </p>
      )}
    </div>
  );
}
