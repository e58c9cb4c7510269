import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { bestAllOver, fixed, fStop, lensFacts } from '@gangway/station';
import { PageTop } from '../pages/page-top.js';
import { useSoundKit } from '../records/sound-kit.js';
import { CircleView, ringsAt } from './circle-view.js';
import { DetailChart } from './detail-chart.js';
import { detailLines } from './detail-lines.js';
import { Facts } from './facts.js';
import { stopsOf, useSpots } from './lens-stops.js';
import { Spots } from './spots.js';
import { benchOf, isLens, useBack, type StoredLens } from './use-lens.js';

/** Two lenses, or two copies of one, measured the same way and drawn to one scale. */
export function BesidePage() {
  const kit = useSoundKit();
  const lenses = useMemo(() => (kit ?? []).filter(isLens), [kit]);
  const [asked, setAsked] = useSearchParams();
  const pick = (which: 'a' | 'b', spare: number): StoredLens | null => lenses.find(({ id }) => id === asked.get(which)) ?? lenses[spare] ?? null; // prettier-ignore
  const a = pick('a', 0);
  const b = pick('b', lenses[0]?.id === a?.id ? 1 : 0);
  const choose = (which: 'a' | 'b', id: string): void =>
    setAsked((now) => {
      now.set(which, id);
      return now;
    });
  const [spotsA, spotsB] = [useSpots(a), useSpots(b)];
  const spots = useMemo(
    () => [...spotsA.map((each) => ({ ...each, of: a!.document.name })), ...spotsB.map((each) => ({ ...each, of: `${b!.document.name}${a!.document.name === b!.document.name ? ' (2)' : ''}` }))].sort((p, q) => p.fNumber - q.fNumber), // prettier-ignore
    [spotsA, spotsB, a, b],
  );
  const { back } = useBack();
  const widest = Math.max(
    ...[a, b].flatMap((lens) => (lens ? stopsOf(lens).map((stop) => widestAt(lens, back, stop)) : [0])), // prettier-ignore
  );
  const most = Math.max(0, ...[a, b].flatMap((lens) => mostOf(lens)));
  return (
    <>
      <PageTop />
      <main className="px-5 py-5">
        <h1 className="mb-3 text-2xl font-semibold">Two lenses beside each other</h1>
        {lenses.length < 2 ? (
          <p className="text-quiet">
            It takes two. Add another lens, or a second copy of one, to the kit.
          </p>
        ) : (
          <div className="grid gap-x-10 gap-y-6 md:grid-cols-2">
            {(['a', 'b'] as const).map((which) => {
              const lens = which === 'a' ? a : b;
              return (
                <section key={which} aria-label={which === 'a' ? 'One' : 'The other'}>
                  <select
                    aria-label={which === 'a' ? 'One lens' : 'The other lens'}
                    value={lens?.id}
                    onChange={({ target }) => choose(which, target.value)}
                    className="mb-2 min-h-10 w-full border-b border-rule bg-page text-[18px] font-semibold pointer-coarse:min-h-11"
                  >
                    {lenses.map(({ id, document }) => (
                      <option key={id} value={id}>
                        {document.name}
                      </option>
                    ))}
                  </select>
                  {lens && <Side {...{ lens, back, widest, most }} />}
                </section>
              );
            })}
          </div>
        )}
        {spots.length > 0 && (
          <div className="mt-6 border-t border-rule pt-3">
            <Spots spots={spots} />
          </div>
        )}
        {lenses.length > 1 && spots.length === 0 && (
          <p className="mt-6 text-[13px] text-quiet">
            Drop a series on each lens’s own page, and the same spot of both lies here side by side,
            with the names hidden if you like.
          </p>
        )}
      </main>
    </>
  );
}

function widestAt(lens: StoredLens, back: Parameters<typeof benchOf>[1], stop: number): number {
  const { measured } = lens.document;
  const rings = ringsAt(benchOf(lens, back), benchOf(lens, back, measured && { ...measured, use: true }), measured, stop); // prettier-ignore
  return Math.max(rings.litMm ?? 0, rings.givenMm ?? 0);
}

/** The most on its chart, so that both have one scale; of shares it is always 100. */
function mostOf(lens: StoredLens | null): number[] {
  const lines = lens?.document.measured && detailLines(lens.document.measured);
  if (!lines) return [];
  return lines.unit === '%' ? [100] : Object.values(lines.zones).flatMap((zone) => zone.flatMap((value) => value ?? [])); // prettier-ignore
}

function Side({ lens, back, widest, most }: { lens: StoredLens; back: Parameters<typeof benchOf>[1]; widest: number; most: number }) {
  const { measured } = lens.document;
  const given = useMemo(() => benchOf(lens, back), [lens, back]);
  const own = useMemo(() => benchOf(lens, back, measured && { ...measured, use: true }), [lens, back, measured]);
  const stops = useMemo(() => stopsOf(lens), [lens]);
  const best = measured ? bestAllOver(measured) : null;
  const [stop, setStop] = useState(() => best ?? stops.find((each) => each >= 7.9) ?? stops[0]!);
  const lines = measured ? detailLines(measured) : null;
  const shown = stops.includes(stop) ? stop : stops[0]!;
  const rings = ringsAt(given, own, measured, shown);
  return (
    <div className="space-y-4">
      <div className="flex h-80 flex-col bg-stage p-2">
        <CircleView {...{ given, own, measured, stops }} stop={shown} onStop={setStop} widestMm={widest} />
      </div>
      <p>
        <span className="figure text-[20px]">{rings.litMm === null ? '' : `${fixed(rings.litMm, 1)} mm`}</span>{' '}
        <span className="text-quiet">
          lit at {fStop(shown)}{(measured?.circle ?? []).length > 0 ? ', measured' : ', given'}
        </span>
      </p>
      {lines ? (
        <div className="flex h-64 flex-col">
          <DetailChart lines={lines} {...(most > 0 ? { most: lines.unit === '%' ? 100 : most } : {})} />
        </div>
      ) : (
        <p className="text-quiet">
          No stops compared yet.{' '}
          <Link to={`/lenses/${lens.id}/series`} className="underline underline-offset-4">
            Measure it at every stop
          </Link>
        </p>
      )}
      {measured && <Facts of={lensFacts(measured)} />}
    </div>
  );
} // prettier-ignore
