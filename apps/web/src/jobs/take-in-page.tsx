import { useEffect, useRef, useState, type ChangeEvent } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import * as z from 'zod';
import { jobTooLarge, LARGEST_JOB_BYTES } from '@gangway/station';
import { newId } from '../browser/new-id.js';
import { heldJob, holdJob, isJobFile } from '../files/dropped-job.js';
import { PageTop } from '../pages/page-top.js';
import { api } from '../records/api.js';
import { refusalShape } from '../records/shapes.js';
import { useAppDispatch } from '../store/store.js';
import { Button } from '../ui/button.js';
import { counted } from '../ui/counted.js';

const differenceShape = z.object({ name: z.string(), mine: z.string(), theirs: z.string() });
const countsShape = z.object({
  added: z.number(),
  changed: z.array(z.object({ name: z.string(), differences: z.array(differenceShape) })),
  changedTotal: z.number(),
  same: z.number(),
  onlyHere: z.number(),
});
const lookShape = z.object({
  taken: z.boolean(),
  job: z.object({ id: z.string(), name: z.string(), isNew: z.boolean() }),
  token: z.string().optional(),
  head: z.array(differenceShape).default([]),
  stations: countsShape.optional(),
  exposures: countsShape.optional(),
  kit: countsShape.optional(),
});
type Look = z.infer<typeof lookShape>;
type Counts = z.infer<typeof countsShape>;

type Ids = 'keep' | 'new';

type Answer =
  | { readonly kind: 'look'; readonly look: Look }
  | { readonly kind: 'refused'; readonly lines: readonly string[] };

async function send(file: File, asked: Record<string, string>): Promise<Answer> {
  if (file.size > LARGEST_JOB_BYTES) {
    return { kind: 'refused', lines: [`${file.name} ${jobTooLarge(file.size)}.`] };
  }
  try {
    const response = await fetch(`/api/job-files?${new URLSearchParams(asked)}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: file,
    });
    const body: unknown = await response.json();
    const read = response.ok ? lookShape.safeParse(body) : null;
    if (read?.success) return { kind: 'look', look: read.data };
    const { detail, errors = [] } = refusalShape.safeParse(body).data ?? {};
    return {
      kind: 'refused',
      lines: [
        detail ?? 'The file could not be read.',
        ...errors.map(({ pointer, message }) => `${pointer || 'The file'} ${message}.`),
      ],
    };
  } catch {
    return {
      kind: 'refused',
      lines: [
        'seen' in asked
          ? 'The server does not answer. Look at the job to see whether it was taken in; trying again takes it in once.'
          : 'The server does not answer. Nothing was taken in; try again.',
      ],
    };
  }
}

/** A whole job from a file: what it would change is looked at before it is taken. */
export function TakeInPage() {
  const { key } = useLocation();
  const [file, setFile] = useState<File | null>(heldJob);
  useEffect(() => setFile(heldJob()), [key]); // eslint-disable-line react-hooks/set-state-in-effect -- another file was dropped on this very page
  return (
    <div>
      <PageTop trail={<span className="truncate font-semibold">A job from a file</span>} />
      <main className="mx-auto w-full max-w-4xl px-5 py-6">
        {file ? (
          <TakeIn key={`${key} ${file.name} ${file.lastModified}`} file={file} />
        ) : (
          <NoFile onFile={setFile} />
        )}
      </main>
    </div>
  );
}

function NoFile({ onFile }: { onFile: (file: File) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState(false);
  const onChange = (event: ChangeEvent<HTMLInputElement>): void => {
    const chosen = event.target.files?.[0];
    event.target.value = '';
    if (!chosen) return;
    void isJobFile(chosen).then((is) => {
      setWrong(!is);
      if (!is) return;
      holdJob(chosen);
      onFile(chosen);
    });
  };
  return (
    <>
      <h1 className="text-[24px] font-semibold">Take in a job</h1>
      <p className="py-3 text-quiet">
        Choose a job’s file, or drop it here: what it would change is shown first.
      </p>
      <Button onClick={() => input.current?.click()}>Choose a job’s file</Button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        aria-label="A job’s file"
        className="sr-only"
        tabIndex={-1}
        onChange={onChange}
      />
      {wrong && (
        <p role="alert" className="pt-3 text-outside">
          This is not a job’s file. Stations are imported on the page of their job.
        </p>
      )}
    </>
  );
}

function TakeIn({ file }: { file: File }) {
  const [ids, setIds] = useState<Ids>('keep');
  const [newJob] = useState(newId);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [working, setWorking] = useState(false);
  const [tries, setTries] = useState(0);
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  useEffect(() => {
    let left = false;
    void send(file, { job: newJob, ids }).then((next) => !left && setAnswer(next));
    return () => {
      left = true;
    };
  }, [file, ids, newJob, tries]);
  const take = async (token: string): Promise<void> => {
    setWorking(true);
    const next = await send(file, { job: newJob, ids, seen: token });
    setWorking(false);
    if (next.kind === 'look' && next.look.taken) {
      dispatch(api.util.invalidateTags(['Jobs', 'Stations']));
      await navigate(`/jobs/${next.look.job.id}`);
    } else setAnswer(next);
  };
  return (
    <>
      <h1 className="text-[24px] font-semibold">{file.name}</h1>
      <fieldset className="flex flex-wrap gap-x-6 py-3">
        <legend className="sr-only">How it is taken in</legend>
        {(
          [
            ['keep', 'As the job it is: what is here of it is brought up to the file'],
            ['new', 'As a job of its own, beside what is here'],
          ] as const
        ).map(([value, words]) => (
          <label key={value} className="flex min-h-11 items-center gap-2">
            <input
              type="radio"
              name="ids"
              checked={ids === value}
              onChange={() => {
                setAnswer(null);
                setIds(value);
              }}
              className="size-5 accent-current"
            />
            {words}
          </label>
        ))}
      </fieldset>
      {answer === null && (
        <p role="status" className="text-quiet">
          Reading it …
        </p>
      )}
      {answer?.kind === 'refused' && (
        <div role="alert" className="border-l-2 border-outside pl-3">
          {answer.lines.map((line, i) => (
            <p key={i} className={i === 0 ? 'font-semibold' : ''}>
              {line}
            </p>
          ))}
          <p className="pt-2">
            <Button
              onClick={() => {
                setAnswer(null);
                setTries(tries + 1);
              }}
            >
              Look again
            </Button>
          </p>
        </div>
      )}
      {answer?.kind === 'look' && answer.look.token !== undefined && (
        <Shown look={answer.look} working={working} onTake={() => void take(answer.look.token!)} />
      )}
    </>
  );
}

function Shown({ look, working, onTake }: { look: Look; working: boolean; onTake: () => void }) {
  const { job, head, stations, exposures, kit } = look;
  // What it is called here, whatever the file calls it.
  const name = (!job.isNew && head.find((each) => each.name === 'name')?.mine) || job.name;
  const changes = head.length + [stations, exposures].reduce((sum, each) => sum + (each ? each.added + each.changedTotal : 0), 0); // prettier-ignore
  return (
    <>
      <p className="text-[20px]">
        {job.isNew ? (
          <>
            It becomes a new job, <b>{name}</b>.
          </>
        ) : changes === 0 ? (
          <>
            <b>{name}</b> is here already, just as it is in the file.
          </>
        ) : (
          <>
            It changes <b>{name}</b>, which is here.
          </>
        )}
      </p>
      <div className="py-3">
        <Part title="Stations" one="station" counts={stations} />
        <Part title="Log" one="line" counts={exposures} />
        {kit && kit.added + kit.changedTotal > 0 && (
          <p className="py-1 text-quiet">
            Kit: {kit.added} added; {kit.changedTotal} differ here and stay as they are here.
          </p>
        )}
      </div>
      {head.length > 0 && (
        <section aria-label="The job itself" className="pb-3">
          <h2 className="border-b-2 border-ink pb-1 text-[17px] font-semibold">The job itself</h2>
          <Differences differences={head} />
        </section>
      )}
      {job.isNew || changes > 0 ? (
        <Button look="strong" disabled={working} onClick={onTake} className="min-h-11 px-6">
          {working ? 'Taking it in …' : job.isNew ? 'Take it in' : 'Take these changes'}
        </Button>
      ) : (
        <Link to={`/jobs/${job.id}`} className="underline underline-offset-4">
          Open it
        </Link>
      )}
    </>
  );
}

function Part({ title, one, counts }: { title: string; one: string; counts: Counts | undefined }) {
  if (!counts) return null;
  const { added, changed, changedTotal, same, onlyHere } = counts;
  return (
    <section aria-label={title} className="pb-4">
      <h2 className="flex flex-wrap items-baseline gap-x-5 border-b-2 border-ink pb-1">
        <span className="text-[17px] font-semibold">{title}</span>
        <span>
          <span className="figure text-[20px] text-within">{added}</span>{' '}
          <span className="text-[13px] text-quiet">added</span>
        </span>
        <span>
          <span className="figure text-[20px] text-costs">{changedTotal}</span>{' '}
          <span className="text-[13px] text-quiet">changed</span>
        </span>
        <span>
          <span className="figure text-[20px] text-quiet">{same}</span>{' '}
          <span className="text-[13px] text-quiet">the same</span>
        </span>
      </h2>
      {onlyHere > 0 && (
        <p className="pt-1 text-quiet">
          {counted(onlyHere, one)} here only; {onlyHere === 1 ? 'it stays' : 'they stay'}.
        </p>
      )}
      <ul>
        {changed.map(({ name, differences }, i) => (
          <li key={i} className="border-b border-rule py-1">
            <details open={changed.length <= 5}>
              <summary className="min-h-8 cursor-pointer font-medium">
                {name}{' '}
                <span className="text-[13px] font-normal text-quiet">
                  {counted(differences.length, 'figure')}
                </span>
              </summary>
              <Differences differences={differences} />
            </details>
          </li>
        ))}
      </ul>
      {changedTotal > changed.length && (
        <p className="pt-1 text-quiet">and {changedTotal - changed.length} more</p>
      )}
    </section>
  );
}

const MOST_SHOWN = 40;

const Differences = ({
  differences,
}: {
  differences: readonly z.infer<typeof differenceShape>[];
}) => (
  <table className="my-1 w-full table-fixed text-[14px]">
    <thead>
      <tr className="text-left text-[13px] text-quiet">
        <th className="font-normal">What</th>
        <th className="font-normal">Here</th>
        <th className="font-normal">In the file</th>
      </tr>
    </thead>
    <tbody>
      {differences.slice(0, MOST_SHOWN).map(({ name, mine, theirs }) => (
        <tr key={name}>
          <th scope="row" className="pr-4 text-left font-normal">
            {name}
          </th>
          <td className="figure pr-4">{mine}</td>
          <td className="figure font-semibold">{theirs}</td>
        </tr>
      ))}
    </tbody>
  </table>
);
