import { DropdownMenu } from 'radix-ui';
import { Ellipsis } from 'lucide-react';
import { useState } from 'react';

interface Deed {
  label: string;
  onSelect: () => void;
}

/** What cannot be undone is asked for twice: the second time under another name. */
export type MenuItem = Deed | { label: string; confirm: Deed };

/** The open list of a menu. */
export const MenuContent = ({ items }: { items: readonly MenuItem[] }) => (
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      align="end"
      className="z-20 min-w-40 border border-rule-strong bg-paper py-1"
    >
      {items.map((item) => (
        <MenuLine key={item.label} item={item} />
      ))}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
);

function MenuLine({ item }: { item: MenuItem }) {
  const [sure, setSure] = useState(false);
  const deed = 'confirm' in item ? item.confirm : item;
  const asks = 'confirm' in item && !sure;
  return (
    <DropdownMenu.Item
      onSelect={(event) => {
        if (!asks) {
          deed.onSelect();
          return;
        }
        event.preventDefault();
        setSure(true);
      }}
      className="cursor-pointer px-4 py-2 outline-none data-highlighted:bg-ink data-highlighted:text-on-strong"
    >
      {asks ? item.label : deed.label}
    </DropdownMenu.Item>
  );
}

const TRIGGER =
  'print:hidden flex size-11 shrink-0 items-center justify-center text-quiet hover:text-ink';

/** The menu of one line. Lists are long: until it is asked for, it is a plain button. */
export function RowMenu({ label, itemsOf }: { label: string; itemsOf: () => readonly MenuItem[] }) {
  const [asked, setAsked] = useState(false);
  const dots = <Ellipsis size={18} aria-hidden />;
  if (!asked) {
    return (
      <button
        type="button"
        aria-label={label}
        aria-haspopup="menu"
        onClick={() => setAsked(true)}
        className={TRIGGER}
      >
        {dots}
      </button>
    );
  }
  return (
    <DropdownMenu.Root modal={false} defaultOpen>
      <DropdownMenu.Trigger aria-label={label} className={TRIGGER}>
        {dots}
      </DropdownMenu.Trigger>
      <MenuContent items={itemsOf()} />
    </DropdownMenu.Root>
  );
}
