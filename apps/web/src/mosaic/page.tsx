import type { ReactNode } from 'react';
import { StationPart } from '../station/station-part.js';
import { selectLaid, type Laid } from '../store/mosaic.js';
import { useAppSelector } from '../store/store.js';
import { Aside } from '../station/aside.js';
import { MosaicDrawing } from './drawing.js';
import { useStepping, type Stepping } from './stepping.js';

export interface LaidStepping {
  readonly laid: Laid;
  readonly stepping: Stepping;
}

/** A page of Mosaic: the layout drawn, what is said of it beside. */
export function MosaicPage({
  label,
  empty,
  children,
}: {
  label: string;
  /** Stands in the drawing's place until frames are laid out. */
  empty: ReactNode;
  children: (shown: LaidStepping | null) => ReactNode;
}) {
  const laid = useAppSelector(selectLaid);
  const stepping = useStepping(laid?.layout.frames.length ?? 0);
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage max-lg:min-h-[24rem] print:min-h-[12cm]">
        <StationPart name="The drawing">
          {laid ? <MosaicDrawing stepping={stepping} /> : empty}
        </StationPart>
      </div>
      <Aside label={label}>{children(laid && { laid, stepping })}</Aside>
    </>
  );
}
