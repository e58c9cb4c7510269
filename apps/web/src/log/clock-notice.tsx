import { useMemo } from 'react';
import { movedMoment, offSaid, type LogChange, type Logged } from '@gangway/station';
import { logKeeper } from '../store/log.js';
import { Button } from '../ui/button.js';
import { counted } from '../ui/counted.js';

/** Lines logged by a clock that was far off: taken as they came, and asked about here. */
export function ClockNotice({ lines }: { lines: readonly Logged[] }) {
  const off = useMemo(() => lines.filter(({ clock_off_s: each }) => each !== undefined), [lines]);
  const [first] = off;
  if (!first) return null;
  const decide = (label: string, times: boolean): void => {
    const changes = off.flatMap(({ id, at, clock_off_s: by }): LogChange[] => {
      const to = times ? movedMoment(at, by!) : at;
      if (to === null) return [];
      return [
        {
          id,
          set: { clock_off_s: { was: by }, ...(to === at ? {} : { at: { was: at, to } }) },
        },
      ];
    });
    logKeeper.change({ label, changes });
  };
  return (
    <section
      aria-label="Clock of a device"
      className="my-2 flex flex-wrap items-center gap-x-3 gap-y-2 border-l-2 border-costs pl-3"
    >
      <p role="status" className="max-w-3xl">
        {counted(off.length, 'line')} {off.length === 1 ? 'was' : 'were'} logged by a device whose
        clock stood {offSaid(first.clock_off_s!)} the server’s when{' '}
        {off.length === 1 ? 'it was' : 'they were'} sent.{' '}
        {off.length === 1 ? 'It stands' : 'They stand'} where the corrected time puts{' '}
        {off.length === 1 ? 'it' : 'them'}.
      </p>
      <Button look="strong" onClick={() => decide('Correct times', true)}>
        Correct {off.length === 1 ? 'its time' : 'their times'}
      </Button>
      <Button onClick={() => decide('Leave times', false)}>The device was right</Button>
    </section>
  );
}
