import {
  carrierOf,
  DEFAULT_OVERLAP,
  DEFAULT_TURNS,
  layoutOf,
  PRESETS,
  USUAL_BRACKET_STEP,
  withAt,
  without,
  type Mosaic,
  type Station,
} from '@gangway/station';
import { ChoiceField } from '../fields/fields.js';
import { parseShare, Rows, type Row } from '../fields/rows.js';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { useRested } from '../ui/use-paced.js';
import { PatternGlyph } from './pattern-glyph.js';

/** The mosaic with some of its values changed; null takes one away. */
export function withMosaicValues(station: Station, values: Record<string, unknown>): Station {
  const merged = { ...station.mosaic, ...values };
  const kept = Object.entries(merged).filter(([, value]) => value !== null);
  return { ...station, mosaic: Object.fromEntries(kept) as unknown as Mosaic };
}

/** Patterns that could be begun are drawn anew once the hand rests for this long. */
const DRAWN_MS = 250;

/** Begin with a pattern, each as its own small drawing. */
export function Presets({ title }: { title: string }) {
  const station = useAppSelector(selectStation);
  const drawn = useRested(station, DRAWN_MS);
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
            <PatternGlyph station={drawn} preset={id} />
            {label}
          </button>
        ))}
      </div>
    </section>
  );
}

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

const count = (at: string, label: string, usual: Row['usual'] = 1): Row => ({
  at,
  label,
  as: 'number',
  usual,
});

const offset = (label: string, i: 0 | 1): Row => ({
  at: `/mosaic/offset_mm/${i}`,
  label,
  as: 'mm',
  write: (station, value) => {
    const { mosaic } = station;
    const [x, y] = (mosaic?.pattern === 'pinwheel' && mosaic.offset_mm) || [0, 0];
    return withMosaicValues(station, { offset_mm: i === 0 ? [value, y] : [x, value] });
  },
});

const inRing = (station: Station): number =>
  layoutOf(station).frames.length -
  (station.mosaic?.pattern === 'ring' && station.mosaic.middle ? 1 : 0);

/** What each pattern is made of. */
const OF_PATTERN: Record<Mosaic['pattern'], readonly Row[]> = {
  grid: [count('/mosaic/columns', 'Columns'), count('/mosaic/rows', 'Rows')],
  pinwheel: [
    count('/mosaic/frames', 'Stops', DEFAULT_TURNS),
    offset('Right of the middle', 0),
    offset('Above the middle', 1),
  ],
  ring: [
    count('/mosaic/frames', 'Frames in the ring', inRing),
    { at: '/mosaic/radius_mm', label: 'Pushed out', as: 'mm' },
    { at: '/mosaic/start_deg', label: 'First at, from the top', as: '°', usual: 0 },
  ],
  free: [],
  turn: [count('/mosaic/columns', 'Frames')],
};

const SHARE: readonly Row[] = [
  {
    at: '/mosaic/overlap',
    label: 'Frames share, wanted',
    as: '%',
    usual: DEFAULT_OVERLAP,
    clear: true,
    parse: (text) => {
      const read = parseShare(text);
      return read.ok && (read.value < 0 || read.value > 0.95)
        ? { ok: false, message: 'Write from 0 to 95; the rest is what each frame adds.' }
        : read;
    },
  },
];

/** What tells how much near and far part. */
const DEPTHS: readonly Row[] = [
  { at: '/mosaic/near_m', label: 'Nearest thing', as: 'metre', clear: true },
  { at: '/mosaic/far_m', label: 'Farthest thing', as: 'metre', clear: true },
];

const WORK: readonly Row[] = [
  { at: '/mosaic/seconds_each', label: 'Time for one frame', as: 's', clear: true },
  {
    at: '/exposure/brackets/frames',
    label: 'Brackets of each',
    as: 'number',
    clear: '/exposure/brackets',
    write: (station, frames) =>
      withAt(station, '/exposure/brackets', {
        step_stops: USUAL_BRACKET_STEP,
        ...station.exposure?.brackets,
        frames,
      }),
  },
  {
    at: '/exposure/brackets/step_stops',
    label: 'Stops apart',
    as: 'number',
    when: ({ exposure }) => exposure?.brackets !== undefined,
  },
];

/** What may be set of the layout that is there. */
export function PatternFields({ station, mosaic }: { station: Station; mosaic: Mosaic }) {
  return (
    <div className="space-y-1.5">
      <Rows rows={OF_PATTERN[mosaic.pattern]} />
      {mosaic.pattern === 'ring' && (
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
      )}
      <Rows rows={SHARE} />
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
      {mosaic.moves !== 'rear' && <Rows rows={DEPTHS} />}
      <Rows rows={WORK} />
    </div>
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
