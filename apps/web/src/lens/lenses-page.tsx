import { Link } from 'react-router';
import { bestAllOver, fixed, fStop, isMeasured, type Station } from '@gangway/station';
import { PageTop } from '../pages/page-top.js';
import { Line } from '../ui/boundary.js';
import { useSoundKit } from '../records/sound-kit.js';
import { ringsAt } from './circle-view.js';
import { atStop, benchOf, isLens, useBack, type Measured, type StoredBack, type StoredLens } from './use-lens.js'; // prettier-ignore

/** The lenses of the kit, with what is known of each for certain. */
export function LensesPage() {
  const kit = useSoundKit();
  const { back } = useBack();
  const lenses = (kit ?? []).filter(isLens);
  const measured = lenses.filter(({ document }) => isMeasured(document));
  return (
    <>
      <PageTop />
      <main className="mx-auto w-full max-w-5xl px-5 py-6">
        <div className="mb-1 flex flex-wrap items-center justify-between gap-3">
          <h1 className="text-2xl font-semibold">Lenses</h1>
          {lenses.length > 1 && (
            <Link
              to="/lenses/beside"
              className="inline-flex min-h-9 items-center underline underline-offset-4 pointer-coarse:min-h-11"
            >
              Two beside each other
            </Link>
          )}
        </div>
        <p className="mb-4 max-w-[68ch] text-quiet">
          What your lenses really do, learned from your own pictures: where the circle ends, which
          stop is best, what lags. What is kept here is what stations then plan with. Pictures are
          read on this machine; nothing is sent anywhere.
        </p>
        {!kit && <p className="py-6 text-quiet">Loading …</p>}
        {kit && lenses.length === 0 && (
          <p className="py-6">
            No lens in the kit yet.{' '}
            <Link to="/kit/new/lens" className="font-medium underline underline-offset-4">
              Add your lens
            </Link>
          </p>
        )}
        <ul aria-label="Lenses">
          {[...measured, ...lenses.filter((lens) => !measured.includes(lens))].map((lens) => (
            <li key={lens.id} className="border-b border-rule hover:bg-paper">
              <Line name={lens.document.name} of={lens.document}>
                <Row {...{ lens, back }} />
              </Line>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}

function Row({ lens, back }: { lens: StoredLens; back: StoredBack | null }) {
  const { document } = lens;
  const { measured } = document;
  const known = isMeasured(document);
  return (
    <Link to={`/lenses/${lens.id}`} className="flex w-full items-center gap-4 px-2 py-2">
      <Mini given={benchOf(lens, back)} own={benchOf(lens, back, measured)} measured={measured} />
      <span className="min-w-0 flex-1">
        <span className="block truncate text-[16px] font-medium">{document.name}</span>
        <span className="block text-[13px] text-quiet">
          {known
            ? `measured${measured?.on ? ` ${measured.on}` : ''}${measured?.use === false ? '; the given is used, to compare' : ''}`
            : 'not measured; the given is used'}
        </span>
      </span>
      {measured && <Figures measured={measured} />}
    </Link>
  );
}

function Figures({ measured }: { measured: Measured }) {
  const widest = Math.max(0, ...(measured.circle ?? []).map(({ diameter_mm }) => diameter_mm));
  const best = bestAllOver(measured);
  return (
    <span className="flex gap-5 text-right max-sm:hidden">
      {widest > 0 && (
        <span>
          <span className="figure block">{fixed(widest, 1)} mm</span>
          <span className="text-[12px] text-quiet">circle</span>
        </span>
      )}
      {best !== null && (
        <span>
          <span className="figure block">{fStop(best)}</span>
          <span className="text-[12px] text-quiet">best all over</span>
        </span>
      )}
    </span>
  );
}

const MINI_PX = 56;

/** The circle against the frame, small: measured thick, given dashed. */
function Mini({ given, own, measured }: { given: Station; own: Station; measured: Measured | undefined }) {
  const stop = Math.max(given.lens.f_min, Math.min(given.lens.f_max, 8));
  const rings = ringsAt(given, own, measured, stop);
  const { frame } = atStop(given, stop);
  const widest = Math.max(rings.litMm ?? 0, rings.givenMm ?? 0, frame.widthMm);
  const scale = (MINI_PX - 4) / Math.max(1, widest);
  const r = (across: number | null): number => ((across ?? 0) / 2) * scale;
  return (
    <svg width={MINI_PX} height={MINI_PX} aria-hidden className="shrink-0">
      <g transform={`translate(${MINI_PX / 2} ${MINI_PX / 2})`} fill="none">
        <circle r={r(rings.givenMm)} className="stroke-quiet" strokeDasharray="3 2" />
        {measured?.circle && <circle r={r(rings.litMm)} className="stroke-ink" strokeWidth={2} />}
        {rings.sharpMm !== null && <circle r={r(rings.sharpMm)} className="stroke-within" strokeWidth={1.5} />}
        <rect
          x={(-frame.widthMm / 2) * scale}
          y={(-frame.heightMm / 2) * scale}
          width={frame.widthMm * scale}
          height={frame.heightMm * scale}
          className="stroke-ink"
        />
      </g>
    </svg>
  );
} // prettier-ignore
