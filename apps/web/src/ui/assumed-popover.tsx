import { assumedWhy, type Assumption } from '@gangway/station';
import { AssumedRing, RING_BUTTON } from './assumed-ring.js';
import { Beside } from './beside.js';

/** What a figure rests on, open beside its ring. */
export default function AssumedPopover({
  found,
  of,
}: {
  found: readonly Assumption[];
  of: string;
}) {
  return (
    <Beside label={`Assumed: ${of}`} mark={<AssumedRing />} className={RING_BUTTON}>
      <h3 className="mb-2 font-semibold">Assumed, not given</h3>
      <AssumedLines found={found} />
    </Beside>
  );
}

export function AssumedLines({ found }: { found: readonly Assumption[] }) {
  return (
    <ul className="space-y-2">
      {found.map((each) => (
        <li key={each.pointer} className="flex gap-2">
          <span className="mt-1.5 text-costs">
            <AssumedRing />
          </span>
          <span>{assumedWhy(each)}</span>
        </li>
      ))}
    </ul>
  );
}
