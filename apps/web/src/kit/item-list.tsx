import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useRef } from 'react';
import { Link } from 'react-router';
import { faultSentence, KIND_WORDS, keptName, mountsOf, summaryOf } from '@gangway/station';
import { BrokenLine, Line } from '../ui/boundary.js';
import { RowMenu, type MenuItem } from '../ui/row-menu.js';
import type { StoredDocument } from '../records/shapes.js';
import { readItem } from '../records/read-kit.js';

interface Props {
  items: readonly StoredDocument[];
  /** Asked when a menu is opened. */
  menuOf: (stored: StoredDocument) => MenuItem[];
  asideOf: (stored: StoredDocument) => string;
}

const ROW_PX = 58;

/** A list of any length; only the lines in sight are there. */
export function ItemList({ items, menuOf, asideOf }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    getItemKey: (index) => items[index]!.id,
    overscan: 4,
  });
  return (
    <div ref={box} className="min-h-0 flex-1 overflow-y-auto pb-4">
      <ul aria-label="Kit" className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start, key }) => (
          <li
            key={key}
            aria-setsize={items.length}
            aria-posinset={index + 1}
            style={{ height: ROW_PX, transform: `translateY(${start}px)` }}
            className="absolute inset-x-0 top-0 flex items-center border-b border-rule hover:bg-paper"
          >
            <Row stored={items[index]!} menuOf={menuOf} asideOf={asideOf} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Drawn once while it is in sight, however far it is moved. */
const Row = memo(function Row({
  stored,
  menuOf,
  asideOf,
}: { stored: StoredDocument } & Omit<Props, 'items'>) {
  const name = keptName(stored.document);
  return (
    <>
      <Line name={name} of={stored.document}>
        <ItemLine stored={stored} aside={asideOf(stored)} />
      </Line>
      <RowMenu label={`More for ${name}`} itemsOf={() => menuOf(stored)} />
    </>
  );
});

function ItemLine({ stored, aside }: { stored: StoredDocument; aside: string }) {
  const { value: document, faults } = readItem(stored.document);
  if (!document) {
    return (
      <Link to={`/kit/${stored.id}`} className="flex min-w-0 flex-1">
        <BrokenLine
          name={keptName(stored.document)}
          why={faults[0] ? faultSentence(faults[0]) : ''}
        />
      </Link>
    );
  }
  return (
    <Link
      to={`/kit/${stored.id}`}
      className="flex min-w-0 flex-1 items-baseline gap-x-6 self-stretch px-2 py-2"
    >
      <span className="min-w-0 flex-1">
        <span className="block truncate text-[16px] font-medium">{document.name}</span>
        <span className="block truncate text-[13px] text-quiet">
          {KIND_WORDS[document.kind].one} · {summaryOf(document)}
        </span>
      </span>
      <span className="hidden w-56 truncate text-[13px] text-quiet md:block">
        {mountsOf(document)}
      </span>
      <span className="hidden w-36 truncate text-right text-[13px] text-quiet lg:block">
        {aside}
      </span>
    </Link>
  );
}
