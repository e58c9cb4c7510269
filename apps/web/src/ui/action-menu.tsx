import { DropdownMenu } from 'radix-ui';
import { ChevronDown } from 'lucide-react';
import { Button } from './button.js';
import { MenuContent, type MenuItem } from './row-menu.js';

/** A button that opens a short list of things to do. */
export function ActionMenu({
  label,
  items,
  look = 'plain',
}: {
  label: string;
  items: readonly MenuItem[];
  look?: 'plain' | 'strong';
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look={look}>
          {label} <ChevronDown size={15} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <MenuContent items={items} />
    </DropdownMenu.Root>
  );
}
