import {
  carrierOf,
  DEFAULT_TURNS,
  layoutOf,
  parseAngleDeg,
  overlapOf,
  PRESETS,
  without,
  type Mosaic,
  type Parsed,
  type Station,
} from '@gangway/station';
import { ChoiceField, FigureField, parseNumber } from '../fields/fields.js';
import { MetreField } from '../fields/metre-field.js';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { PatternGlyph } from './pattern-glyph.js';

/** The mosaic with some of its values changed; null takes one away. */
export function withMosaicValues(station: Station, values: Record<string, unknown>): Station {
  const merged = { ...station.mosaic, ...values };
  const kept = Object.entries(merged).filter(([, value]) => value !== null);
  return { ...station, mosaic: Object.fromEntries(kept) as unknown as Mosaic };
}

const set =
  (name: string, scale = 1) =>
  (station: Station, value: number): Station =>
    withMosaicValues(station, { [name]: value * scale });

const unset =
  (name: string) =>
  (station: Station): Station =>
    withMosaicValues(station, { [name]: null });

/** Begin with a pattern, each as its own small drawing. */
export function Presets({ title }: { title: string }) {
  const station = useAppSelector(selectStation);
  const { change } = useEditing();
  const notice = useNotice();
  return (
    <section aria-label={title}>
      <h2 className="mb-1.5 text-[13px] font-semibold text-quiet">{title}</h2>
      <div className="grid grid-cols-4 gap-1.5">
        {PRESETS.map(({ id, label, of }) => (
          <button
            key={id}
            type="button"
            className="flex min-h-16 flex-col items-center justify-between gap-1 border border-rule px-1 py-1.5 text-center text-[12px] leading-4 hover:border-ink"
            onClick={() => {
              const laid = of(station);
              if (typeof laid === 'string') notice([laid]);
              else {
                const refused = change(label, '/mosaic', () => laid);
                if (refused !== null) notice([refused]);
              }
            }}
          >
            <PatternGlyph station={station} preset={id} />
            {label}
          </button>
        ))}
      </div>
    </section>
  );
}

/** A share of the frame’s side, in per cent. */
const parseShare = (text: string): Parsed => {
  const read = parseNumber(text.replace(/\s*%$/, ''));
  return read.ok && (read.value < 0 || read.value > 95)
    ? { ok: false, message: 'Write from 0 to 95; the rest is what each frame adds.' }
    : read;
};

const SHAPES = [
  ['any', 'any shape'],
  ['1:1', 'square'],
  ['5:4', '5 to 4'],
  ['4:3', '4 to 3'],
  ['3:2', '3 to 2'],
  ['16:9', '16 to 9'],
  ['2:1', '2 to 1'],
  ['3:1', '3 to 1'],
  ['2:3', '2 to 3'],
  ['4:5', '4 to 5'],
  ['own', 'its own'],
] as const;

type ShapeName = (typeof SHAPES)[number][0];

function shapeName({ output }: Mosaic): ShapeName {
  if (!output) return 'any';
  const name = `${output.across}:${output.up}`;
  return SHAPES.find(([key]) => key === name)?.[0] ?? 'own';
}

type Of<P extends Mosaic['pattern']> = Extract<Mosaic, { pattern: P }>;

function LinesFields({ mosaic }: { mosaic: Of<'grid'> | Of<'turn'> }) {
  return (
    <>
      <FigureField
        label={mosaic.pattern === 'turn' ? 'Frames' : 'Columns'}
        pointer="/mosaic/columns"
        value={mosaic.columns ?? 1}
        write={set('columns')}
      />
      {mosaic.pattern === 'grid' && (
        <FigureField
          label="Rows"
          pointer="/mosaic/rows"
          value={mosaic.rows ?? 1}
          write={set('rows')}
        />
      )}
    </>
  );
}

function WheelFields({ mosaic }: { mosaic: Of<'pinwheel'> }) {
  const offset = (i: 0 | 1, label: string) => (
    <FigureField
      label={label}
      pointer={`/mosaic/offset_mm/${i}`}
      unit="mm"
      value={mosaic.offset_mm?.[i]}
      write={(now, value) => {
        const [x, y] = (now.mosaic?.pattern === 'pinwheel' && now.mosaic.offset_mm) || [0, 0];
        return withMosaicValues(now, { offset_mm: i === 0 ? [value, y] : [x, value] });
      }}
    />
  );
  return (
    <>
      <FigureField
        label="Stops"
        pointer="/mosaic/frames"
        value={mosaic.frames ?? DEFAULT_TURNS}
        write={set('frames')}
      />
      {offset(0, 'Right of the middle')}
      {offset(1, 'Above the middle')}
    </>
  );
}

function RingFields({ station, mosaic }: { station: Station; mosaic: Of<'ring'> }) {
  return (
    <>
      <FigureField
        label="Frames in the ring"
        pointer="/mosaic/frames"
        value={mosaic.frames ?? layoutOf(station).frames.length - (mosaic.middle ? 1 : 0)}
        write={set('frames')}
      />
      <FigureField
        label="Pushed out"
        pointer="/mosaic/radius_mm"
        unit="mm"
        value={mosaic.radius_mm}
        write={set('radius_mm')}
      />
      <FigureField
        label="First at, from the top"
        pointer="/mosaic/start_deg"
        unit="°"
        parse={parseAngleDeg}
        value={mosaic.start_deg ?? 0}
        write={set('start_deg')}
      />
      <ChoiceField
        label="Middle"
        pointer="/mosaic/middle"
        value={mosaic.middle ? 'yes' : 'no'}
        options={[
          ['yes', 'a frame, taken first'],
          ['no', 'none'],
        ]}
        write={(now, value) => withMosaicValues(now, { middle: value === 'yes' })}
      />
    </>
  );
}

/** What moves, and whether the body goes after it. */
function MovesFields({ station, mosaic }: { station: Station; mosaic: Mosaic }) {
  if (mosaic.pattern === 'turn') {
    return (
      <ChoiceField
        label="Merged"
        pointer="/mosaic/projection"
        value={mosaic.projection ?? 'cylinder'}
        options={[
          ['cylinder', 'on a cylinder'],
          ['flat', 'flat'],
        ]}
        write={(now, projection) => withMosaicValues(now, { projection })}
      />
    );
  }
  const both = carrierOf(station, 'rear') !== null && carrierOf(station, 'lens') !== null;
  return (
    <>
      {both && (
        <ChoiceField
          label="What moves"
          pointer="/mosaic/moves"
          value={mosaic.moves}
          options={[
            ['rear', 'the back'],
            ['lens', 'the lens'],
          ]}
          write={(now, moves) => withMosaicValues(now, { moves })}
        />
      )}
      {mosaic.moves === 'lens' && (
        <>
          <ChoiceField
            label="The body"
            pointer="/mosaic/body_follows"
            value={mosaic.body_follows ? 'follows' : 'stays'}
            options={[
              ['stays', 'stays'],
              ['follows', 'is moved back by as much'],
            ]}
            write={(now, value) =>
              withMosaicValues(now, { body_follows: value === 'follows' ? true : null })
            }
          />
          <MetreField
            label="Nearest thing"
            pointer="/mosaic/near_m"
            value={mosaic.near_m}
            write={set('near_m')}
            clear={unset('near_m')}
          />
          <MetreField
            label="Farthest thing"
            pointer="/mosaic/far_m"
            value={mosaic.far_m}
            write={set('far_m')}
            clear={unset('far_m')}
          />
        </>
      )}
    </>
  );
}

/** The shape of the picture that is to come out. */
export function ShapeField({ mosaic }: { mosaic: Mosaic }) {
  const own = shapeName(mosaic);
  return (
    <ChoiceField
      label="Picture"
      pointer="/mosaic/output"
      value={own}
      options={SHAPES.filter(([key]) => key !== 'own' || own === 'own')}
      write={(now, name) => {
        if (name === 'own') return now;
        const [across, up] = name.split(':').map(Number);
        return withMosaicValues(now, { output: name === 'any' ? null : { across, up } });
      }}
    />
  );
}

/** What may be set of the layout that is there. */
export function PatternFields({ station, mosaic }: { station: Station; mosaic: Mosaic }) {
  return (
    <div className="space-y-1.5">
      {(mosaic.pattern === 'grid' || mosaic.pattern === 'turn') && <LinesFields mosaic={mosaic} />}
      {mosaic.pattern === 'pinwheel' && <WheelFields mosaic={mosaic} />}
      {mosaic.pattern === 'ring' && <RingFields station={station} mosaic={mosaic} />}
      <FigureField
        label="Frames share, wanted"
        pointer="/mosaic/overlap"
        unit="%"
        parse={parseShare}
        value={Number((100 * overlapOf(mosaic)).toFixed(1))}
        write={set('overlap', 0.01)}
        clear={unset('overlap')}
      />
      <ChoiceField
        label="Back"
        pointer="/back/orientation"
        value={station.back.orientation}
        options={[
          ['landscape', 'level'],
          ['portrait', 'upright'],
        ]}
        write={(now, orientation) => ({ ...now, back: { ...now.back, orientation } }) as Station}
      />
      <ShapeField mosaic={mosaic} />
      <MovesFields station={station} mosaic={mosaic} />
      <WorkFields station={station} mosaic={mosaic} />
    </div>
  );
}

function WorkFields({ station, mosaic }: { station: Station; mosaic: Mosaic }) {
  return (
    <>
      <FigureField
        label="Time for one frame"
        pointer="/mosaic/seconds_each"
        unit="s"
        value={mosaic.seconds_each}
        write={set('seconds_each')}
        clear={unset('seconds_each')}
      />
      <FigureField
        label="Brackets of each"
        pointer="/exposure/brackets/frames"
        value={station.exposure?.brackets?.frames}
        write={(now, frames) => ({
          ...now,
          exposure: {
            ...now.exposure,
            brackets: { step_stops: 1, ...now.exposure?.brackets, frames },
          },
        })}
        clear={(now) => {
          const { brackets: _, ...rest } = now.exposure ?? {};
          return { ...now, exposure: rest };
        }}
      />
    </>
  );
}

/** One frame again. */
export function TakeOne() {
  const { change } = useEditing();
  return (
    <Button onClick={() => change('Take one frame', '/mosaic', (now) => without(now, 'mosaic'))}>
      Take one frame instead
    </Button>
  );
}
