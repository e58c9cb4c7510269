import clsx from 'clsx';
import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { NavLink, useNavigate } from 'react-router';
import { MenuContent } from '../ui/row-menu.js';

const SECTIONS = [
  ['/jobs', 'Jobs'],
  ['/rigs', 'Rigs'],
  ['/kit', 'Kit'],
] as const;

const WORDS = ['/words', 'Words'] as const;

/** The three lists everything else opens from. */
export const Sections = () => (
  <>
    {SECTIONS.map(([to, label]) => (
      <NavLink
        key={to}
        to={to}
        className={({ isActive }) =>
          clsx(
            'flex min-h-9 items-center pointer-coarse:min-h-11',
            isActive ? 'font-semibold text-ink' : 'text-quiet hover:text-ink',
          )
        }
      >
        {label}
      </NavLink>
    ))}
  </>
);

/** The same where other things need the room: in a menu on a phone. */
export function TuckedSections() {
  const navigate = useNavigate();
  return (
    <>
      <span className="contents max-sm:hidden">
        <Sections />
      </span>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          aria-label="Jobs, rigs, kit, words"
          className="flex min-h-11 items-center text-quiet sm:hidden"
        >
          Lists <ChevronDown size={14} aria-hidden />
        </DropdownMenu.Trigger>
        <MenuContent
          items={[...SECTIONS, WORDS].map(([to, label]) => ({
            label,
            onSelect: () => void navigate(to),
          }))}
        />
      </DropdownMenu.Root>
    </>
  );
}
