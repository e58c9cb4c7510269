import { CategoryScale, Chart, LinearScale, LineElement, PointElement, type ChartOptions } from 'chart.js'; // prettier-ignore
import { useMemo } from 'react';
import { Line as LineChart } from 'react-chartjs-2';
import { fixed, fStop, LENS_ZONES, type LensZone } from '@gangway/station';
import { axisText, coloursIn } from '../drawing/chart-look.js';
import { useAppSelector } from '../store/store.js';
import type { DetailLines } from './detail-lines.js';

Chart.register(CategoryScale, LinearScale, LineElement, PointElement);

const LOOKS: Readonly<Record<LensZone, { readonly tone: string; readonly dash: number[]; readonly text: string }>> = {
  centre: { tone: '--within', dash: [], text: 'text-within' },
  edge: { tone: '--ink', dash: [7, 4], text: 'text-ink' },
  corner: { tone: '--costs', dash: [2, 4], text: 'text-costs' },
}; // prettier-ignore

/** How much each stop keeps, in the middle, at the edges and in the corners. */
export function DetailChart({ lines, most }: { lines: DetailLines; most?: number }) {
  const light = useAppSelector((state) => state.preferences.light);
  const zones = LENS_ZONES.filter((zone) => lines.zones[zone].some((value) => value !== null));
  const data = useMemo(() => {
    const colour = coloursIn(light);
    return {
      labels: lines.stops.map(fStop),
      datasets: zones.map((zone) => ({
        label: zone,
        data: [...lines.zones[zone]],
        borderColor: colour(LOOKS[zone].tone),
        backgroundColor: colour(LOOKS[zone].tone),
        borderDash: LOOKS[zone].dash,
        borderWidth: 2.5,
        pointRadius: 3.5,
        tension: 0,
        spanGaps: true,
      })),
    };
  }, [lines, light, zones]);
  const options = useMemo((): ChartOptions<'line'> => {
    const colour = coloursIn(light);
    const text = axisText(colour);
    const grid = { color: colour('--rule') };
    return {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      layout: { padding: { top: 6, right: 10 } },
      scales: {
        x: { ticks: { ...text, color: colour('--ink') }, grid: { display: false } },
        y: { beginAtZero: true, ...(most === undefined ? {} : { max: most }), ticks: text, grid, border: { display: false } },
      },
    };
  }, [light, most]); // prettier-ignore
  return (
    <figure className="flex min-w-0 flex-col">
      <figcaption className="flex flex-wrap items-center gap-x-4 text-[13px] text-quiet">
        <span className="mr-auto">{lines.title}</span>
        {zones.map((zone) => (
          <span key={zone} className={`flex items-center gap-1.5 ${LOOKS[zone].text}`}>
            <svg width={24} height={6} aria-hidden>
              <line
                x2={24}
                y1={3}
                y2={3}
                stroke="currentColor"
                strokeWidth={2.5}
                strokeDasharray={LOOKS[zone].dash.join(' ')}
              />
            </svg>
            {zone}
          </span>
        ))}
      </figcaption>
      <div className="relative min-h-52 flex-1">
        <LineChart data={data} options={options} role="img" aria-label={lines.title} />
      </div>
      {lines.best !== null && (
        <p className="text-[13px] text-quiet">
          Best all over: <span className="figure text-ink">{fStop(lines.best)}</span>
        </p>
      )}
      <table className="sr-only">
        <caption>{lines.title}</caption>
        <thead>
          <tr>
            <th>Stop</th>
            {zones.map((zone) => (
              <th key={zone}>{zone}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.stops.map((stop, i) => (
            <tr key={stop}>
              <th>{fStop(stop)}</th>
              {zones.map((zone) => (
                <td key={zone}>{valueSaid(lines.zones[zone][i] ?? null, lines.unit)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}

const valueSaid = (value: number | null, unit: string): string =>
  value === null ? 'not measured' : `${fixed(value, 0)} ${unit}`;
