import clsx from 'clsx';
import { NavLink } from 'react-router';

const SECTIONS = [
  ['/jobs', 'Jobs'],
  ['/rigs', 'Rigs'],
  ['/kit', 'Kit'],
] as const;

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
