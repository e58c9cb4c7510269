import clsx from 'clsx';
import type { MouseEvent } from 'react';
import { NavLink } from 'react-router';

const SECTIONS = [
  ['/jobs', 'Jobs'],
  ['/rigs', 'Rigs'],
  ['/kit', 'Kit'],
  ['/lenses', 'Lenses'],
] as const;

const WORDS = ['/words', 'Words'] as const;

/** The lists everything else opens from. */
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

const closeMenu = ({ currentTarget }: MouseEvent<HTMLElement>): void =>
  currentTarget.closest('details')?.removeAttribute('open');

/** The same where other things need the room: folded away on a phone. */
export const TuckedSections = () => (
  <>
    <span className="contents max-sm:hidden">
      <Sections />
    </span>
    <details className="relative sm:hidden">
      <summary
        aria-label="Jobs, rigs, kit, lenses, words"
        className="flex min-h-11 cursor-pointer list-none items-center text-quiet"
      >
        Lists ▾
      </summary>
      <div className="absolute left-0 z-20 min-w-32 border border-rule-strong bg-paper py-1">
        {[...SECTIONS, WORDS].map(([to, label]) => (
          <NavLink
            key={to}
            to={to}
            onClick={closeMenu}
            className="flex min-h-11 items-center px-4 hover:bg-stage"
          >
            {label}
          </NavLink>
        ))}
      </div>
    </details>
  </>
);
