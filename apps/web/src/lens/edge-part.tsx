import { Chart, LinearScale, LineElement, PointElement, type ChartOptions } from 'chart.js';
import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react';
import { Scatter } from 'react-chartjs-2';
import type { Area, EdgeMeasured } from '@gangway/frames';
import * as z from 'zod';
import { EDGE_PROBLEMS, fixed, fStop, LENS_ZONES, withEdges, withWords, ZONE_RADII, zoneAt, type EdgeAt, type LensZone as Zone } from '@gangway/station'; // prettier-ignore
import { useKept } from '../browser/use-kept.js';
import { Choosing } from '../ui/choosing.js';
import { useSize } from '../drawing/use-size.js';
import { axisText, coloursIn } from '../drawing/chart-look.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { deskOf } from './desk.js';
import { FileFields } from './file-fields.js';
import { numberTyped, STOP_COLUMN, wrongWith } from './typed.js';
import type { OpenedFile } from './messages.js';
import type { PartProps } from './part-props.js';
import { KeepButton } from './keep-button.js';
import { Problems } from './problems.js';

Chart.register(LinearScale, LineElement, PointElement);

/** What was measured in one picture. */
interface EdgeOf {
  readonly area: Area;
  readonly found: EdgeMeasured;
}

/** More than this holds more than one edge. */
const MOST_PX = 1_000_000;

const whole = ({ widthPx, heightPx }: OpenedFile): Area => ({ x: 0, y: 0, width: widthPx, height: heightPx }); // prettier-ignore

const pieceShape = z.enum(['whole', 'piece']);

/** Where on the picture a box lies, and how large a pixel is: of a piece only its owner knows where. */
function liesOf(
  { widthPx, heightPx }: OpenedFile,
  { x, y, width, height }: Area,
  back: PartProps['back'],
  piece: Zone | null,
): { readonly pitchMm: number; readonly radiusMm: number; readonly zone: Zone } {
  const [acrossMm, upMm] = [back?.document.width_mm ?? 36, back?.document.height_mm ?? 24];
  if (piece !== null) {
    const radiusMm = (ZONE_RADII[piece] * Math.hypot(acrossMm, upMm)) / 2;
    return { pitchMm: acrossMm / back!.document.width_px!, radiusMm, zone: piece };
  }
  const pitchMm = acrossMm / Math.max(widthPx, heightPx);
  const away = Math.hypot(x + width / 2 - widthPx / 2, y + height / 2 - heightPx / 2);
  const zone = zoneAt(away / (Math.hypot(widthPx, heightPx) / 2));
  return { pitchMm, radiusMm: away * pitchMm, zone };
}

/** One slanted edge in each picture. */
export function EdgePart({ lens, desk, back, typed, told, keep }: PartProps) {
  const files = useMemo(() => desk.files ?? [], [desk.files]);
  const [at, setAt] = useState(0);
  const [areas, setAreas] = useState<Readonly<Record<number, Area>>>({});
  const [edges, setEdges] = useState<Readonly<Record<number, EdgeOf>>>({});
  const file = files[Math.min(at, files.length - 1)];
  const [of, setOf] = useKept<'whole' | 'piece'>(`lens.piece.${lens.id}`, pieceShape, 'whole');
  const [zones, setZones] = useState<Readonly<Record<number, Zone>>>({});
  // Of a file that is larger than the back’s pixels it cannot be a piece.
  const mayBePiece = back?.document.width_px !== undefined && files.every(({ widthPx, heightPx }) => Math.max(widthPx, heightPx) < back.document.width_px!); // prettier-ignore
  const pieces = mayBePiece && of === 'piece';
  const asked = useRef<{ index: number; area: Area } | null>(null);
  const found = desk.found.edge;
  useEffect(() => {
    const of = asked.current;
    if (found && of) setEdges((now) => ({ ...now, [of.index]: { area: of.area, found } }));
  }, [found]);
  const measure = (area: Area): void => {
    if (!file || area.width < 4 || area.height < 4) return;
    setAreas((now) => ({ ...now, [file.index]: area }));
    asked.current = { index: file.index, area };
    deskOf(lens.id, 'edge').measure({ what: 'edge', index: file.index, area });
  };
  const all = useMemo(
    () => files.flatMap((each): (EdgeAt & { readonly file: OpenedFile })[] => {
      const edge = edges[each.index];
      const fNumber = each.fNumber ?? typed.of(each.name, 'stop');
      const figures = edge?.found.figures;
      if (!edge || !figures || fNumber === null || !STOP_COLUMN.sound(fNumber)) return [];
      const lies = liesOf(each, edge.area, back, pieces ? (zones[each.index] ?? 'centre') : null);
      return [{ file: each, fNumber, ...lies, mtf50CyMm: figures.mtf50CyPx / lies.pitchMm, sharpened: edge.found.problems.includes('sharpened') }];
    }),
    [files, edges, typed, back, pieces, zones],
  );
  const next = useMemo(
    () => (all.length > 0 ? withEdges(lens.document.measured, all, told(all.map(({ file: { name } }) => name))) : null),
    [all, lens.document.measured, told],
  );
  if (!file) return <p className="px-5 py-6 text-quiet">None of these can be read.</p>;
  const now = edges[file.index];
  const mine = all.find((each) => each.file.index === file.index);
  const missing = wrongWith(file, [STOP_COLUMN], typed);
  return (
    <div className="flex flex-1 flex-col lg:flex-row">
      <div className="min-w-0 flex-1 space-y-3 bg-stage px-5 py-4">
        <Stepper {...{ files, at }} onAt={setAt} />
        <Marking key={file.index} lens={lens.id} file={file} area={areas[file.index] ?? null} onArea={measure} />
        {now?.found.figures && <MtfChart found={now.found} />}
      </div>
      <aside aria-label="The edge" className="w-full shrink-0 space-y-4 border-l border-rule bg-paper px-5 py-4 lg:w-[352px]">
        <Head mine={mine ?? null} tried={now !== undefined} />
        {now?.found.figures && <Figures found={now.found} />}
        {now && <Problems of={withWords(now.found.problems, EDGE_PROBLEMS)} />}
        {mayBePiece && (
          <Choosing label="The file is" value={of} options={[['whole', 'the whole picture'], ['piece', 'a piece at full size']]} onChoose={setOf} />
        )}
        {pieces && (
          <Choosing label="From the" value={zones[file.index] ?? 'centre'} options={LENS_ZONES.map((zone) => [zone, zone] as const)} onChoose={(zone) => setZones((all) => ({ ...all, [file.index]: zone }))} />
        )}
        <FileFields {...{ files, typed }} columns={[STOP_COLUMN]} />
        {missing && <p role="note" className="text-costs">{missing}</p>}
        <AreaFields key={`${file.index} ${JSON.stringify(areas[file.index] ?? null)}`} file={file} area={areas[file.index] ?? null} onArea={measure} />
        <KeepButton {...{ lens, keep, next }} of={edges} what={`how sharp it is at ${all.length === 1 ? 'one place' : `${all.length} places`}`}>
          {`Keep ${all.length === 1 ? 'it' : `all ${all.length}`} with the lens`}
        </KeepButton>
      </aside>
    </div>
  );
} // prettier-ignore

function Stepper({ files, at, onAt }: { files: readonly OpenedFile[]; at: number; onAt: (at: number) => void }) {
  if (files.length < 2) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
      <Button disabled={at === 0} onClick={() => onAt(at - 1)}>
        Picture before
      </Button>
      <span role="status" className="min-w-0 break-words">
        {at + 1} of {files.length}: {files[at]?.name}
      </span>
      <Button disabled={at >= files.length - 1} onClick={() => onAt(at + 1)}>
        Next picture
      </Button>
    </div>
  );
} // prettier-ignore

/** The figure of the picture that is looked at, or what to do for one. */
function Head({ mine, tried }: { mine: EdgeAt | null; tried: boolean }) {
  if (!mine) {
    return (
      <p className="text-quiet">
        {tried
          ? 'No figure from this edge.'
          : 'Drag a box round one edge: dark on one side, light on the other.'}
      </p>
    );
  }
  return (
    <p>
      <span className="figure text-[34px] leading-10">{fixed(mine.mtf50CyMm, 0)}</span>{' '}
      <span className="text-quiet">
        line pairs a mm at half contrast, {fStop(mine.fNumber)}, {mine.zone}
      </span>
    </p>
  );
}

const Figures = ({ found: { figures, angleDeg } }: { found: EdgeMeasured }) => (
  <dl className="grid grid-cols-[auto_auto] gap-x-4 text-[13px]">
    {(
      [
        ['half contrast', `${fixed(figures!.mtf50CyPx, 3)} cycles a px`],
        ['tenth', figures!.mtf10CyPx === null ? 'beyond the pixels' : `${fixed(figures!.mtf10CyPx, 3)} cycles a px`],
        ['from dark to light', `${fixed(figures!.rise1090Px, 2)} px`],
        ['slant', angleDeg === null ? '' : `${fixed(angleDeg, 1)}°`],
      ] as const
    ).map(([name, value]) => (
      <div key={name} className="contents">
        <dt className="text-quiet">{name}</dt>
        <dd className="figure text-right">{value}</dd>
      </div>
    ))}
  </dl>
); // prettier-ignore

/** The picture, and a box that is drawn on it. */
function Marking({ lens, file, area, onArea }: { lens: string; file: OpenedFile; area: Area | null; onArea: (area: Area) => void }) {
  const [box, size] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [drawn, setDrawn] = useState<{ from: readonly [number, number]; to: readonly [number, number] } | null>(null);
  const scale = Math.min(size.width / file.widthPx, size.height / file.heightPx, 4);
  const every = Math.max(1, Math.floor(1 / Math.max(scale, 1e-6)));
  useEffect(() => {
    if (size.width < 1) return;
    const [width, height] = [Math.floor(file.widthPx / every), Math.floor(file.heightPx / every)];
    deskOf(lens, 'edge').crop({ index: file.index, x: 0, y: 0, every, width, height }, (_, bitmap) => {
      const element = canvas.current;
      if (!element || !bitmap) return;
      [element.width, element.height] = [width, height];
      element.getContext('2d')!.drawImage(bitmap, 0, 0);
    });
  }, [lens, file, every, size.width]);
  // A picture of nothing but an edge is measured as it is.
  const small = file.widthPx * file.heightPx <= MOST_PX;
  const first = useRef(small && area === null);
  useEffect(() => {
    if (!first.current) return;
    first.current = false;
    onArea(whole(file));
  });
  const left = (size.width - file.widthPx * scale) / 2;
  const placeOf = (event: PointerEvent): readonly [number, number] => {
    const { left: x, top: y } = box.current!.getBoundingClientRect();
    const held = (value: number, most: number): number => Math.min(most, Math.max(0, Math.round(value)));
    return [held((event.clientX - x - left) / scale, file.widthPx), held((event.clientY - y) / scale, file.heightPx)];
  };
  const areaOf = ({ from: [x0, y0], to: [x1, y1] }: NonNullable<typeof drawn>): Area => ({ x: Math.min(x0, x1), y: Math.min(y0, y1), width: Math.abs(x1 - x0), height: Math.abs(y1 - y0) });
  const shown = drawn ? areaOf(drawn) : area;
  return (
    <div
      ref={box}
      className="relative h-[min(52vh,26rem)] cursor-crosshair touch-none overflow-hidden"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        const from = placeOf(event);
        setDrawn({ from, to: from });
      }}
      onPointerMove={(event) => drawn && setDrawn({ from: drawn.from, to: placeOf(event) })}
      onPointerUp={() => {
        const asked = drawn && areaOf(drawn);
        setDrawn(null);
        if (asked && asked.width > 7 && asked.height > 7) onArea(asked);
      }}
      onPointerCancel={() => setDrawn(null)}
    >
      <canvas
        ref={canvas}
        role="img"
        aria-label={`${file.name}, ${file.widthPx} × ${file.heightPx} pixels`}
        style={{ left, width: file.widthPx * scale, height: file.heightPx * scale }}
        className="pointer-events-none absolute top-0 max-w-none"
      />
      {shown && (
        <svg width={size.width} height={size.height} aria-hidden className="pointer-events-none absolute inset-0">
          {(['stroke-paper', 'stroke-within'] as const).map((look, i) => (
            <rect key={look} x={left + shown.x * scale} y={shown.y * scale} width={shown.width * scale} height={shown.height * scale} fill="none" className={look} strokeWidth={i === 0 ? 5 : 2} />
          ))}
        </svg>
      )}
    </div>
  );
} // prettier-ignore

const AREA = [['x', 'Left'], ['y', 'Top'], ['width', 'Width'], ['height', 'Height']] as const; // prettier-ignore

/** The box by figures, for those who do not drag. */
function AreaFields({ file, area, onArea }: { file: OpenedFile; area: Area | null; onArea: (area: Area) => void }) {
  const [texts, setTexts] = useState(() => AREA.map(([key]) => String((area ?? whole(file))[key])));
  const values = texts.map((text) => numberTyped(text) ?? NaN);
  const [x, y, width, height] = values as [number, number, number, number];
  const sound = values.every(Number.isInteger) && x >= 0 && y >= 0 && width > 7 && height > 7 && x + width <= file.widthPx && y + height <= file.heightPx;
  return (
    <form
      className="space-y-1 text-[13px]"
      onSubmit={(event) => {
        event.preventDefault();
        if (sound) onArea({ x, y, width, height });
      }}
    >
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {AREA.map(([key, label], i) => (
          <label key={key} className="flex items-center gap-1 text-quiet">
            {label}
            <input
              value={texts[i]}
              onChange={({ target }) => setTexts(texts.map((text, k) => (k === i ? target.value : text)))}
              className="figure min-h-8 w-14 border-b border-rule-strong bg-paper text-right text-ink pointer-coarse:min-h-11"
            />
          </label>
        ))}
        <Button type="submit" disabled={!sound}>Measure this box</Button>
      </div>
      {!sound && <p role="note" className="text-costs">Whole pixels inside {file.widthPx} × {file.heightPx}, 8 or more each way.</p>}
    </form>
  );
} // prettier-ignore

function MtfChart({ found }: { found: EdgeMeasured }) {
  const light = useAppSelector((state) => state.preferences.light);
  const [data, options] = useMemo(() => {
    const colour = coloursIn(light);
    const text = axisText(colour);
    const title = (words: string) => ({ display: true, text: words, ...text });
    const { mtf, mtf50CyPx } = found.figures!;
    const options: ChartOptions<'scatter'> = {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: {
        x: { min: 0, max: 0.5, title: title('cycles a pixel, across the edge'), ticks: text, grid: { display: false } },
        y: { min: 0, max: 1, title: title('contrast'), ticks: text, grid: { color: colour('--rule') }, border: { display: false } },
      },
    };
    const datasets = [
      { label: 'half', data: [{ x: mtf50CyPx, y: 0.5 }], pointRadius: 6, pointBackgroundColor: colour('--within'), pointBorderColor: colour('--paper') },
      { label: 'contrast', data: mtf.map(([x, y]) => ({ x, y })), showLine: true, pointRadius: 0, borderWidth: 2.5, borderColor: colour('--ink') },
    ];
    return [{ datasets }, options] as const;
  }, [found, light]);
  return (
    <div className="relative h-52 max-w-2xl">
      <Scatter data={data} options={options} role="img" aria-label={`Contrast by frequency; half at ${fixed(found.figures!.mtf50CyPx, 3)} cycles a pixel`} />
    </div>
  );
} // prettier-ignore
