import { DropdownMenu } from 'radix-ui';
import { Ellipsis } from 'lucide-react';

export interface MenuItem {
  label: string;
  onSelect: () => void;
}

/** The open list of a menu. */
export const MenuContent = ({ items }: { items: readonly MenuItem[] }) => (
  <DropdownMenu.Portal>
    <DropdownMenu.Content
      align="end"
      className="z-20 min-w-40 border border-rule-strong bg-paper py-1"
    >
      {items.map((item) => (
        <DropdownMenu.Item
          key={item.label}
          onSelect={item.onSelect}
          className="cursor-pointer px-4 py-2 outline-none data-highlighted:bg-ink data-highlighted:text-on-strong"
        >
          {item.label}
        </DropdownMenu.Item>
      ))}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
);

export function RowMenu({ label, items }: { label: string; items: readonly MenuItem[] }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        aria-label={label}
        className="flex size-11 shrink-0 items-center justify-center text-quiet hover:text-ink"
      >
        <Ellipsis size={18} aria-hidden />
      </DropdownMenu.Trigger>
      <MenuContent items={items} />
    </DropdownMenu.Root>
  );
}
