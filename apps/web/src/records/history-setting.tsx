import { useState } from 'react';
import { Button } from '../ui/button.js';
import { sentence, useHistoryQuery, useSetHistoryMutation } from './api.js';

const [LEAST, MOST] = [20, 100_000];
const count = (n: number): string => n.toLocaleString('en');

/** How long saves are kept, where one sees them. What would go is told before it goes. */
export function HistorySetting() {
  const { data: now } = useHistoryQuery(null);
  const [open, setOpen] = useState(false);
  const [set] = useSetHistoryMutation();
  const [said, setSaid] = useState<string | null>(null);
  if (!now) return null;
  const choose = async (thin: boolean, whole: number): Promise<void> => {
    const made = await set({ thin, whole });
    setSaid(
      made.error
        ? sentence(made.error)
        : thin
          ? `Thinned: ${count(made.data.gone ?? 0)} saves were taken away.`
          : 'From now on every save is kept.',
    );
    if (!made.error) setOpen(false);
  };
  return (
    <section aria-label="How long saves are kept" className="mt-3 border-t border-rule pt-3">
      <p className="text-[13px] text-quiet">
        {now.thin
          ? `The newest ${count(now.whole)} saves of each document are kept, and of older ones the last of each spell of work.`
          : 'Every save is kept.'}{' '}
        One with a name is always kept.
      </p>
      {said !== null && (
        <p role="status" className="pt-1 text-[13px]">
          {said}
        </p>
      )}
      {open ? (
        <Choice whole={now.whole} thin={now.thin} onChoose={choose} />
      ) : (
        <Button look="quiet" onClick={() => setOpen(true)}>
          {now.thin ? 'Change this …' : 'Thin out older saves …'}
        </Button>
      )}
    </section>
  );
}

function Choice({
  whole,
  thin,
  onChoose,
}: {
  whole: number;
  thin: boolean;
  onChoose: (thin: boolean, whole: number) => Promise<void>;
}) {
  const [typed, setTyped] = useState(String(whole));
  const wanted = Number(typed);
  const sound = Number.isInteger(wanted) && wanted >= LEAST && wanted <= MOST;
  const { currentData: look, error } = useHistoryQuery(wanted, { skip: !sound });
  const [working, setWorking] = useState(false);
  const choose = async (on: boolean, kept: number): Promise<void> => {
    setWorking(true);
    await onChoose(on, kept);
    setWorking(false);
  };
  return (
    <div className="pt-2">
      <p>
        Of each station and rig the newest saves stay as they are. Of older ones stay the last of
        each spell of work (ten minutes without a save end one), the first of all, those with a name
        and those you went on from.
      </p>
      <label className="mt-2 flex items-center gap-2">
        Newest saves that stay
        <input
          inputMode="numeric"
          value={typed}
          onChange={(event) => setTyped(event.target.value.trim())}
          aria-invalid={!sound}
          className="figure min-h-9 w-24 border border-rule-strong bg-transparent px-2 pointer-coarse:min-h-11"
        />
      </label>
      <p role="status" className="min-h-[3em] pt-2">
        {!sound
          ? `Give a whole number from ${LEAST} to ${count(MOST)}.`
          : error
            ? sentence(error)
            : look
              ? look.would.saves === 0
                ? `This would take away nothing now: there are ${count(look.would.of)} saves in all.`
                : `This takes away ${count(look.would.saves)} of ${count(look.would.of)} saves, of ${count(look.would.documents)} ${look.would.documents === 1 ? 'document' : 'documents'}, at once and for good. Later, older saves go every hour.`
              : 'Counting …'}
      </p>
      <div className="flex flex-wrap gap-2 pt-1">
        <Button disabled={!sound || !look || working} onClick={() => void choose(true, wanted)}>
          Thin them out
        </Button>
        <Button look="strong" disabled={working} onClick={() => void choose(false, whole)}>
          {thin ? 'Keep every save from now on' : 'Keep every save'}
        </Button>
      </div>
    </div>
  );
}
