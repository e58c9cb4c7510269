import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { lightChosen, unitsChosen } from '../store/preferences.js';
import { Sections, TuckedSections } from './sections.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';

/** The thin line at the top of every screen: where one is and may go on the left, what one may do on the right. */
export function PageTop({ trail, children }: { trail?: ReactNode; children?: ReactNode }) {
  return (
    <header className="flex min-h-11 flex-wrap items-center gap-x-5 border-b border-rule bg-page px-5 text-[14px]">
      <Link to="/jobs" className="text-[15px] font-bold tracking-tight [font-stretch:112%]">
        Gangway
      </Link>
      <nav aria-label="Lists" className="print:hidden flex items-center gap-x-4">
        {trail === undefined ? <Sections /> : <TuckedSections />}
      </nav>
      <div
        aria-label="Where you are"
        className="flex min-w-0 flex-1 items-center gap-x-4"
        role="group"
      >
        {trail}
      </div>
      <div className="flex flex-wrap items-center gap-x-3 sm:gap-x-4">
        {children}
        <Link
          to="/words"
          className={`${TOP_BUTTON} inline-flex items-center ${trail === undefined ? '' : 'max-sm:hidden'}`}
        >
          Words
        </Link>
        <UnitsButton />
        <LightButton />
      </div>
    </header>
  );
}

export const TOP_BUTTON =
  'print:hidden min-h-9 text-quiet hover:text-ink disabled:opacity-40 disabled:hover:text-quiet pointer-coarse:min-h-11';

function UnitsButton() {
  const dispatch = useAppDispatch();
  const units = useAppSelector((state) => state.preferences.units);
  const feet = units === 'feet';
  return (
    <button
      type="button"
      className={TOP_BUTTON}
      aria-label={`Units: ${feet ? 'millimetres and feet' : 'millimetres and metres'}; change`}
      onClick={() => dispatch(unitsChosen(feet ? 'metric' : 'feet'))}
    >
      {feet ? 'mm · ft' : 'mm · m'}
    </button>
  );
}

function LightButton() {
  const dispatch = useAppDispatch();
  const light = useAppSelector((state) => state.preferences.light);
  const dark = light === 'darkcloth';
  return (
    <button
      type="button"
      className={TOP_BUTTON}
      aria-label={`Light: ${dark ? 'Darkcloth' : 'Daylight'}; change`}
      onClick={() => dispatch(lightChosen(dark ? 'daylight' : 'darkcloth'))}
    >
      {dark ? 'Darkcloth' : 'Daylight'}
    </button>
  );
}
