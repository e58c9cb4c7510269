import { useMemo } from 'react';
import Papa from 'papaparse';
import {
  guardedLines,
  distance,
  atMost,
  circleMeasured,
  fixed,
  fStop,
  limitsLines,
  limitsTable,
  clickWords,
  type LimitsTable,
  type StopLimits,
} from '@gangway/station';
import * as z from 'zod';
import { limitsStrip, PAPERS, sheetSvg, type Paper } from '@gangway/paper';
import { useKept } from '../browser/use-kept.js';
import { fileName, PaperChoice, Told, useSavePdf } from '../files/paper-choice.js';
import { saveFile } from '../browser/save-file.js';
import { SheetView } from '../drawing/sheet-view.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedRing } from '../ui/assumed-ring.js';
import { MeasuredRing } from '../ui/measured-ring.js';
import { Button } from '../ui/button.js';

const SIDES = [
  ['up', 'up'],
  ['down', 'down'],
  ['left', 'left'],
  ['right', 'right'],
] as const;

const paperShape = z.enum(Object.keys(PAPERS) as [Paper, ...Paper[]]);

const FAILED =
  'The PDF could not be made here. Save the SVG and print that; it is as true to scale.';

/** How far the movements go at each stop, to read, to keep, and to tape on the gear. */
export function LimitsPage() {
  const station = useAppSelector(selectStation);
  const units = useAppSelector((state) => state.preferences.units);
  const table = useMemo(() => limitsTable(station), [station]);
  const [paper, setPaper] = useKept<Paper>('paper', paperShape, units === 'feet' ? 'Letter' : 'A4');
  const strip = useMemo(() => limitsStrip(station, paper, table), [station, paper, table]);
  const { save, told } = useSavePdf(FAILED);
  const name = fileName(`${station.lens.name ?? 'lens'} limits`);

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
                Papa.unparse(guardedLines(limitsLines(table)), { newline: '\r\n' }) + '\r\n',
                'text/csv',
              )
            }
          >
            Table (CSV)
          </Button>
          <PaperChoice papers={PAPERS} value={paper} onChoose={setPaper} />
          <Button
            onClick={() =>
              strip.forEach((sheet, i) =>
                saveFile(
                  `${name}${strip.length > 1 ? `, page ${i + 1}` : ''}.svg`,
                  sheetSvg(sheet),
                  'image/svg+xml',
                ),
              )
            }
          >
            Strip (SVG)
          </Button>
          <Button look="strong" onClick={() => void save(() => strip, name)}>
            Strip (PDF)
          </Button>
        </div>
      </div>
      <Told said={told} />
      <div className="grid gap-8 xl:grid-cols-[auto_1fr] [&>figure]:xl:col-start-2 [&>figure]:xl:row-span-2 [&>figure]:xl:row-start-1">
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
                  <span
                    className={`inline-block w-4 text-center ${circleMeasured(station.lens, row.fNumber) ? 'text-within' : 'text-costs'}`}
                  >
                    {circleMeasured(station.lens, row.fNumber) && (
                      <>
                        <MeasuredRing />
                        <span className="sr-only">measured</span>
                      </>
                    )}
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
        {table.clicks.length > 0 && <Clicks table={table} />}
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
            The strip, {strip.length === 1 ? 'one page' : `${strip.length} pages`} of {paper}: print
            at 100 %, measure its proof line, cut out and tape on.
          </figcaption>
          <div className="space-y-4">
            {strip.map((sheet, i) => (
              <SheetView
                key={i}
                sheet={sheet}
                label={`Strip with a line for each stop, as long as the movement goes, page ${i + 1} of ${strip.length}`}
                className="w-full max-w-2xl border border-rule"
              />
            ))}
          </div>
        </figure>
      </div>
    </div>
  );
}

/** How far it shifts at each of the stops of its turning. */
function Clicks({ table }: { table: LimitsTable }) {
  return (
    <table className="h-fit text-right">
      <caption className="pb-1 text-left text-[13px] font-semibold text-quiet">
        At each stop of its turning, clockwise as seen from behind
      </caption>
      <thead>
        <tr className="text-[13px] text-quiet [&>th]:font-normal">
          <th className="pr-4 text-left">Turned to</th>
          {table.rows.map((row) => (
            <th key={row.fNumber} className="px-3">
              {fStop(row.fNumber)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {table.clicks.flatMap((click) =>
          WAYS.map((way) => (
            <tr key={`${clickWords(click)} ${way}`} className="border-t border-rule">
              <th className="py-1 pr-4 text-left font-normal">
                <span className="figure">{clickWords(click)}</span>{' '}
                <span className="text-[13px] text-quiet">back {way}</span>
              </th>
              {click.rows.map((row, i) => (
                <LimitCell key={i} limit={row[way]} />
              ))}
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}

const WAYS = ['level', 'upright'] as const;

const Cells = ({ of }: { of: StopLimits }) =>
  SIDES.map(([side]) => (
    <LimitCell
      key={side}
      limit={of[side]}
      className={side === 'up' ? 'border-l border-rule' : ''}
    />
  ));

const LimitCell = ({
  limit: { mm, by },
  className = '',
}: {
  limit: StopLimits['up'];
  className?: string;
}) => (
  <td className={`px-3 ${className}`}>
    {mm === null ? (
      <span className="text-[13px] text-outside">no</span>
    ) : (
      <>
        <span className="figure">{Number.isFinite(mm) ? fixed(atMost(mm, 1), 1) : '∞'}</span>
        {by === 'mechanism' && <span className="narrow ml-1 text-[11px] text-quiet">mech.</span>}
      </>
    )}
  </td>
);
