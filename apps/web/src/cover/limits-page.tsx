import { useMemo, useState } from 'react';
import Papa from 'papaparse';
import {
  distance,
  atMost,
  fixed,
  fStop,
  limitsLines,
  limitsTable,
  type StopLimits,
} from '@gangway/station';
import { limitsStrip, sheetSvg, type Sheet } from '@gangway/paper';
import { saveFile } from '../browser/save-file.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedRing } from '../ui/assumed-ring.js';
import { Button } from '../ui/button.js';

const SIDES = [
  ['up', 'up'],
  ['down', 'down'],
  ['left', 'left'],
  ['right', 'right'],
] as const;

const FAILED =
  'The PDF could not be made here. Save the SVG and print that; it is as true to scale.';

/** How far the movements go at each stop, to read, to keep, and to tape on the gear. */
export function LimitsPage() {
  const station = useAppSelector(selectStation);
  const units = useAppSelector((state) => state.preferences.units);
  const table = useMemo(() => limitsTable(station), [station]);
  const strip = useMemo(() => limitsStrip(station, table), [station, table]);
  const svg = useMemo(() => sheetSvg(strip), [strip]);
  const [told, setTold] = useState<string | null>(null);
  const name = `${station.lens.name ?? 'lens'} limits`.replace(/[^\w .-]+/g, ' ').trim();

  const savePdf = async (): Promise<void> => {
    try {
      setTold(null);
      const { stripPdf } = await import('./strip-pdf.js');
      const { bytes, missing } = await stripPdf(strip);
      saveFile(`${name}.pdf`, bytes, 'application/pdf');
      if (missing !== '')
        setTold(`The PDF’s typeface has no ${[...missing].join(' ')}; the SVG has.`);
    } catch {
      setTold(FAILED);
    }
  };

  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper px-5 py-4">
      <div className="flex flex-wrap items-end justify-between gap-4 pb-3">
        <div>
          <h1 className="text-[18px] font-semibold">
            {station.lens.name ?? `${station.lens.focal_length_mm} mm`}, how far it moves
          </h1>
          <p className="text-quiet">
            One movement at a time, lens straight, focused at{' '}
            {table.focusM === null ? 'infinity' : distance(table.focusM, units)}, millimetres from
            zero. Nearer the circle is larger.
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          <Button
            onClick={() =>
              saveFile(
                `${name}.csv`,
                Papa.unparse(limitsLines(table), { newline: '\r\n' }) + '\r\n',
                'text/csv',
              )
            }
          >
            Table (CSV)
          </Button>
          <Button onClick={() => saveFile(`${name}.svg`, svg, 'image/svg+xml')}>Strip (SVG)</Button>
          <Button look="strong" onClick={() => void savePdf()}>
            Strip (PDF)
          </Button>
        </div>
      </div>
      {told !== null && (
        <p role="alert" className="pb-3 text-outside">
          {told}
        </p>
      )}
      <div className="grid gap-8 xl:grid-cols-[auto_1fr]">
        <table className="h-fit text-right">
          <thead>
            <tr className="text-[13px] text-quiet">
              <th />
              <th className="px-3 font-normal">circle</th>
              <th colSpan={4} className="border-l border-rule px-3 text-center font-normal">
                back level
              </th>
              <th colSpan={4} className="border-l border-rule px-3 text-center font-normal">
                back upright
              </th>
            </tr>
            <tr className="text-[13px] text-quiet">
              <th className="pr-4 text-left font-normal">Stop</th>
              <th className="px-3 font-normal">mm</th>
              {[0, 1].map((way) =>
                SIDES.map(([side, label]) => (
                  <th
                    key={`${way}${side}`}
                    className={`px-3 font-normal ${side === 'up' ? 'border-l border-rule' : ''}`}
                  >
                    {label}
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody>
            {table.rows.map((row) => (
              <tr key={row.fNumber} className="border-t border-rule">
                <th className="figure py-1 pr-4 text-left">{fStop(row.fNumber)}</th>
                <td className="px-3 whitespace-nowrap">
                  {fixed(row.circleMm, 1)}
                  <span className="inline-block w-4 text-center text-costs">
                    {!row.given && (
                      <>
                        <AssumedRing />
                        <span className="sr-only">assumed</span>
                      </>
                    )}
                  </span>
                </td>
                <Cells of={row.level} />
                <Cells of={row.upright} />
              </tr>
            ))}
          </tbody>
        </table>
        <figure>
          {table.rows.some(({ given }) => !given) && (
            <p className="flex items-baseline gap-2 pb-2 text-quiet">
              <span className="text-costs">
                <AssumedRing />
              </span>
              The circle is not given at this stop: that of the nearest one that is stands in. Enter
              it in the kit where the maker tells it.
            </p>
          )}
          <figcaption className="pb-2 text-quiet">
            The strip: print at 100 %, measure its proof line, cut out and tape on.
          </figcaption>
          <StripDrawing sheet={strip} />
        </figure>
      </div>
    </div>
  );
}

function Cells({ of }: { of: StopLimits }) {
  return SIDES.map(([side]) => {
    const { mm, by } = of[side];
    return (
      <td key={side} className={`px-3 ${side === 'up' ? 'border-l border-rule' : ''}`}>
        {mm === null ? (
          <span className="text-[13px] text-outside">no</span>
        ) : (
          <>
            <span className="figure">{Number.isFinite(mm) ? fixed(atMost(mm, 1), 1) : '∞'}</span>
            {by === 'mechanism' && (
              <span className="narrow ml-1 text-[11px] text-quiet">mech.</span>
            )}
          </>
        )}
      </td>
    );
  });
}

/** The strip as it will be printed, fitted to the screen. */
function StripDrawing({ sheet }: { sheet: Sheet }) {
  return (
    <svg
      viewBox={`0 0 ${sheet.widthMm} ${sheet.heightMm}`}
      role="img"
      aria-label="Strip with a line for each stop, as long as the movement goes"
      className="w-full max-w-2xl border border-rule bg-white text-black"
    >
      <g stroke="currentColor">
        {sheet.lines.map(({ strokeMm, ...ends }, i) => (
          <line key={i} {...ends} strokeWidth={strokeMm} />
        ))}
      </g>
      {sheet.texts.map(({ x, y, text, sizeMm, anchor }, i) => (
        <text key={i} x={x} y={y} fontSize={sizeMm} textAnchor={anchor}>
          {text}
        </text>
      ))}
    </svg>
  );
}
