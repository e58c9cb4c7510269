import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import {
  bestAllOver,
  circleRows,
  fixed,
  fStop,
  isMeasured,
  lensFacts,
  limitsTable,
  type Station,
} from '@gangway/station';
import { handPictures } from '../files/handed-pictures.js';
import { onPicturesDropped } from '../files/dropped-pictures.js';
import { useUsedByQuery } from '../records/kit-api.js';
import { Button } from '../ui/button.js';
import { useNavigate } from 'react-router';
import { CircleView, ringsAt } from './circle-view.js';
import { DetailChart } from './detail-chart.js';
import { detailLines } from './detail-lines.js';
import { LensFrame } from './lens-frame.js';
import { METHODS, METHOD_WORDS } from './methods.js';
import { Facts } from './facts.js';
import { stopsOf, useSpots } from './lens-stops.js';
import { Spots } from './spots.js';
import { benchOf, useBack, useKeeping, type Measured, type StoredLens } from './use-lens.js';

/** What is known of a lens: its circle, its best stop, the same spot at every stop, and what that changes. */
export const LensPage = () => <LensFrame>{(lens) => <Lens key={lens.id} lens={lens} />}</LensFrame>;

function headline(
  measured: Measured | undefined,
  given: Station,
  own: Station,
  stop: number,
): string {
  if (!measured) return 'Not measured yet';
  const rings = ringsAt(given, own, measured, stop);
  const best = bestAllOver(measured);
  const ends = (measured.circle ?? []).length > 0 && rings.litMm !== null ? `the circle ends at ${fixed(rings.litMm / 2, 1)} mm` : null; // prettier-ignore
  const sharp = rings.sharpMm === null ? null : `sharp to ${fixed(rings.sharpMm / 2, 1)} mm from the middle`; // prettier-ignore
  const bestSaid = best === null ? null : `best at ${fStop(best)}`;
  const parts = [bestSaid, sharp && `${sharp} at ${fStop(stop)}`, ends && (sharp ? ends : `${ends} from the middle at ${fStop(stop)}`)].filter((part) => part !== null); // prettier-ignore
  const said = parts.join('; ');
  return said === '' ? 'Measured' : said.replace(/^./, (first) => first.toUpperCase());
}

function Lens({ lens }: { lens: StoredLens }) {
  const { document } = lens;
  const { measured } = document;
  const { backs, back, choose } = useBack();
  const navigate = useNavigate();
  const given = useMemo(() => benchOf(lens, back), [lens, back]);
  const own = useMemo(() => benchOf(lens, back, measured && { ...measured, use: true }), [lens, back, measured]); // prettier-ignore
  const stops = useMemo(() => stopsOf(lens), [lens]);
  const first =
    (measured && bestAllOver(measured)) ?? stops.find((each) => each >= 7.9) ?? stops[0]!;
  const [chosen, setChosen] = useState<number | null>(null);
  const stop = chosen ?? first;
  const lines = measured ? detailLines(measured) : null;
  const spots = useSpots(lens);
  useEffect(
    () =>
      onPicturesDropped((find) => {
        void find().then(({ files }) => {
          handPictures(files);
          void navigate(`/lenses/${lens.id}/series`);
        });
      }),
    [lens.id, navigate],
  );
  return (
    <main className="flex flex-1 flex-col lg:flex-row">
      <div className="flex min-w-0 flex-1 flex-col bg-stage">
        <div className="border-b border-rule bg-paper px-5 py-4">
          <h1 className="text-[24px] leading-8 font-semibold break-words">
            {isMeasured(document) ? headline(measured, given, own, stop) : 'Not measured yet'}
          </h1>
          <p className="text-quiet">
            {isMeasured(document)
              ? measured?.use === false
                ? 'Stations plan with the given, to compare.'
                : 'Stations plan with this.'
              : 'What is given is drawn. Measure one thing or all: each is used as soon as it is kept.'}
          </p>
        </div>
        <div
          className={`grid gap-x-6 gap-y-4 px-5 py-3 ${lines ? 'md:h-[21rem] md:grid-cols-[5fr_6fr]' : 'h-[27rem]'}`}
        >
          <CircleView {...{ given, own, measured, stops, stop }} onStop={setChosen} />
          {lines && <DetailChart lines={lines} />}
        </div>
        <div className="flex-1 border-t border-rule px-5 py-3">
          {spots.length > 0 ? (
            <Spots spots={spots} />
          ) : (
            <p className="text-[13px] text-quiet">
              Drop a series here, one picture at every stop, to look at the same spot of all of them
              side by side.
            </p>
          )}
          {measured && (
            <div className="pt-3">
              <Facts of={lensFacts(measured)} />
            </div>
          )}
        </div>
      </div>
      <aside
        aria-label="This lens"
        className="w-full shrink-0 space-y-4 border-l border-rule bg-paper px-5 py-4 lg:w-[332px]"
      >
        <Kept {...{ lens }} />
        <Circles {...{ lens }} />
        <Changes {...{ lens, given, own }} backName={back?.document.name ?? null} />
        {backs.length > 1 && (
          <label className="flex items-center justify-between gap-3 text-[13px] text-quiet">
            Drawn with
            <select
              value={back?.id}
              onChange={({ target }) => choose(target.value)}
              className="min-h-9 min-w-0 border-b border-rule bg-paper font-medium text-ink pointer-coarse:min-h-11"
            >
              {backs.map(({ id, document: each }) => (
                <option key={id} value={id}>
                  {each.name}
                </option>
              ))}
            </select>
          </label>
        )}
        <Ways lens={lens} />
      </aside>
    </main>
  );
}

/** Whether it is planned with, and from what it comes. */
function Kept({ lens }: { lens: StoredLens }) {
  const keep = useKeeping(lens);
  const { name, measured } = lens.document;
  if (!measured || !isMeasured(lens.document)) {
    return (
      <div className="border-b border-rule pb-3">
        <p className="text-[18px] font-semibold break-words">{name}</p>
        <p className="text-[13px] text-quiet">Planned with as it is given.</p>
      </div>
    );
  }
  const { use, on, back, files = [], odd = [] } = measured;
  const used = use !== false;
  return (
    <div className="space-y-2 border-b border-rule pb-3">
      <p className="text-[18px] font-semibold break-words">{name}</p>
      <p className="text-[13px] text-quiet">
        measured{on ? ` ${on}` : ''}
        {files.length > 0 && `, ${files.length} ${files.length === 1 ? 'picture' : 'pictures'}`}
        {back && `, ${back}`}
      </p>
      {files.length > 0 && (
        <details className="text-[13px] text-quiet">
          <summary className="min-h-8 cursor-pointer pointer-coarse:min-h-11">Their names</summary>
          <p className="max-h-40 overflow-y-auto break-words">{files.join(', ')}</p>
        </details>
      )}
      {odd.length > 0 && (
        <ul aria-label="What was odd" className="space-y-1 border-l-2 border-costs pl-3 text-[13px]">
          {odd.map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2">
        <Button
          look={used ? 'strong' : 'plain'}
          aria-pressed={used}
          onClick={() =>
            !used &&
            void keep({ ...measured, use: true }, `Stations plan with what was measured on ${name}.`)
          }
        >
          {used ? 'Planned with' : 'Plan with this'}
        </Button>
        <Button
          look={used ? 'plain' : 'strong'}
          aria-pressed={!used}
          onClick={() =>
            used && void keep({ ...measured, use: false }, `Stations plan with ${name} as it is given.`)
          }
        >
          {used ? 'Use the given' : 'The given is used'}
        </Button>
        <Button
          look="quiet"
          onClick={() => void keep(undefined, `What was measured on ${name} is forgotten.`)}
        >
          Forget it
        </Button>
      </div>
    </div>
  );
} // prettier-ignore

function Circles({ lens }: { lens: StoredLens }) {
  const rows = circleRows(lens.document);
  return (
    <section>
      <h2 className="mb-1 text-[13px] font-semibold text-quiet">Circle by stop, mm</h2>
      <table className="w-full text-right">
        <thead className="text-[13px] text-quiet">
          <tr>
            <th className="text-left font-normal">
              <span className="sr-only">Stop</span>
            </th>
            <th className="font-normal">given</th>
            <th className="font-normal">measured</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ fNumber, givenMm, measuredMm }) => (
            <tr key={fNumber}>
              <th className="text-left font-normal">{fStop(fNumber)}</th>
              <td className="text-quiet">{givenMm === null ? '' : fixed(givenMm, 1)}</td>
              <td className="figure">{measuredMm === null ? '' : fixed(measuredMm, 1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const riseSaid = (mm: number | null | undefined): string =>
  mm === undefined ? '' : mm === null ? 'none' : Number.isFinite(mm) ? fixed(mm, 1) : 'any';

function Changes({ lens, given, own, backName }: { lens: StoredLens; given: Station; own: Station; backName: string | null }) {
  const { data } = useUsedByQuery(lens.id);
  const rows = useMemo(() => [limitsTable(given).rows, limitsTable(own).rows] as const, [given, own]);
  const real = isMeasured(lens.document);
  const uses = (data?.stations.length ?? 0) + (data?.rigs.length ?? 0);
  return (
    <section>
      <h2 className="mb-1 text-[13px] font-semibold text-quiet">
        {real ? 'What it changes' : 'What it allows'}
        {backName && <span className="font-normal">, {backName}</span>}
      </h2>
      {[0, Math.min(rows[0].length - 1, 2)].map((i) => {
        const [a, b] = [rows[0][i], rows[1][i]];
        if (!a || !b) return null;
        const [before, after] = [riseSaid(a.level.up.mm), riseSaid(b.level.up.mm)];
        return (
          <p key={i} className="flex justify-between gap-3 py-px">
            <span>Rise at {fStop(a.fNumber)}, back level</span>
            <span className="figure whitespace-nowrap">
              {before === after ? before : `${before} → ${after}`} <span className="text-[12px] font-normal text-quiet">mm</span>
            </span>
          </p>
        );
      })}
      {uses > 0 && (
        <p className="flex justify-between gap-3 py-px">
          <span>Rigs and stations with a copy</span>
          <span className="figure">{uses}</span>
        </p>
      )}
      {uses > 0 && real && (
        <p className="text-[13px] text-quiet">
          Each offers to take it over, under Rig and settings.
        </p>
      )}
    </section>
  );
} // prettier-ignore

const Ways = ({ lens }: { lens: StoredLens }) => (
  <section>
    <h2 className="mb-1 text-[13px] font-semibold text-quiet">
      {isMeasured(lens.document) ? 'Measure again' : 'Measure'}
    </h2>
    <ul>
      {METHODS.map((method) => (
        <li key={method} className="border-t border-rule">
          <Link
            to={`/lenses/${lens.id}/${method}`}
            className="flex min-h-9 items-center justify-between gap-3 hover:underline pointer-coarse:min-h-11"
          >
            <span className="font-medium">{METHOD_WORDS[method].title}</span>
            <span className="text-[13px] text-quiet">{METHOD_WORDS[method].takes}</span>
          </Link>
        </li>
      ))}
      <li className="border-t border-rule">
        <Link
          to={`/lenses/beside?a=${lens.id}`}
          className="flex min-h-9 items-center justify-between gap-3 hover:underline pointer-coarse:min-h-11"
        >
          <span className="font-medium">Beside another lens or copy</span>
        </Link>
      </li>
    </ul>
  </section>
);
