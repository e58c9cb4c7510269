import { CategoryScale, Chart, LinearScale, LineElement, PointElement, type ChartOptions } from 'chart.js'; // prettier-ignore
import { useMemo, useState } from 'react';
import { Scatter } from 'react-chartjs-2';
import { fixed, FLAT_PROBLEMS, frameAt, fStop, withFlat, withWords, type FlatAtStop } from '@gangway/station'; // prettier-ignore
import { axisText, coloursIn } from '../drawing/chart-look.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { CircleView } from './circle-view.js';
import { deskOf } from './desk.js';
import { FileFields } from './file-fields.js';
import { STOP_COLUMN, wrongWith, type Column } from './typed.js';
import type { PartProps } from './part-props.js';
import { KeepButton } from './keep-button.js';
import { Problems } from './problems.js';
import { benchOf } from './use-lens.js';

Chart.register(CategoryScale, LinearScale, LineElement, PointElement);

const movement = (field: string, label: string): Column => ({
  field,
  label,
  allowed: 'a length in mm, as 12 or −12',
  sound: (value) => Math.abs(value) <= 200,
  needed: true,
});

const COLUMNS = [STOP_COLUMN, movement('rise', 'Rise, mm'), movement('shift', 'Shift, mm')];

/** An evenly lit white, shifted to every side. */
export function FlatPart({ lens, desk, back, typed, told, keep }: PartProps) {
  const files = useMemo(() => desk.files ?? [], [desk.files]);
  const bench = useMemo(() => benchOf(lens, back), [lens, back]);
  const wrong = files.length === 0 ? 'None of these can be read.' : (files.map((file) => wrongWith(file, COLUMNS, typed)).find((each) => each !== null) ?? null);
  const found = desk.found.flat;
  const names = useMemo(() => files.map(({ name }) => name), [files]);
  const next = useMemo(
    () => found && withFlat(lens.document.measured, found, told(names)),
    [found, lens.document.measured, told, names],
  );
  const [chosen, setChosen] = useState<number | null>(null);
  const measure = (): void =>
    deskOf(lens.id, 'flat').measure({
      what: 'flat',
      shots: files.map(({ index, name, fNumber, widthPx, heightPx }) => {
        const upright = heightPx > widthPx;
        const station = { ...bench, back: { ...bench.back, orientation: upright ? ('portrait' as const) : ('landscape' as const) } };
        const at = frameAt(station, { riseMm: typed.of(name, 'rise')!, shiftMm: typed.of(name, 'shift')! });
        return { index, fNumber: fNumber ?? typed.of(name, 'stop')!, at };
      }),
    });
  const stops = found?.map(({ fNumber }) => fNumber) ?? [];
  const stop = chosen !== null && stops.includes(chosen) ? chosen : stops[0];
  const problems = new Set(found?.flatMap((each) => each.found.problems) ?? []);
  return (
    <div className="flex flex-1 flex-col lg:flex-row">
      <div className="min-w-0 flex-1 bg-stage px-5 py-4">
        {found && next && stop !== undefined ? (
          <div className="grid gap-6 md:h-[22rem] md:grid-cols-2">
            <CircleView
              given={bench}
              own={benchOf(lens, back, { ...next, use: true })}
              measured={next}
              {...{ stops, stop }}
              onStop={setChosen}
            />
            <FallChart found={found} />
          </div>
        ) : (
          <p className="max-w-[60ch] text-quiet">
            Tell rise and shift of every picture as the scales read: up and right are plus. The
            picture moves with the lens’s circle: one that was risen shows more of what is above.
          </p>
        )}
        {found && (
          <div className="overflow-x-auto">
            <FlatTable found={found} />
          </div>
        )}
      </div>
      <aside aria-label="The white" className="w-full shrink-0 space-y-4 border-l border-rule bg-paper px-5 py-4 lg:w-[400px]">
        <FileFields {...{ files, typed }} columns={COLUMNS} />
        {wrong && <p role="note" className="text-costs">{wrong}</p>}
        <div className="flex flex-wrap gap-2">
          <Button look={next ? 'plain' : 'strong'} disabled={wrong !== null || desk.doing !== null} onClick={measure}>
            {next ? 'Measure again' : 'Measure'}
          </Button>
          <KeepButton {...{ lens, keep, next }} of={found} what="its circle and how light falls off" />
        </div>
        <Problems of={withWords([...problems], FLAT_PROBLEMS)} />
      </aside>
    </div>
  );
} // prettier-ignore

const DASHES = [[], [7, 4], [2, 4], [10, 3, 2, 3]];
const TONES = ['--ink', '--within', '--costs', '--outside'];

/** How light falls from the middle outwards, at each stop. */
function FallChart({ found }: { found: readonly FlatAtStop[] }) {
  const light = useAppSelector((state) => state.preferences.light);
  const [data, options] = useMemo(() => {
    const colour = coloursIn(light);
    const text = axisText(colour);
    const title = (words: string) => ({ display: true, text: words, ...text });
    const options: ChartOptions<'scatter'> = {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: {
        x: { min: 0, title: title('mm from the middle of the circle'), ticks: text, grid: { display: false } },
        y: { min: 0, max: 5, reverse: true, title: title('stops darker'), ticks: text, grid: { color: colour('--rule') }, border: { display: false } },
      },
    };
    const datasets = found.map(({ fNumber, found: { points } }, i) => ({
      label: fStop(fNumber),
      data: points.map(({ radiusMm, stops }) => ({ x: radiusMm, y: stops })),
      showLine: true,
      pointRadius: 0,
      borderWidth: 2.5,
      borderColor: colour(TONES[i % TONES.length]!),
      borderDash: DASHES[i % DASHES.length]!,
    }));
    return [{ datasets }, options] as const;
  }, [found, light]);
  return (
    <figure className="flex min-h-72 flex-col">
      <figcaption className="flex flex-wrap gap-x-4 text-[13px] text-quiet">
        <span className="mr-auto">Light by the radius</span>
        {found.map(({ fNumber }, i) => (
          <span key={fNumber} className="flex items-center gap-1.5">
            <svg width={24} height={6} aria-hidden>
              <line
                x2={24}
                y1={3}
                y2={3}
                stroke={`var(${TONES[i % TONES.length]!})`}
                strokeWidth={2.5}
                strokeDasharray={DASHES[i % DASHES.length]!.join(' ')}
              />
            </svg>
            {fStop(fNumber)}
          </span>
        ))}
      </figcaption>
      <div className="relative min-h-0 flex-1">
        <Scatter data={data} options={options} role="img" aria-label="Light by the radius, at each stop" />
      </div>
    </figure>
  );
} // prettier-ignore

const figureOf = (mm: number | null | undefined): string => mm === null || mm === undefined ? 'not seen' : fixed(mm, 1); // prettier-ignore

const FlatTable = ({ found }: { found: readonly FlatAtStop[] }) => (
  <table className="mt-3 w-full max-w-2xl text-right">
    <caption className="sr-only">Light and circle by stop</caption>
    <thead className="text-[13px] text-quiet">
      <tr>
        {['Stop', '−1 stop at', '−2 at', '−3 at', 'circle ends, across', 'uneven by'].map((name, i) => (
          <th key={name} className={`font-normal ${i === 0 ? 'text-left' : ''}`}>
            {name}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {found.map(({ fNumber, found: { radiusMmAt, circleMm, slopeStops } }) => (
        <tr key={fNumber} className="border-t border-rule">
          <th className="figure py-1 text-left">{fStop(fNumber)}</th>
          {([1, 2, 3] as const).map((stops) => (
            <td key={stops}>
              {figureOf(radiusMmAt[stops])} <span className="text-[12px] text-quiet">mm</span>
            </td>
          ))}
          <td>
            <span className="figure">{circleMm === null ? 'not reached' : fixed(circleMm, 1)}</span>{' '}
            <span className="text-[12px] text-quiet">mm</span>
          </td>
          <td className="text-quiet">{slopeStops === null ? '' : `${fixed(slopeStops, 1)} stops`}</td>
        </tr>
      ))}
    </tbody>
  </table>
); // prettier-ignore
