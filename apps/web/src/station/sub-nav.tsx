import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import { STEPS } from '../places.js';

/** The places within the step that is open. */
export function SubNav() {
  const { pathname } = useLocation();
  const [, base, step] = /^(\/jobs\/[^/]+\/stations\/[^/]+)\/([^/]+)/.exec(pathname) ?? [];
  const places = STEPS.find(({ path }) => path === step)?.places;
  const nav = useRef<HTMLElement>(null);
  // On a narrow screen the open place may lie off its edge.
  useEffect(() => {
    const open = nav.current?.querySelector<HTMLElement>('[aria-current="page"]');
    if (!nav.current || !open) return;
    nav.current.scrollLeft = open.offsetLeft - (nav.current.clientWidth - open.offsetWidth) / 2;
  }, [pathname]);
  if (!places) return null;
  return (
    <nav
      ref={nav}
      aria-label="Within this step"
      className="print:hidden flex overflow-x-auto border-b border-rule bg-paper px-3"
    >
      {places.map(({ path, label }) => (
        <NavLink
          key={path}
          to={`${base}/${path}`}
          end
          className={({ isActive }) =>
            `flex min-h-8 items-center px-2 text-[13px] whitespace-nowrap pointer-coarse:min-h-11 ${isActive ? 'font-semibold underline decoration-2 underline-offset-[7px]' : 'text-quiet hover:text-ink'}`
          }
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}
