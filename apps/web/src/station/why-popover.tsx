import { CircleHelp } from 'lucide-react';
import { why, type Reason } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { useAssumed } from './assumed.js';
import { AssumedLines } from '../ui/assumed-popover.js';
import { Beside } from '../ui/beside.js';
import { WHY } from './why-look.js';

/** The reason, open beside its question mark. */
export default function WhyPopover({ reason, of }: { reason: Reason; of: string }) {
  return (
    <Beside label={`Why: ${of}`} mark={<CircleHelp size={14} aria-hidden />} className={WHY}>
      <Reasoned reason={reason} />
    </Beside>
  );
}

function Reasoned({ reason }: { reason: Reason }) {
  const station = useAppSelector(selectStation);
  const { title, result, words, formula, numbers, source, rests } = why(reason, station);
  const assumed = useAssumed(rests);
  return (
    <>
      <div className="flex items-baseline justify-between gap-3">
        <h3 className="font-semibold">{title}</h3>
        <span className="figure text-[18px] whitespace-nowrap">{result}</span>
      </div>
      <p className="mt-2">{words}</p>
      <p className="figure my-3 border-l-2 border-ink pl-3">{formula}</p>
      <dl>
        {numbers.map(({ symbol, meaning, value }) => (
          <div key={symbol} className="flex gap-3 border-t border-rule py-1">
            <dt className="figure w-12 shrink-0">{symbol}</dt>
            <dd className="flex-1 text-quiet">{meaning}</dd>
            <dd className="figure text-right">{value}</dd>
          </div>
        ))}
      </dl>
      {assumed.length > 0 && (
        <div className="mt-2 border-t border-rule pt-2">
          <h4 className="mb-1 font-semibold">Assumed, not given</h4>
          <AssumedLines found={assumed} />
        </div>
      )}
      <p className="mt-2 border-t border-rule pt-2 text-[13px] text-quiet">{source}</p>
    </>
  );
}
