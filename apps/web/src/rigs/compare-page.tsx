import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import {
  assumedFor,
  fieldAt,
  figuresOf,
  formatNamed,
  isWhole,
  trimmed,
  MATCHED_SIDES,
  type MatchedSide,
  type RigFigures,
  mostOf,
} from '@gangway/station';
import * as z from 'zod';
import { useSoundRigs } from '../records/sound-kit.js';
import { useAppSelector } from '../store/store.js';
import { PageTop } from '../pages/page-top.js';
import { useKept } from '../browser/use-kept.js';
import { Unopened } from '../records/states.js';
import { Drawn } from '../drawing/drawn.js';
import { sheetAt } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';
import { AssumedMark } from '../ui/assumed-mark.js';
import { Word } from '../words/word.js';
import { rigRows, type RigRow } from './rig-rows.js';
import { FormatSelect } from './format-choice.js';
import { SideChoice } from './side-choice.js';

const MOST = 5;
/** Told apart by the stroke, not by colour alone. */
const DASHES = ['', '9 4', '2 4', '12 4 2 4', '5 2'] as const;

export function ComparePage() {
  const [params, setParams] = useSearchParams();
  const ids = (params.get('rigs') ?? '').split(',').filter(Boolean).slice(0, MOST);
  const { data, error } = useSoundRigs();
  const [side, setSide] = useKept<MatchedSide>('compare.side', z.enum(MATCHED_SIDES), 'diagonal');
  const [reference, setReference] = useKept('compare.reference', z.string(), '24 × 36 mm');
  const [distanceM, setDistanceM] = useKept('compare.distance', z.number(), 10);
  const whole = useMemo(
    () =>
      (data ?? []).flatMap(({ id, document }) =>
        isWhole(document) ? [{ id, rig: document }] : [],
      ),
    [data],
  );
  if (!data) return <Unopened error={error} />;
  const chosen = ids.flatMap((id) => whole.filter((each) => each.id === id));
  const format = formatNamed(reference);
  const sides = { widthMm: format.width_mm, heightMm: format.height_mm };
  const columns = chosen.map(({ id, rig }) => ({ id, figures: figuresOf(rig, side, sides) }));
  const put = (next: readonly string[]): void =>
    setParams(next.length > 0 ? { rigs: next.join(',') } : {});

  return (
    <>
      <PageTop />
      <main className="mx-auto max-w-6xl px-5 py-6">
        <h1 className="mb-3 text-2xl font-semibold">Compare rigs</h1>
        <div className="mb-4 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <FormatSelect
            label="Equivalents on"
            labelClassName="flex items-baseline gap-2 text-quiet"
            value={reference}
            onChange={setReference}
            className="min-h-9 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11"
          />
          <SideChoice value={side} onChange={setSide} />
          <label className="flex items-baseline gap-2 text-quiet">
            Add
            <select
              value=""
              disabled={chosen.length >= MOST}
              onChange={(event) => put([...chosen.map(({ id }) => id), event.target.value])}
              className="min-h-9 max-w-60 border-b border-rule bg-page font-medium text-ink pointer-coarse:min-h-11"
            >
              <option value="">{chosen.length >= MOST ? 'five is the most' : 'another rig'}</option>
              {whole
                .filter(({ id }) => !chosen.some((each) => each.id === id))
                .map(({ id, rig }) => (
                  <option key={id} value={id}>
                    {rig.name}
                  </option>
                ))}
            </select>
          </label>
        </div>
        {chosen.length < 2 && (
          <p className="mb-4 text-quiet">Choose two to five rigs to see them side by side.</p>
        )}
        {columns.length > 0 && (
          <>
            <CompareTable
              columns={columns}
              reference={`${format.name}, by ${side}`}
              onRemove={(id) => put(chosen.map((each) => each.id).filter((each) => each !== id))}
            />
            <section className="mt-6">
              <div className="mb-2 flex flex-wrap items-baseline justify-between gap-3">
                <h2 className="text-[15px] font-semibold">Their fields over the same wall</h2>
                <label className="flex items-baseline gap-2 text-quiet">
                  from
                  <input
                    type="range"
                    min={2}
                    max={40}
                    step={1}
                    value={distanceM}
                    onChange={(event) => setDistanceM(Number(event.target.value))}
                    className="accent-(--ink)"
                  />
                  <span className="figure w-14 text-ink">{distanceM} m</span>
                </label>
              </div>
              <Fields columns={columns} distanceM={distanceM} />
            </section>
          </>
        )}
      </main>
    </>
  );
}

interface Column {
  readonly id: string;
  readonly figures: RigFigures;
}

function CompareTable({
  columns,
  reference,
  onRemove,
}: {
  columns: readonly Column[];
  reference: string;
  onRemove: (id: string) => void;
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const rows: readonly RigRow[] = [
    { label: 'Focal length on its back', write: (f) => `${trimmed(f.focalLengthMm, 1)} mm` },
    ...rigRows(units, reference),
    {
      label: 'Warnings',
      write: (f) =>
        f.stops > 0 ? 'does not go together' : f.warnings > 0 ? String(f.warnings) : 'nothing',
    },
  ];
  return (
    <div className="overflow-x-auto">
      <table className="w-full">
        <thead>
          <tr className="align-bottom">
            <td />
            {columns.map(({ id, figures }, index) => (
              <th key={id} scope="col" className="min-w-36 px-3 pb-2 text-right font-normal">
                <svg width="64" height="8" aria-hidden className="ml-auto text-ink">
                  <line
                    x1="0"
                    x2="64"
                    y1="4"
                    y2="4"
                    stroke="currentColor"
                    strokeWidth="2"
                    strokeDasharray={DASHES[index]}
                  />
                </svg>
                <Link to={`/rigs/${id}`} className="font-semibold hover:underline">
                  {figures.name}
                </Link>
                <button
                  type="button"
                  aria-label={`Leave out ${figures.name}`}
                  onClick={() => onRemove(id)}
                  className="ml-2 min-h-8 text-quiet hover:text-ink"
                >
                  ×
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, write, term, rests }) => (
            <tr key={label} className="border-t border-rule">
              <th scope="row" className="py-1 text-left font-normal text-quiet">
                {term ? <Word id={term}>{label}</Word> : label}
              </th>
              {columns.map(({ id, figures }) => (
                <td key={id} className="figure px-3 py-1 text-right">
                  {write(figures)}
                  {rests && (
                    <AssumedMark
                      found={assumedFor(figures.assumed, rests)}
                      of={`${label}, ${figures.name}`}
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

const FIGURE_M = 1.7;

/** What each frame takes in of one wall, true to scale, with a person before it. */
function Fields({ columns, distanceM }: { columns: readonly Column[]; distanceM: number }) {
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const fields = columns.map(({ id, figures }) => ({
    id,
    name: figures.name,
    ...fieldAt(figures, distanceM),
  }));
  const widest = mostOf(fields.map(({ widthM }) => widthM));
  const tallest = mostOf(fields.map(({ heightM }) => heightM));
  const scale = Math.min((width - 40) / widest, (height - 50) / tallest);
  const words = `At ${distanceM} m: ${fields.map(({ name, widthM, heightM }) => `${name} sees ${trimmed(widthM, 1)} by ${trimmed(heightM, 1)} m`).join('; ')}.`;
  const { x, y } = sheetAt(width / 2, height / 2 - 8, scale);
  return (
    <Drawn {...{ box, size }} label={words} className="h-85 bg-stage text-ink">
      {fields.map(({ id, widthM, heightM }, index) => (
        <g key={id}>
          <rect
            x={x(-widthM / 2)}
            y={y(heightM / 2)}
            width={widthM * scale}
            height={heightM * scale}
            fill="none"
            stroke="var(--ink)"
            strokeWidth="1.6"
            strokeDasharray={DASHES[index]}
          />
          <text
            x={index % 2 === 0 ? x(-widthM / 2) + 6 : x(widthM / 2) - 6}
            y={y(heightM / 2) + 15}
            textAnchor={index % 2 === 0 ? 'start' : 'end'}
            fontSize="12"
            stroke="var(--stage)"
            strokeWidth="4"
            paintOrder="stroke"
            className="narrow"
          >
            {trimmed(widthM, 1)} × {trimmed(heightM, 1)} m
          </text>
        </g>
      ))}
      <Person x={x(0)} foot={y(-FIGURE_M / 2)} tall={FIGURE_M * scale} />
    </Drawn>
  );
}

/** Somebody 1.7 m tall, for the size of things. */
function Person({ x, foot, tall }: { x: number; foot: number; tall: number }) {
  const r = tall * 0.07;
  return (
    <g fill="var(--ink)" fillOpacity="0.75">
      <circle cx={x} cy={foot - tall + r} r={r} />
      <path
        d={`M ${x - tall * 0.1} ${foot - tall * 0.82} h ${tall * 0.2} l ${-tall * 0.03} ${tall * 0.82} h ${-tall * 0.14} Z`}
      />
    </g>
  );
}
