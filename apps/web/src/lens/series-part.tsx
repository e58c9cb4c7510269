import { useMemo } from 'react';
import { lensFacts, SERIES_PROBLEMS, withSeries, withWords, mostOf } from '@gangway/station';
import { Button } from '../ui/button.js';
import { deskOf } from './desk.js';
import { DetailChart } from './detail-chart.js';
import { detailLines } from './detail-lines.js';
import { FileFields } from './file-fields.js';
import { STOP_COLUMN, wrongWith, type Column, type Typed } from './typed.js';
import { Facts } from './facts.js';
import type { OpenedFile } from './messages.js';
import type { PartProps } from './part-props.js';
import { KeepButton } from './keep-button.js';
import { Problems } from './problems.js';
import { Spots, type Spot } from './spots.js';

const FOCUS_COLUMN: Column = {
  field: 'focus',
  label: 'Focused nearer by, mm behind the lens',
  allowed: 'a length in mm, as −0.1 or 0.1',
  sound: (value) => Math.abs(value) <= 50,
  needed: false,
};

/** Why the series cannot be measured yet; null when it can. */
function wrongWithAll(
  files: readonly OpenedFile[],
  columns: readonly Column[],
  typed: Typed,
): string | null {
  if (files.length < 2) return 'Give two pictures or more, one at each stop.';
  const sizes = [...new Set(files.map(({ widthPx, heightPx }) => `${widthPx} × ${heightPx}`))];
  if (sizes.length > 1) return `The pictures differ in size: ${sizes.join(', ')} pixels. Leave out those that do not belong.`; // prettier-ignore
  return files.map((file) => wrongWith(file, columns, typed)).find((each) => each !== null) ?? null;
}

/** The same scene at every stop. */
export function SeriesPart({ lens, desk, back, typed, told, keep }: PartProps) {
  const files = useMemo(() => desk.files ?? [], [desk.files]);
  const stopOf = (name: string, own: number | null): number | null => own ?? typed.of(name, 'stop');
  const spots = useMemo(
    () =>
      files
        .flatMap((file): Spot[] => {
          const fNumber = file.fNumber ?? typed.of(file.name, 'stop');
          return fNumber === null || Number.isNaN(fNumber) ? [] : [{ lens: lens.id, file, fNumber }];
        })
        .sort((a, b) => a.fNumber - b.fNumber),
    [files, typed, lens.id],
  );
  const stops = new Set(spots.map(({ fNumber }) => fNumber));
  // Several pictures of a stop are a series at several focus settings.
  const columns = stops.size < spots.length ? [STOP_COLUMN, FOCUS_COLUMN] : [STOP_COLUMN];
  const wrong = wrongWithAll(files, columns, typed);
  const widthMm = back?.document.width_mm ?? 36;
  const halfDiagonalMm = Math.hypot(widthMm, back?.document.height_mm ?? 24) / 2;
  const found = desk.found.series;
  const next = useMemo(
    () => found && withSeries(lens.document.measured, found, halfDiagonalMm, told(files.map(({ name }) => name))),
    [found, lens.document.measured, halfDiagonalMm, told, files],
  );
  const measure = (): void =>
    deskOf(lens.id, 'series').measure({
      what: 'series',
      shots: files.map(({ index, name, fNumber }) => ({ index, fNumber: stopOf(name, fNumber)!, focusMm: typed.of(name, 'focus') ?? 0 })),
      pitchMm: widthMm / mostOf(files.map(({ widthPx, heightPx }) => Math.max(widthPx, heightPx))),
    });
  const { sharpness: _, ...onlyDetail } = next ?? {};
  const lines = next ? detailLines(onlyDetail) : null;
  return (
    <div className="flex flex-1 flex-col lg:flex-row">
      <div className="min-w-0 flex-1 space-y-4 bg-stage px-5 py-4">
        {lines && (
          <div className="flex h-80 flex-col">
            <DetailChart lines={lines} />
          </div>
        )}
        {next && <Facts of={lensFacts(onlyDetail)} />}
        {spots.length > 0 && <Spots spots={spots} />}
      </div>
      <aside aria-label="The series" className="w-full shrink-0 space-y-4 border-l border-rule bg-paper px-5 py-4 lg:w-[352px]">
        <FileFields {...{ files, columns, typed }} />
        {wrong && <p role="note" className="text-costs">{wrong}</p>}
        <div className="flex flex-wrap gap-2">
          <Button look={next ? 'plain' : 'strong'} disabled={wrong !== null || desk.doing !== null} onClick={measure}>
            {next ? 'Measure again' : 'Measure'}
          </Button>
          <KeepButton {...{ lens, keep, next }} of={found} what="which stop keeps most" />
        </div>
        {found && <Problems of={withWords(found.problems, SERIES_PROBLEMS)} />}
        {found && found.leftOut > 0 && (
          <p className="text-[13px] text-quiet">
            {found.leftOut} places were left out: nothing fine to see, or out of the depth of field.
          </p>
        )}
      </aside>
    </div>
  );
} // prettier-ignore
