import { useEffect, useState } from 'react';
import { clockAfter, timeSaid, withExposure, type Station } from '@gangway/station';
import { TextField, useStation } from '../fields/fields.js';
import { Line } from '../station/results.js';
import type { Exposed } from '../store/exposure.js';

const two = (value: number): string => String(value).padStart(2, '0');

/** `6:30`, `0630`, `18.05` as the document has it; what is none of them is left for its rule to refuse. */
export function clockOf(text: string): string {
  const found = /^(\d{1,2})[:.h]?(\d{2})$/.exec(text.trim());
  return found ? `${two(Number(found[1]))}:${found[2]}` : text.trim();
}

const writeClock =
  (field: 'starts_at' | 'ends_by') =>
  (now: Station, text: string): Station =>
    withExposure(now, { [field]: text === '' ? undefined : clockOf(text) });

/** When it begins, by when it has to be over, and when it is. */
export function ClockFields({ exposed: { report } }: { exposed: Exposed }) {
  const { exposure } = useStation();
  const { total_s: total, ends_at: ends } = report;
  return (
    <div className="space-y-1.5">
      <TextField
        label="Shutter opens at"
        pointer="/exposure/starts_at"
        value={exposure?.starts_at}
        write={writeClock('starts_at')}
      />
      <TextField
        label="Over by, for light or tide"
        pointer="/exposure/ends_by"
        value={exposure?.ends_by}
        write={writeClock('ends_by')}
      />
      {total !== null && total >= WORTH_S && (
        <>
          <Line name="It takes" figure={timeSaid(total)} />
          {ends === null ? <Now total={total} /> : <Line name="It ends at" figure={ends} />}
        </>
      )}
    </div>
  );
}

/** Shorter than this nobody looks at a clock. */
const WORTH_S = 10;

/** Opened this very second it ends then. */
function Now({ total }: { total: number }) {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), 1000);
    return () => clearInterval(timer);
  }, []);
  const clock = `${two(now.getHours())}:${two(now.getMinutes())}`;
  return (
    <Line name="Opened now, it ends at" figure={clockAfter(clock, now.getSeconds() + total)} />
  );
}
