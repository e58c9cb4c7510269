import {
  CategoryScale,
  Chart,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  type ChartOptions,
} from 'chart.js';
import { useMemo } from 'react';
import { Line as LineChart } from 'react-chartjs-2';
import {
  backCocUm,
  DIFFRACTION_REASONS,
  DIFFRACTION_WORDS,
  diffractionRuns,
  judgedByPixels,
  measurementsOf,
  fixed,
  fStop,
  stopTable,
  type Station,
  type StopLine,
  type StopTable,
} from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { usePaced } from '../ui/use-paced.js';
import { SharpnessFields } from '../station/sharpness-fields.js';
import { Why } from '../station/why.js';
import { Page } from '../station/page.js';

Chart.register(CategoryScale, LinearScale, LogarithmicScale, LineElement, PointElement);

const READ_MS = 90;

/** Every stop of the lens: what holds, what blurs, what diffraction takes, what the circle covers. */
export function StopPage() {
  const station = usePaced(useAppSelector(selectStation), READ_MS);
  const table = useMemo(() => stopTable(station), [station]);
  const { sharpMarks } = table;
  // With its own sharpness it is in it.
  const measured = measurementsOf(station).some(({ rests }) => rests.includes('stop'));
  return (
    <Page
      title={bestTitle(table)}
      sharpness={false}
      about={
        <>
          {table.why} {measured ? '' : 'What the lens itself loses wide open is not in it. '}
          <Why reason="bestStop" of="the best stop" />
        </>
      }
    >
      <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_300px]">
        <div className="min-w-0">
          {sharpMarks > 0 && <SpotChart {...{ station, table }} />}
          <StopLines {...{ station, table }} />
        </div>
        <div className="space-y-4">
          <SharpnessFields />
          <Diffraction table={table} station={station} />
        </div>
      </div>
    </Page>
  );
}

/** “f/11 is best; f/8 to f/13 hold”. */
function bestTitle({ best, serves }: StopTable): string {
  if (!best) return 'Which stop';
  const span =
    serves && serves[0] < serves[1] ? `; ${fStop(serves[0])} to ${fStop(serves[1])} hold` : '';
  return `${fStop(best.fNumber)} is best${span}`;
}

function Diffraction({ table, station }: { table: StopTable; station: Station }) {
  const by = judgedByPixels(station.back) ? 'pixels' : 'standard';
  return (
    <section>
      <h2 className="mb-1 text-[15px] font-semibold">Diffraction on this back</h2>
      <dl>
        {diffractionRuns(table.lines).map(({ kind, from, to }) => (
          <div key={kind} className="border-t border-rule py-1.5">
            <dt className="flex justify-between gap-3">
              <span className="figure">
                {fStop(from)}
                {to > from && ` to ${fStop(to)}`}
              </span>
              <span className={kind === 'none' ? '' : 'text-costs'}>{DIFFRACTION_WORDS[kind]}</span>
            </dt>
            <dd className="text-[13px] text-quiet">{DIFFRACTION_REASONS[by][kind]}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-[13px] text-quiet">
        {by === 'pixels'
          ? 'Told by where its cut-off, 1 over wavelength times f-number, meets what the pixels can hold.'
          : 'Told by the Airy disc against what counts as sharp; with the back’s pixels it is told by those.'}
      </p>
    </section>
  );
}

/** A colour of the light that is on. */
const colourOf =
  (_light: string) =>
  (name: string): string =>
    getComputedStyle(document.documentElement).getPropertyValue(name);

/** Blur falls and the Airy disc grows as the lens stops down; where they cross is best. */
function SpotChart({ station, table }: { station: Station; table: StopTable }) {
  const light = useAppSelector((state) => state.preferences.light);
  const cocUm = backCocUm(station);
  const { lines, best } = table;
  const data = useMemo(() => {
    const colour = colourOf(light);
    const series = (
      label: string,
      of: (line: StopLine) => number | null,
      tone: string,
      dash: number[],
      width: number,
    ) => ({
      label,
      data: lines.map(of),
      borderColor: colour(tone),
      backgroundColor: colour(tone),
      borderWidth: width,
      borderDash: dash,
      pointRadius: lines.map((line) => (width > 2 && line === best ? 6 : 0)),
      pointHoverRadius: 5,
      tension: 0.25,
    });
    return {
      labels: lines.map(({ fNumber }) => fStop(fNumber)),
      datasets: [
        series('spot of the worst mark', ({ spotUm }) => spotUm, '--within', [], 3),
        series('blur', ({ worstBlurUm }) => worstBlurUm, '--ink', [6, 4], 1.5),
        series('Airy disc', ({ airyUm }) => airyUm, '--costs', [2, 3], 2),
        series('what counts as sharp', () => cocUm, '--quiet', [1, 5], 1.5),
      ],
    };
  }, [lines, best, cocUm, light]);
  const options = useMemo((): ChartOptions<'line'> => {
    const colour = colourOf(light);
    const text = { color: colour('--quiet'), font: { family: 'Archivo Variable', size: 12 } };
    const most = 10 * Math.ceil(Math.max(cocUm, best?.spotUm ?? 0) * 0.3);
    return {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: {
        x: { ticks: text, grid: { color: colour('--rule') } },
        y: {
          type: 'linear',
          min: 0,
          max: most,
          title: { display: true, text: 'µm on the back', ...text },
          ticks: text,
          grid: { color: colour('--rule') },
        },
      },
    };
  }, [cocUm, best, light]);
  return (
    <figure className="mb-4">
      <div className="h-56">
        <LineChart
          data={data}
          options={options}
          role="img"
          aria-label={`Blur, Airy disc and both together at each stop; least at ${best ? fStop(best.fNumber) : 'none'}. The table has the figures.`}
        />
      </div>
      <figcaption className="flex flex-wrap gap-x-5 pt-1 text-[13px]">
        <Key tone="text-within" dash="none" width={3}>
          both together, worst mark
        </Key>
        <Key tone="text-ink" dash="6 4" width={1.5}>
          blur
        </Key>
        <Key tone="text-costs" dash="2 3" width={2}>
          Airy disc
        </Key>
        <Key tone="text-quiet" dash="1 5" width={1.5}>
          what counts as sharp
        </Key>
      </figcaption>
    </figure>
  );
}

function Key({
  tone,
  dash,
  width,
  children,
}: {
  tone: string;
  dash: string;
  width: number;
  children: string;
}) {
  return (
    <span className="flex items-center gap-1.5">
      <svg width={26} height={6} aria-hidden className={tone}>
        <line
          x2={26}
          y1={3}
          y2={3}
          stroke="currentColor"
          strokeWidth={width}
          strokeDasharray={dash}
        />
      </svg>
      {children}
    </span>
  );
}

const STATE_WORDS = {
  sharp: 'covers',
  soft: 'covers, corner soft',
  outside: 'corner out',
  ring: 'ring cuts',
};

function StopLines({ station, table }: { station: Station; table: StopTable }) {
  const { change } = useEditing();
  const print = table.lines.some(({ spotOnPrintMm }) => spotOnPrintMm !== null);
  const pixels = table.lines.some(({ spotPixels }) => spotPixels !== null);
  const marks = table.sharpMarks > 0;
  const um = (value: number | null): string =>
    value === null ? '∞' : fixed(value, value < 10 ? 1 : 0);
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-right">
        <caption className="sr-only">Each stop of the lens</caption>
        <thead>
          <tr className="align-bottom text-[13px] text-quiet [&>th]:px-2 [&>th]:font-normal">
            <th className="text-left">Stop</th>
            {marks && <th>holds</th>}
            {marks && <th>worst blur µm</th>}
            <th>acts as</th>
            <th>Airy µm</th>
            {marks && <th>together µm</th>}
            {marks && pixels && <th>pixels</th>}
            {marks && print && <th>on the print mm</th>}
            <th className="text-left">diffraction</th>
            <th className="text-left">circle</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {table.lines.map((line) => {
            const isBest = line === table.best;
            const set = fStop(station.aperture) === fStop(line.fNumber);
            return (
              <tr
                key={line.fNumber}
                className={`border-t border-rule [&>td]:px-2 ${isBest ? 'bg-within/12' : ''}`}
              >
                <th className="figure py-1 pl-2 text-left">
                  {fStop(line.fNumber)}
                  {isBest && <span className="ml-2 text-[13px] text-within">best</span>}
                </th>
                {marks && (
                  <td
                    className={`whitespace-nowrap ${line.holds === table.sharpMarks ? 'text-within' : 'text-outside'}`}
                  >
                    <span className="figure">{line.holds}</span> of {table.sharpMarks}
                  </td>
                )}
                {marks && <td className="figure">{um(line.worstBlurUm)}</td>}
                <td className="figure">f/{fixed(line.effective, line.effective < 10 ? 1 : 0)}</td>
                <td className="figure">{um(line.airyUm)}</td>
                {marks && <td className="figure">{um(line.spotUm)}</td>}
                {marks && pixels && (
                  <td className="figure">
                    {line.spotPixels === null ? '∞' : fixed(line.spotPixels, 1)}
                  </td>
                )}
                {marks && print && (
                  <td className="figure">
                    {line.spotOnPrintMm === null ? '∞' : fixed(line.spotOnPrintMm, 2)}
                  </td>
                )}
                <td className="text-left text-[13px] text-costs">
                  {line.diffraction === 'none' ? '' : DIFFRACTION_WORDS[line.diffraction]}
                </td>
                <td
                  className={`text-left text-[13px] ${line.state === 'outside' || line.state === 'ring' ? 'text-outside' : 'text-quiet'}`}
                >
                  {STATE_WORDS[line.state]}
                </td>
                <td>
                  {set ? (
                    <span className="text-[13px] text-quiet">set</span>
                  ) : (
                    <Button
                      look="quiet"
                      className="min-h-7 px-1"
                      aria-label={`Set ${fStop(line.fNumber)}`}
                      onClick={() =>
                        change('Set aperture', '/aperture', (now) => ({
                          ...now,
                          aperture: line.fNumber,
                        }))
                      }
                    >
                      Set
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
