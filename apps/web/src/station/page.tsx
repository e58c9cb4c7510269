import type { ReactNode } from 'react';
import { SharpnessNote } from './sharpness-note.js';
import { StationPart } from './station-part.js';

/** A page of a step that is read rather than drawn on. */
export function Page({
  title,
  about,
  care,
  drawing,
  sharpness = true,
  children,
}: {
  title: string;
  about: ReactNode;
  /** What to be careful with. */
  care?: string;
  /** What it looks like, beside what is said of it. */
  drawing?: ReactNode;
  /** Its figures rest on what counts as sharp, which is told under the title. */
  sharpness?: boolean;
  children: ReactNode;
}) {
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-paper px-5 py-4">
      <div className="gap-8 lg:flex">
        <div className="max-w-[72ch] pb-4">
          <h1 className="text-[18px] font-semibold">{title}</h1>
          <p className="text-quiet">{about}</p>
          {sharpness && <SharpnessNote />}
          {care !== undefined && (
            <p role="note" className="mt-4 border-l-2 border-costs pl-3">
              {care}
            </p>
          )}
        </div>
        {drawing !== undefined && <StationPart name="The drawing">{drawing}</StationPart>}
      </div>
      <StationPart name="This page">{children}</StationPart>
    </div>
  );
}

/** One large figure with what it is. */
export function Big({
  name,
  figure,
  unit,
  tone,
  children,
}: {
  name: ReactNode;
  figure: string;
  unit?: string;
  tone?: string;
  children?: ReactNode;
}) {
  return (
    <div className="min-w-36 border-t-2 border-ink pt-1">
      <p className="text-quiet">{name}</p>
      <p className={tone}>
        <span className="figure text-[28px] leading-9">{figure}</span>
        {unit && <span className="ml-1 text-[14px] text-quiet">{unit}</span>}
      </p>
      {children && <p className="max-w-56 text-[13px] text-quiet">{children}</p>}
    </div>
  );
}
