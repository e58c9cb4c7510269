import type { ReactNode } from 'react';
import { SharpnessNote } from './sharpness-note.js';
import { StationPart } from './station-part.js';

/** A page of a step that is drawn: the drawing as its largest part, figures and fields beside it. */
export function DrawnPage({
  title,
  about,
  care,
  sharpness = true,
  drawing,
  children,
}: {
  title: string;
  about: ReactNode;
  /** What to be careful with. */
  care?: string;
  /** Its figures rest on what counts as sharp, which is told at the end. */
  sharpness?: boolean;
  drawing: ReactNode;
  children: ReactNode;
}) {
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage max-lg:min-h-[24rem] print:min-h-[12cm]">
        <StationPart name="The drawing">{drawing}</StationPart>
      </div>
      <aside
        aria-label={title}
        className="w-full shrink-0 space-y-4 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[372px]"
      >
        <div>
          <h1 className="text-[18px] font-semibold">{title}</h1>
          <p className="text-[13px] text-quiet">{about}</p>
        </div>
        <StationPart name="This page">{children}</StationPart>
        {care !== undefined && (
          <p role="note" className="border-l-2 border-costs pl-3 text-[13px]">
            {care}
          </p>
        )}
        {sharpness && <SharpnessNote />}
      </aside>
    </>
  );
}
