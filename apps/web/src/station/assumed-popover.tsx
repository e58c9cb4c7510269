import { Popover } from 'radix-ui';
import type { Assumption } from '@gangway/station';
import { AssumedRing, RING_BUTTON } from './assumed-ring.js';

/** What a figure rests on, open beside its ring. */
export default function AssumedPopover({
  found,
  of,
}: {
  found: readonly Assumption[];
  of: string;
}) {
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger aria-label={`Assumed: ${of}`} className={RING_BUTTON}>
        <AssumedRing />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          align="start"
          sideOffset={12}
          collisionPadding={12}
          className="z-20 w-[min(24rem,calc(100vw-1.5rem))] border border-rule-strong bg-paper p-4"
        >
          <h3 className="mb-2 font-semibold">Assumed, not given</h3>
          <AssumedLines found={found} />
          <Popover.Arrow className="fill-rule-strong" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function AssumedLines({ found }: { found: readonly Assumption[] }) {
  return (
    <ul className="space-y-2">
      {found.map(({ pointer, why }) => (
        <li key={pointer} className="flex gap-2">
          <span className="mt-1.5 text-costs">
            <AssumedRing />
          </span>
          <span>{why}</span>
        </li>
      ))}
    </ul>
  );
}
