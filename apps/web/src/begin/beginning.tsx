import type { ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import { sentence, useOpenDemoMutation } from '../records/api.js';
import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';

/** The order people work in. */
const ORDER: readonly (readonly [title: string, words: string])[] = [
  ['Gear', 'your lenses and backs; put together, a rig'],
  ['View', 'where you stand, what is in front'],
  ['Cover', 'how far you may shift before a corner darkens'],
  ['Focus', 'what to lean, where to focus, which stop'],
  ['Mosaic', 'several frames that become one picture'],
  ['Expose', 'from the meter to the time to set'],
  ['Card', 'what to do there, step by step'],
];

const ACTION =
  'inline-flex min-h-9 items-center rounded-sm border border-rule-strong bg-paper px-3 font-medium hover:border-ink pointer-coarse:min-h-11';

/** For whoever is here for the first time: the order of work, and three ways to start. */
export function Beginning() {
  const [open, { isLoading }] = useOpenDemoMutation();
  const notice = useNotice();
  const navigate = useNavigate();
  const look = async (): Promise<void> => {
    const answer = await open();
    if (answer.error) notice([sentence(answer.error)]);
    else await navigate(`/jobs/${answer.data.job}`);
  };
  return (
    <section aria-labelledby="beginning" className="mt-10">
      <h2 id="beginning" className="text-2xl font-semibold">
        New here
      </h2>
      <ol className="mt-2 mb-6 grid gap-x-6 gap-y-1 sm:grid-cols-2 lg:grid-cols-4">
        {ORDER.map(([title, words], i) => (
          <li key={title}>
            {/* Gear comes before a station; the rest have the numbers of its steps. */}
            {i > 0 && <span className="figure mr-1.5 text-quiet">{i}</span>}
            <span className="font-semibold">{title}</span>
            <span className="block text-[13px] text-quiet">{words}</span>
          </li>
        ))}
      </ol>
      <div className="grid gap-6 md:grid-cols-3">
        <Way
          title="Your own lens, three figures"
          words="Focal length, widest stop, image circle. The rest can wait; what is assumed until then is marked."
        >
          <Link to="/begin" className={ACTION}>
            Enter a lens
          </Link>
        </Way>
        <Way
          title="Look round the demo"
          words="A day at Orrin Quay: a customs house that does not fit, a glassblower’s bench, a salt marsh."
        >
          <Button disabled={isLoading} onClick={() => void look()}>
            Open the day
          </Button>
        </Way>
        <Way
          title="A table you have"
          words="Lenses, backs and circles as CSV, or a kit file. You see every line before it is taken in."
        >
          <Link to="/kit/import" className={ACTION}>
            Read a table
          </Link>
        </Way>
      </div>
    </section>
  );
}

const Way = ({ title, words, children }: { title: string; words: string; children: ReactNode }) => (
  <div className="border-t-2 border-ink pt-3">
    <h3 className="text-[17px] font-semibold">{title}</h3>
    <p className="mt-1 mb-3 text-quiet">{words}</p>
    {children}
  </div>
);
