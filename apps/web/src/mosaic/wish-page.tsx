import { useMemo } from 'react';
import {
  carrierOf,
  FORMATS,
  fixed,
  limitSaid,
  megapixelsSaid,
  minutes,
  noneServesSaid,
  workOf,
  type Mosaic,
  type Offered,
  type Station,
  type Wish,
} from '@gangway/station';
import { ChoiceField } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';
import { Group } from '../station/results.js';
import { Assumed } from '../station/assumed.js';
import { Tried } from '../station/tried.js';
import { WayList, type Way } from '../station/way-list.js';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { usePaced } from '../ui/use-paced.js';
import { ShiftDrawingEmpty } from './empty.js';
import { ShapeField, withMosaicValues } from './pattern-fields.js';
import { MosaicPage } from './page.js';
import { useOffers } from './use-offers.js';

type Kind = 'none' | 'covered' | 'sharp' | 'pixels' | 'print' | 'field' | 'format';

const KINDS: readonly (readonly [Exclude<Kind, 'none'>, string])[] = [
  ['covered', 'Fill the circle'],
  ['sharp', 'Fill the sharp core'],
  ['pixels', 'So many megapixels'],
  ['print', 'A print so large'],
  ['field', 'This field'],
  ['format', 'What another camera sees'],
];

function kindOf(wish: Wish | undefined): Kind {
  if (!wish) return 'none';
  if (wish.fill !== undefined) return wish.fill;
  if (wish.megapixels !== undefined) return 'pixels';
  if (wish.print_width_mm !== undefined) return 'print';
  return wish.horizontal_deg !== undefined ? 'field' : 'format';
}

/** What each wish begins with. */
const FIRST: Record<Exclude<Kind, 'none'>, Wish> = {
  covered: { fill: 'covered' },
  sharp: { fill: 'sharp' },
  pixels: { megapixels: 100 },
  print: { print_width_mm: 1000, dpi: 300 },
  field: { horizontal_deg: 60 },
  format: { focal_length_mm: 90, width_mm: 120, height_mm: 95 },
};

/** Wishing needs a mosaic to stand in; without one, a single frame of a grid. */
const withWish = (station: Station, wish: Wish | null): Station =>
  withMosaicValues(
    station.mosaic
      ? station
      : {
          ...station,
          mosaic: {
            pattern: 'grid',
            columns: 1,
            rows: 1,
            moves: carrierOf(station, 'rear') ? 'rear' : 'lens',
          } as Mosaic,
        },
    { wish },
  );

const at = (name: string, label: string, as: Row['as'], clear = false): Row => ({
  at: `/mosaic/wish/${name}`,
  label,
  as,
  ...(clear ? { clear } : {}),
});

/** What may be set of each wish. */
const OF_WISH: Record<Kind, readonly Row[]> = {
  none: [],
  covered: [],
  sharp: [],
  pixels: [at('megapixels', 'At least', 'MP')],
  print: [at('print_width_mm', 'Print width', 'mm'), at('dpi', 'Dots an inch', 'number')],
  field: [at('horizontal_deg', 'Across', '°'), at('vertical_deg', 'Up', '°', true)],
  format: [at('focal_length_mm', 'Its focal length', 'mm')],
};

/** What is wanted, and the layouts that give it. */
export const WishPage = () => (
  <MosaicPage label="Wish" empty={<ShiftDrawingEmpty />}>
    {() => <Wishes />}
  </MosaicPage>
);

function Wishes() {
  const station = useAppSelector(selectStation);
  const wish = station.mosaic?.wish;
  return (
    <>
      <div>
        <h1 className="text-[18px] font-semibold">What do you want?</h1>
        <p className="text-[13px] text-quiet">
          The layouts that give it on this rig follow, those with the fewest frames first. Look at
          one by its words; take it with Try.
        </p>
      </div>
      <Kinds wish={wish} />
      <div className="space-y-1.5">
        <Rows rows={OF_WISH[kindOf(wish)]} />
        {wish?.focal_length_mm !== undefined && <OtherFormat wish={wish} />}
        {wish && <ShapeField mosaic={station.mosaic!} />}
      </div>
      <Tried />
      {wish && <Offers station={station} />}
    </>
  );
}

/** What may be wished for; pressed again it is wished for no more. */
function Kinds({ wish }: { wish: Wish | undefined }) {
  const { change } = useEditing();
  const notice = useNotice();
  const now = kindOf(wish);
  return (
    <div role="group" aria-label="Wish" className="grid grid-cols-2 gap-1.5">
      {KINDS.map(([kind, words]) => (
        <button
          key={kind}
          type="button"
          aria-pressed={now === kind}
          className="min-h-9 border border-rule px-2 py-1 text-left hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-on-strong pointer-coarse:min-h-11"
          onClick={() => {
            const refused = change(`Wish: ${words.toLowerCase()}`, '/mosaic/wish', (station) =>
              withWish(station, now === kind ? null : FIRST[kind]),
            );
            if (refused !== null) notice([refused]);
          }}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

/** The format of the other camera. */
function OtherFormat({ wish }: { wish: Extract<Wish, { focal_length_mm: number }> }) {
  const { width_mm, height_mm } = wish;
  const own = FORMATS.find((each) => each.width_mm === width_mm && each.height_mm === height_mm);
  return (
    <ChoiceField
      label="Its format"
      pointer="/mosaic/wish/width_mm"
      value={own?.name ?? 'other'}
      options={[
        ...(own ? [] : ([['other', `${width_mm} × ${height_mm} mm`]] as const)),
        ...FORMATS.map(({ name }) => [name, name] as const),
      ]}
      write={(now, name) => {
        const format = FORMATS.find((each) => each.name === name);
        return format
          ? withWish(now, { ...wish, width_mm: format.width_mm, height_mm: format.height_mm })
          : now;
      }}
    />
  );
}

const PATTERN_WORDS: Record<Mosaic['pattern'], string> = {
  grid: 'shifted',
  free: 'shifted, place by place',
  pinwheel: 'on the stops of the turning back',
  ring: 'in a ring',
  turn: 'the camera turned',
};

/** A layout in words: how many frames, how they lie, upright or level. */
function titleOf({ layout, after }: Offered): string {
  const { frames, mosaic } = layout;
  const count = frames.length === 1 ? 'One frame' : `${frames.length} frames`;
  const upright = after.back.orientation === 'portrait' ? 'upright' : 'level';
  const lines = (axis: 'x' | 'y'): number =>
    new Set(frames.map(({ centre }) => Math.round(centre[axis] * 100))).size;
  const shape =
    frames.length > 1 && (mosaic.pattern === 'grid' || mosaic.pattern === 'free')
      ? `, ${lines('x')} × ${lines('y')}`
      : '';
  const what = mosaic.moves === 'lens' && mosaic.pattern !== 'ring' ? ' by the lens' : '';
  return `${count} ${upright}${shape}, ${PATTERN_WORDS[mosaic.pattern]}${mosaic.pattern === 'grid' || mosaic.pattern === 'free' ? what : ''}`;
}

function wayOf(offered: Offered, fill: boolean): Way {
  const { layout, picture, limit, share, after } = offered;
  const pitch = layout.pixelPitchMm;
  const px = (mm: number): number => Math.round(mm / pitch!);
  const size =
    pitch === null
      ? `${fixed(picture.widthMm, 0)} × ${fixed(picture.heightMm, 0)} mm`
      : `${megapixelsSaid((px(picture.widthMm) * px(picture.heightMm)) / 1e6)}, ${px(picture.widthMm)} × ${px(picture.heightMm)} px`;
  return {
    id: `${titleOf(offered)} ${picture.widthMm.toFixed(3)}`,
    title: titleOf(offered),
    detail: [
      size,
      minutes(workOf(after, layout).timeS),
      ...(fill && share < 0.995 ? [`${fixed(100 * share, 0)} % of the largest`] : []),
      ...leastSaid(offered, fill),
      ...(limit ? [`limited by ${limitSaid(limit)}`] : []),
      ...movedSaid(offered),
    ].join('; '),
    after,
  };
}

/** Where its middle lies against the picture as it is composed. */
function movedSaid({ moved: { x, y } }: Offered): string[] {
  const by = (value: number, plus: string, minus: string): string[] =>
    Math.abs(value) < 0.05 ? [] : [`${fixed(Math.abs(value), 1)} mm ${value > 0 ? plus : minus}`];
  const moves = [...by(y, 'higher', 'lower'), ...by(x, 'to the right', 'to the left')];
  return moves.length === 0 ? [] : [`the middle lies ${moves.join(' and ')}`];
}

/** Whether fewer frames would do, where that is the question. */
const leastSaid = ({ least, layout, share }: Offered, fill: boolean): string[] => {
  if (fill && share < 0.99) return [];
  if (!least) return layout.frames.length === 1 ? [] : ['fewer may do; not proven'];
  return [layout.turn ? 'no fewer do by turning' : 'no fewer do by shift'];
};

function Offers({ station: now }: { station: Station }) {
  const station = usePaced(now, 300);
  const { found, share, stopped, stop } = useOffers(station);
  const fill = station.mosaic?.wish?.fill !== undefined;
  const ways = useMemo(() => found.offers.map((each) => wayOf(each, fill)), [found, fill]);
  const nearest = useMemo(() => (found.nearest ? [wayOf(found.nearest, false)] : []), [found]);
  return (
    <>
      {share !== null && (
        <div className="flex items-center justify-between gap-3" role="status">
          <span className="text-quiet">Looking for layouts, {fixed(100 * share, 0)} %</span>
          <Button onClick={stop}>Stop</Button>
        </div>
      )}
      {stopped && (
        <p className="text-costs">
          Stopped: the best so far. That no fewer frames do is not proven.
        </p>
      )}
      {!stopped && share === null && found.stopped && ways.length > 0 && (
        <p role="status" className="text-costs">
          So many layouts are possible here that not every one was tried: fewer frames may do.
        </p>
      )}
      {found.why !== null && (
        <p role="alert" className="border-l-2 border-costs pl-3">
          {noneServesSaid(found.why)}
        </p>
      )}
      {ways.length > 0 && (
        <Group
          title={
            <>
              Layouts that give it
              <Assumed rests={['travel', 'circle', 'core', 'overlap']} of="layouts" />
            </>
          }
        >
          <WayList ways={ways} />
        </Group>
      )}
      {nearest.length > 0 && (
        <Group title="The nearest by shift">
          <WayList ways={nearest} />
        </Group>
      )}
    </>
  );
}
