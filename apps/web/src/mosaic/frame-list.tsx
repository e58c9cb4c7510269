import isEqual from 'fast-deep-equal';
import { memo } from 'react';
import { CORNER_NAMES, fixed, type MosaicFrame } from '@gangway/station';
import { Group } from '../station/results.js';
import type { Laid } from '../store/mosaic.js';
import { STANDING_TEXT } from '../ui/standing.js';
import type { Stepping } from './stepping.js';

const stateOf = ({ lost, sharp }: MosaicFrame): readonly [string, string] => {
  if (lost.length > 0) {
    const where = lost.length === 1 ? CORNER_NAMES[lost[0]!] : `${lost.length} corners`;
    return [`${where} black`, STANDING_TEXT.outside];
  }
  return sharp ? ['holds', STANDING_TEXT.within] : ['soft corner', STANDING_TEXT.costs];
};

/** Frames one by one: where they lie, and how each stands. A press shows what it sees. */
export function FrameList({ laid: { report }, stepping }: { laid: Laid; stepping: Stepping }) {
  return (
    <Group title="Frames">
      <ol>
        {report.frames.map((frame, i) => (
          <Row key={i} frame={frame} held={stepping.at === i} show={stepping.show} />
        ))}
      </ol>
    </Group>
  );
}

/** Drawn again only where the frame itself has changed. */
const Row = memo(function Row({
  frame,
  held,
  show,
}: {
  frame: MosaicFrame;
  held: boolean;
  show: Stepping['show'];
}) {
  const [words, tone] = stateOf(frame);
  return (
    <li className="border-t border-rule">
      <button
        type="button"
        aria-pressed={held}
        aria-label={`Show frame ${frame.order}`}
        onClick={() => show(held ? null : frame.order - 1)}
        className="flex min-h-8 w-full items-center justify-between gap-3 px-1 text-left hover:bg-page aria-pressed:bg-page pointer-coarse:min-h-11"
      >
        <span>
          <span className="figure mr-2">{frame.order}</span>
          {frame.yaw_deg === undefined ? (
            <>
              <span className="figure">{fixed(frame.x_mm, 1)}</span>
              <span className="text-quiet"> across, </span>
              <span className="figure">{fixed(frame.y_mm, 1)}</span>
              <span className="text-quiet"> up</span>
              {frame.rotation_deg !== 0 && (
                <span className="text-quiet">, {fixed(frame.rotation_deg, 0)}°</span>
              )}
            </>
          ) : (
            <span className="figure">{fixed(frame.yaw_deg, 1)}°</span>
          )}
        </span>
        <span className={`text-[13px] ${tone}`}>
          {words}
          {frame.falloff_stops !== null && frame.falloff_stops >= 0.5 && (
            <span className="text-quiet">, −{fixed(frame.falloff_stops, 1)} st</span>
          )}
        </span>
      </button>
    </li>
  );
}, isEqual);
