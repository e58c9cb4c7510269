import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { setSaid, type Doubt, type Logged, type Matched, type Pair } from '@gangway/station';
import { useNarrow } from '../browser/use-narrow.js';
import { useAppSelector } from '../store/store.js';
import { Choosing } from '../ui/choosing.js';
import type { Picture } from './picture-files.js';
import type { StationNames } from './table-edits.js';

/** On a phone the line stands under its picture. */
const ROW_PX = { wide: 76, narrow: 148 } as const;

const SHOWN = {
  all: 'All files',
  unsure: 'Unsure',
  alone: 'Without a line',
} as const;
type Which = keyof typeof SHOWN;

interface Props {
  readonly matched: Matched;
  readonly pictures: readonly Picture[];
  readonly lines: readonly Logged[];
  readonly names: StationNames;
  readonly onFix: (key: string, line: string | null | undefined) => void;
}

/** Each picture beside its line; what is not sure can be said by hand. */
export function MatchList({ matched, pictures, lines, names, onFix }: Props) {
  const [which, setWhich] = useState<Which>('all');
  const byKey = useMemo(() => new Map(pictures.map((each) => [each.key, each])), [pictures]);
  const byId = useMemo(() => new Map(lines.map((line) => [line.id, line])), [lines]);
  const pairs = useMemo(
    () =>
      matched.pairs.filter(
        (pair) =>
          byKey.has(pair.file) &&
          (which === 'all' ||
            (which === 'unsure' ? pair.line !== null && !pair.sure : pair.line === null)),
      ),
    [matched, which, byKey],
  );
  const taken = useMemo(() => new Set(matched.pairs.flatMap(({ line }) => line ?? [])), [matched]);
  const box = useRef<HTMLDivElement>(null);
  const rowPx = ROW_PX[useNarrow() ? 'narrow' : 'wide'];
  const virtual = useVirtualizer({
    count: pairs.length,
    getScrollElement: () => box.current,
    estimateSize: () => rowPx,
    overscan: 6,
  });
  useEffect(() => virtual.measure(), [virtual, rowPx]);
  return (
    <section aria-label="Pictures and their lines" className="px-5 pt-3">
      <Choosing
        label="Show"
        value={which}
        options={Object.entries(SHOWN) as [Which, string][]}
        onChoose={setWhich}
      />
      <div ref={box} className="mt-1 max-h-[60vh] overflow-y-auto border-t border-rule">
        {pairs.length === 0 && <p className="py-4 text-quiet">None.</p>}
        <ul className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const pair = pairs[index]!;
            return (
              <li
                key={pair.file}
                aria-setsize={pairs.length}
                aria-posinset={index + 1}
                className="absolute inset-x-0 top-0 border-b border-rule"
                style={{ height: rowPx, transform: `translateY(${start}px)` }}
              >
                <PairRow
                  pair={pair}
                  picture={byKey.get(pair.file)!}
                  byId={byId}
                  lines={lines}
                  taken={taken}
                  names={names}
                  onFix={onFix}
                />
              </li>
            );
          })}
        </ul>
      </div>
    </section>
  );
}

const clockOf = (seconds: number | null): string =>
  seconds === null ? 'no time' : new Date(seconds * 1000).toISOString().slice(11, 19);

/** What is shown of how a pair was found. */
function standingOf({ by, sure, line }: Pair): readonly [words: string, tone: string] {
  if (by === 'hand')
    return line === null ? ['no line, by hand', 'text-ink'] : ['by hand', 'text-ink'];
  if (line === null) return sure ? ['no line', 'text-outside'] : ['no line?', 'text-outside'];
  return sure ? ['sure', 'text-within'] : ['unsure', 'text-costs'];
}

/** What to look at before a pair is believed. */
function doubtSaid({ why, other }: Doubt, byId: ReadonlyMap<string, Logged>): string {
  const rival = other === null ? '' : byId.get(other)?.at.slice(11, 19);
  if (why === 'exposure') return 'Exposed otherwise than logged.';
  if (rival) return `Or ${rival}, ${why === 'beside' ? 'seconds apart' : 'which may fit, too'}.`;
  return why === 'beside' ? 'Another file was made seconds apart.' : 'It may have no line.';
}

const lineSaid = (line: Logged, names: StationNames): string =>
  [
    line.at.slice(11, 19),
    (line.station && names.byId.get(line.station)?.name) ?? '',
    line.frame === undefined ? '' : `frame ${line.frame}`,
    line.bracket === undefined ? '' : `bracket ${line.bracket}`,
  ]
    .filter(Boolean)
    .join(' · ');

function PairRow({
  pair,
  picture,
  byId,
  lines,
  taken,
  names,
  onFix,
}: {
  pair: Pair;
  picture: Picture;
  byId: ReadonlyMap<string, Logged>;
  lines: readonly Logged[];
  taken: ReadonlySet<string>;
  names: StationNames;
  onFix: Props['onFix'];
}) {
  const units = useAppSelector((state) => state.preferences.units);
  const [words, tone] = standingOf(pair);
  const { facts } = picture;
  const line = pair.line === null ? undefined : byId.get(pair.line);
  return (
    <div className="grid h-full grid-cols-[4rem_minmax(0,1fr)_auto] content-center items-center gap-x-4 sm:grid-cols-[6rem_13rem_6rem_minmax(0,1fr)]">
      <Thumb blob={picture.thumb} />
      <div className="min-w-0">
        <p className="truncate font-medium" title={picture.names.join(', ')}>
          {picture.name}
          {picture.names.length > 1 && (
            <span className="text-quiet"> +{picture.names.length - 1}</span>
          )}
        </p>
        <p className="figure truncate text-[13px] text-quiet">{clockOf(facts.clockS)}</p>
        {picture.fault && <p className="truncate text-[12px] text-costs">{picture.fault}</p>}
      </div>
      <span
        className={`font-medium ${tone} ${pair.sure ? '' : 'underline decoration-dotted underline-offset-4'}`}
      >
        {words}
      </span>
      <div className="min-w-0 max-sm:col-span-3">
        <LineChoice {...{ pair, picture, line, lines, taken, names, onFix }} />
        <p className="truncate text-[13px] text-quiet">
          {pair.doubt && <span className="text-costs">{doubtSaid(pair.doubt, byId)} </span>}
          {line ? setSaid(line, units) : ''}
        </p>
      </div>
    </div>
  );
}

/** Lines near a picture’s own, to choose another by hand; only made when it is opened. */
function LineChoice({
  pair,
  picture,
  line,
  lines,
  taken,
  names,
  onFix,
}: Omit<Parameters<typeof PairRow>[0], 'byId'> & { line: Logged | undefined }) {
  const [open, setOpen] = useState(false);
  const current = pair.line ?? 'none';
  return (
    <select
      aria-label={`Line of ${picture.name}`}
      value={current}
      onPointerDown={() => setOpen(true)}
      onFocus={() => setOpen(true)}
      onChange={(event) => {
        const { value } = event.target;
        onFix(pair.file, value === 'none' ? null : value === 'data' ? undefined : value);
      }}
      className="min-h-9 w-full max-w-xl truncate border-b border-rule bg-page font-medium pointer-coarse:min-h-11"
    >
      <option value="none" className="bg-paper text-ink">
        No line
      </option>
      {pair.by === 'hand' && (
        <option value="data" className="bg-paper text-ink">
          As the data have it
        </option>
      )}
      {line && !open && <option value={line.id}>{lineSaid(line, names)}</option>}
      {open &&
        lines.map((each) => (
          <option key={each.id} value={each.id} className="bg-paper text-ink">
            {lineSaid(each, names)}
            {taken.has(each.id) && each.id !== line?.id ? ' (has a file)' : ''}
          </option>
        ))}
    </select>
  );
}

function Thumb({ blob }: { blob: Blob | null }) {
  const address = useMemo(() => (blob ? URL.createObjectURL(blob) : null), [blob]);
  useEffect(
    () => () => {
      if (address) URL.revokeObjectURL(address);
    },
    [address],
  );
  return (
    <span className="flex h-16 w-24 shrink-0 items-center justify-center bg-stage max-sm:w-16">
      {address ? (
        <img src={address} alt="" className="max-h-full max-w-full object-contain" />
      ) : (
        <span className="text-[12px] text-quiet">no picture</span>
      )}
    </span>
  );
}
