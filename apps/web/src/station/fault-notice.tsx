import { useMemo } from 'react';
import { faultSentence, parseStation, readKept } from '@gangway/station';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { usePaced } from '../ui/use-paced.js';

/**
 * Values of a station kept from a time with fewer rules: named until they are mended, and never in
 * the way of anything else.
 */
export function FaultNotice() {
  const { id, faulty } = useAppSelector(selectOpen);
  return faulty ? <Faults key={id} /> : null;
}

function Faults() {
  const station = usePaced(
    useAppSelector((state) => selectOpen(state).present),
    300,
  );
  const faults = useMemo(() => readKept(parseStation, station).faults, [station]);
  if (faults.length === 0) return null;
  return (
    <p
      role="status"
      className="border-b border-rule border-l-4 border-l-costs bg-paper px-5 py-1.5"
    >
      {faults.length === 1 ? 'One value is' : `${faults.length} values are`} outside what may be set
      today: {faultSentence(faults[0]!)}
      {faults.length > 1 && ` And ${faults.length - 1} more.`} The figures rest on what is kept.
    </p>
  );
}
