import type { Laid } from '../store/mosaic.js';
import { selectLaid } from '../store/mosaic.js';
import { useAppSelector } from '../store/store.js';
import { PreviewBanner } from '../station/preview-banner.js';
import { ShiftDrawing } from './shift-drawing.js';
import type { Stepping } from './stepping.js';
import { TurnDrawing } from './turn-drawing.js';

/** The layout that is looked at: frames in the circle, or side by side where the camera turns. */
export function MosaicDrawing({ stepping }: { stepping: Stepping }) {
  const laid = useAppSelector(selectLaid);
  if (!laid) return null;
  return (
    <div className="relative flex min-h-0 flex-1 flex-col contain-content">
      {laid.layout.turn ? (
        <TurnDrawing {...{ laid, stepping }} />
      ) : (
        <ShiftDrawing {...{ laid, stepping }} />
      )}
      <PreviewBanner />
      <Steps {...{ laid, stepping }} />
    </div>
  );
}

const LOOK =
  'min-h-9 text-left text-[13px] text-quiet hover:text-ink disabled:opacity-40 pointer-coarse:min-h-11';

function Steps({ laid, stepping: { at, show, step } }: { laid: Laid; stepping: Stepping }) {
  const { length } = laid.layout.frames;
  return (
    <div className="flex w-fit flex-wrap items-center gap-x-5 bg-stage px-5 lg:absolute lg:bottom-px">
      <button type="button" className={LOOK} aria-label="Frame before" onClick={() => step(-1)}>
        ← <span className="text-faint pointer-coarse:hidden">P</span>
      </button>
      <span className="min-w-32 text-center text-[13px]" role="status">
        {at === null ? 'One frame at a time' : `Frame ${at + 1} of ${length}`}
      </span>
      <button type="button" className={LOOK} aria-label="Next frame" onClick={() => step(1)}>
        <span className="text-faint pointer-coarse:hidden">N</span> →
      </button>
      {at !== null && (
        <button type="button" className={LOOK} onClick={() => show(null)}>
          All frames
        </button>
      )}
    </div>
  );
}
