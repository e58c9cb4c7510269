import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import * as z from 'zod';
import {
  daySheets,
  isBare,
  listSheets,
  packedSaid,
  SIZES,
  type DayAsked,
  type Sheet,
  type Size,
  type Typeface,
} from '@gangway/paper';
import type { Packed } from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import { SheetView } from '../drawing/sheet-view.js';
import { fileName, PaperChoice, Told, useSavePdf } from '../files/paper-choice.js';
import { useFace } from '../files/use-face.js';
import { PageTop } from '../pages/page-top.js';
import { useJobQuery } from '../records/api.js';
import { Loading } from '../records/states.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { useDay, type Day } from './use-day.js';

const sizeShape = z.enum(Object.keys(SIZES) as [Size, ...Size[]]);
const packedShape = z.array(z.string());

/** All cards of a job as one, its order, and what to pack. */
export function SheetsPage() {
  const { job: jobId = '' } = useParams();
  const { data: job } = useJobQuery(jobId);
  const { day, error } = useDay(jobId);
  return (
    <div>
      <PageTop
        trail={
          <Link to={`/jobs/${jobId}`} className="truncate font-semibold hover:underline">
            {job?.name}
          </Link>
        }
      />
      <main className="mx-auto w-full max-w-5xl px-5 py-6">
        {error !== null ? (
          <p role="alert" className="text-outside">
            {error}
          </p>
        ) : !day || !job ? (
          <Loading message={null} />
        ) : (
          <Sheets key={jobId} jobId={jobId} name={job.name} day={day} />
        )}
      </main>
    </div>
  );
}

function Sheets({ jobId, name, day }: { jobId: string; name: string; day: Day }) {
  const units = useAppSelector((state) => state.preferences.units);
  const [size, setSize] = useKept<Size>('card-size', sizeShape, units === 'feet' ? 'Letter' : 'A6');
  const words = useMemo(() => name + JSON.stringify([day.stations, day.packing]), [name, day]);
  const read = useFace(words);
  const face = read === 'failed' ? null : read;
  const { save: savePdf, told, working } = useSavePdf();
  const asked: DayAsked = { job: name, stations: day.stations, packing: day.packing, size, units };
  const save = (make: (of: DayAsked, with_: Typeface) => Sheet[], what: string): void => {
    if (face) void savePdf(() => make(asked, face), `${fileName(name)}, ${what}`);
  };
  const none = day.stations.length === 0;
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-[24px] font-semibold">Cards and packing</h1>
        <div className="flex flex-wrap items-center gap-2">
          <PaperChoice papers={SIZES} value={size} onChoose={setSize} />
          <Button disabled={!face || working || none} onClick={() => save(listSheets, 'packing')}>
            Order and packing (PDF)
          </Button>
          <Button
            look="strong"
            disabled={!face || working || none}
            onClick={() => save(daySheets, 'cards')}
          >
            {working ? 'Making it …' : 'All cards (PDF)'}
          </Button>
        </div>
      </div>
      <Told
        said={read === 'failed' ? 'The letters could not be loaded; load this page again.' : told}
      />
      {day.unread.length > 0 && (
        <p role="note" className="mb-3 border-l-2 border-costs pl-3">
          No card can be made of {day.unread.join(', ')}: open it from the job to see what is wrong.
        </p>
      )}
      {day.more && (
        <p role="note" className="mb-3 border-l-2 border-costs pl-3">
          Sheets are made of the first {day.stations.length} stations.
        </p>
      )}
      {none ? (
        <p className="text-quiet">No stations yet: cards come of what is planned.</p>
      ) : (
        <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_400px]">
          <div className="space-y-3">
            {face &&
              listSheets(asked, face).map((sheet, i) => (
                <SheetView
                  key={i}
                  sheet={sheet}
                  className="w-full max-w-[560px] border border-rule"
                />
              ))}
          </div>
          <PackingList jobId={jobId} day={day} />
        </div>
      )}
    </>
  );
}

/** Ticked off as it goes into the bag; kept in this tab. */
function PackingList({ jobId, day: { packing, stations } }: { jobId: string; day: Day }) {
  const [packed, setPacked] = useKept<string[]>(`packed.${jobId}`, packedShape, []);
  const all = [...packing.gear, ...packing.extras];
  const keyOf = ({ kind, name, kitId }: Packed): string => `${kind} ${kitId ?? name}`;
  const left = all.filter((each) => !packed.includes(keyOf(each))).length;
  const bare = all.filter(isBare);
  return (
    <section aria-label="Packing list">
      <h2 className="flex items-baseline justify-between gap-3 border-b-2 border-ink pb-1 text-[17px] font-semibold">
        To pack
        <span className="text-[14px] font-normal text-quiet" role="status">
          {left === 0 ? 'all packed' : `${left} to go`} · {bare.length} without a spare
        </span>
      </h2>
      <ul>
        {all.map((each) => {
          const key = keyOf(each);
          const said = packedSaid(each);
          return (
            <li key={key} className="border-b border-rule">
              <label className="flex min-h-11 items-center gap-3 py-1">
                <input
                  type="checkbox"
                  aria-label={each.name}
                  checked={packed.includes(key)}
                  onChange={(event) =>
                    setPacked(
                      event.target.checked
                        ? [...packed, key]
                        : packed.filter((other) => other !== key),
                    )
                  }
                  className="size-6 shrink-0 accent-current"
                />
                <span className="min-w-0 flex-1">
                  <span className="block font-medium">{each.name}</span>
                  <span
                    className={`block text-[13px] ${isBare(each) ? 'text-costs' : 'text-quiet'}`}
                  >
                    {said}
                  </span>
                </span>
              </label>
            </li>
          );
        })}
      </ul>
      {packing.hands.length > 0 && (
        <>
          <h2 className="mt-6 border-b-2 border-ink pb-1 text-[17px] font-semibold">
            Needs a second pair of hands
          </h2>
          <ul>
            {packing.hands.map(({ station, why }) => (
              <li key={`${station} ${why}`} className="border-b border-rule py-2">
                <span className="block font-medium">{stations[station]!.name}</span>
                {why}
              </li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-4 text-[13px] text-quiet">
        Batteries, release, step-up rings, dark cloth: add them once to the kit, as{' '}
        <Link to="/kit/new/extra" className="text-ink underline underline-offset-4">
          extras
        </Link>
        ; they come along on every job they are for.
      </p>
    </section>
  );
}
