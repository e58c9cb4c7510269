import { Chart, LinearScale, LineElement, LogarithmicScale, PointElement } from 'chart.js';
import type { ChartOptions } from 'chart.js';
import { useMemo, useState } from 'react';
import { Scatter } from 'react-chartjs-2';
import {
  distance,
  distanceMarks,
  drawCurve,
  drawRange,
  factorSaid,
  fixed,
  mm,
  ratioSaid,
  setDraw,
  timeDrawnTo,
  timeSaid,
  type DrawPoint,
  type Station,
  mostOf,
} from '@gangway/station';
import { Assumed } from '../station/assumed.js';
import { Page } from '../station/page.js';
import { axisText, coloursIn } from '../drawing/chart-look.js';
import { useAppSelector } from '../store/store.js';
import { Choosing } from '../ui/choosing.js';
import { LensChooser } from './lens-choice.js';
import { useLenses } from './use-lenses.js';

Chart.register(LinearScale, LogarithmicScale, LineElement, PointElement);

type Against = 'distance' | 'draw';

/** What drawing a lens out costs: the graph that studio cameras carry, for each lens on this camera. */
export function BellowsPage() {
  const { lenses, chosen, choose } = useLenses();
  const [against, setAgainst] = useState<Against>('distance');
  const { station } = chosen;
  const bellows = useMemo(() => drawCurve(station), [station]);
  const range = drawRange(station);
  const byDraw = bellows[0]!.drawMm !== null;
  return (
    <Page
      title="What drawing out costs"
      sharpness={false}
      about={
        <>
          Lens and back straight. The farther the lens stands from the film, the thinner its light:
          time goes with (1 + m / p)², m the magnification, p the pupil ratio.
          {!range.known && ' How close this lens focuses is not given; it is drawn to 1:4.'}{' '}
          <Assumed rests={['exposure']} of="the light" />
        </>
      }
    >
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 pb-3">
        <LensChooser {...{ lenses, chosen, choose }} />
        <Choosing
          label="Against"
          value={against}
          options={[
            ['distance', 'distance'],
            ['draw', byDraw ? 'draw of the bellows' : 'extension'],
          ]}
          onChoose={setAgainst}
        />
      </div>
      <div className="grid gap-6 xl:grid-cols-[minmax(0,1fr)_420px]">
        <Graph {...{ station, against }} points={bellows} name={chosen.name} />
        <DrawTable station={station} />
      </div>
    </Page>
  );
}

const xOf = (against: Against, { distanceM, drawMm, extensionMm }: DrawPoint): number | null =>
  against === 'distance' ? distanceM : (drawMm ?? extensionMm);

/** Farther than this the curve is flat, m. */
const FAR_M = 50;

function Graph({
  station,
  against,
  points,
  name,
}: {
  station: Station;
  against: Against;
  points: readonly DrawPoint[];
  name: string;
}) {
  const light = useAppSelector((state) => state.preferences.light);
  const units = useAppSelector((state) => state.preferences.units);
  const foot = units === 'feet' && against === 'distance' ? 0.3048 : 1;
  const set = useMemo(() => setDraw(station), [station]);
  const { tilt_deg, swing_deg, rear_tilt_deg = 0, rear_swing_deg = 0 } = station.movements;
  const leaned = [tilt_deg, swing_deg, rear_tilt_deg, rear_swing_deg].some((lean) => lean !== 0);
  const data = useMemo(() => {
    const colour = coloursIn(light);
    const at = (point: DrawPoint): { x: number; y: number }[] => {
      const x = xOf(against, point);
      return x === null || (against === 'distance' && x > FAR_M)
        ? []
        : [{ x: x / foot, y: point.stops }];
    };
    return {
      datasets: [
        {
          label: 'as it is focused',
          data: at(set),
          showLine: false,
          pointRadius: 7,
          pointBackgroundColor: colour('--within'),
          pointBorderColor: colour('--paper'),
        },
        {
          label: 'stops to add',
          data: points.flatMap(at),
          showLine: true,
          borderColor: colour('--ink'),
          borderWidth: 3,
          pointRadius: 0,
          tension: 0,
        },
      ],
    };
  }, [points, against, light, set, foot]);
  const options = useMemo((): ChartOptions<'scatter'> => {
    const colour = coloursIn(light);
    const text = axisText(colour);
    const grid = { color: colour('--rule') };
    const most = Math.max(1, Math.ceil(2 * mostOf(points.map(({ stops }) => stops))) / 2);
    const x = against === 'distance' ? 'logarithmic' : 'linear';
    return {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: {
        x: {
          type: x,
          title: {
            display: true,
            text:
              against === 'distance'
                ? `from the film or sensor, ${units === 'feet' ? 'ft' : 'm'}`
                : points[0]!.drawMm === null
                  ? 'extension, mm'
                  : 'draw, mm',
            ...text,
          },
          ticks: { ...text, maxTicksLimit: 10 },
          grid,
        },
        y: {
          min: 0,
          max: most,
          title: { display: true, text: 'stops to add', ...text },
          ticks: { ...text, stepSize: most > 3 ? 1 : 0.5 },
          grid,
        },
        time: {
          position: 'right',
          min: 0,
          max: most,
          title: { display: true, text: 'time ×', ...text },
          ticks: {
            ...text,
            stepSize: most > 3 ? 1 : 0.5,
            callback: (value) => factorSaid(Number(value)),
          },
          grid: { display: false },
        },
      },
    };
  }, [points, against, light, units]);
  const last = points.at(-1)!;
  return (
    <figure className="min-w-0">
      <div className="h-[clamp(14rem,calc(100dvh-31rem),22rem)]">
        <Scatter
          data={data}
          options={options}
          role="img"
          aria-label={`Stops to add for ${name} against ${against}, from ${fixed(points[0]!.stops, 1)} at the far end to ${fixed(last.stops, 1)} at ${ratioSaid(last.magnification)}. The table has the figures.`}
        />
      </div>
      <figcaption className="pt-1 text-[13px] text-quiet">
        The dot is this station as it is focused{leaned ? ', were its lens straight' : ''}:{' '}
        {fixed(set.stops, 2)} stops, {factorSaid(set.stops)}.
      </figcaption>
    </figure>
  );
}

/** Distances with what each asks. */
function DrawTable({ station }: { station: Station }) {
  const units = useAppSelector((state) => state.preferences.units);
  const points = useMemo(() => distanceMarks(station, units), [station, units]);
  const { exposure } = station;
  const seen = exposure?.meter?.through_lens === true;
  const times = useMemo(
    () => points.map(({ setting }) => (seen ? null : timeDrawnTo(station, setting))),
    [points, station, seen],
  );
  const timed = times.some((each) => each !== null);
  const draw = points.some(({ drawMm }) => drawMm !== null);
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-right">
        <caption className="sr-only">What each distance asks</caption>
        <thead>
          <tr className="text-[13px] text-quiet [&>th]:px-2 [&>th]:font-normal">
            <th className="text-left">Distance</th>
            <th>{draw ? 'draw mm' : 'extension mm'}</th>
            <th>ratio</th>
            <th>stops</th>
            <th>time ×</th>
            {timed && <th>time</th>}
          </tr>
        </thead>
        <tbody>
          {points.map((point, i) => (
            <tr key={point.setting} className="border-t border-rule [&>td]:px-2">
              <th className="figure py-1 pl-2 text-left">{distance(point.distanceM, units)}</th>
              <td className="figure">{fixed(point.drawMm ?? point.extensionMm, 1)}</td>
              <td className="figure">
                {point.magnification < 1e-4 ? '—' : ratioSaid(point.magnification)}
              </td>
              <td className="figure">{fixed(point.stops, 2)}</td>
              <td className="figure">{factorSaid(point.stops)}</td>
              {timed && (
                <td className="figure">
                  {times[i] === null || times[i] === undefined ? '—' : timeSaid(times[i])}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {points.length === 0 && (
        <p className="text-quiet">
          Closer than any round distance: {mm(drawCurve(station, 1)[1]!.extensionMm, 0)} of
          extension at most.
        </p>
      )}
    </div>
  );
}
