import { useMemo } from 'react';
import {
  asFree,
  fixed,
  inOrder,
  sparingMove,
  troubleSaid,
  withFrameAdded,
  withFrameTaken,
  withFrameTurned,
  type Station,
} from '@gangway/station';
import { ChoiceField } from '../fields/fields.js';
import { Group } from '../station/results.js';
import { Tried } from '../station/tried.js';
import { WayList, type Way } from '../station/way-list.js';
import { useEditing } from '../store/editing.js';
import type { Laid } from '../store/mosaic.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { ProblemLines } from '../ui/problem-lines.js';
import { usePaced } from '../ui/use-paced.js';
import { Figures, Overlaps, Verdict } from './figures.js';
import { FrameList } from './frame-list.js';
import { PatternFields, Presets, TakeOne } from './pattern-fields.js';
import { ShiftDrawingEmpty } from './empty.js';
import { MosaicPage, type LaidStepping } from './page.js';

/** The drawing keeps up with the hand; the figures beside it are read at this pace. */
const READ_MS = 90;

/** Frames laid out over the picture, what comes out of them, and what they ask of the gear. */
export const LayoutPage = () => (
  <MosaicPage label="Layout" empty={<ShiftDrawingEmpty />}>
    {(shown) => (shown ? <Figured {...shown} /> : <Begin />)}
  </MosaicPage>
);

function Begin() {
  return (
    <div className="space-y-4">
      <div>
        <h1 className="text-[18px] font-semibold">Several frames, one picture</h1>
        <p className="text-[13px] text-quiet">
          Choose how the frames lie; they are drawn over your picture, with what comes out of them.
          Or say what you want, under Wish.
        </p>
      </div>
      <Presets title="Lay out" />
    </div>
  );
}

function Figured({ laid: now, stepping }: LaidStepping) {
  const laid = usePaced(now, READ_MS);
  const { station, report } = laid;
  return (
    <>
      <Verdict report={report} />
      <Tried />
      <ProblemLines problems={report.problems} />
      <Seams laid={laid} />
      {laid.layout.frames.length > 0 && <Figures laid={laid} />}
      <Group title="The layout">
        <PatternFields station={station} mosaic={station.mosaic!} />
      </Group>
      <FrameList {...{ laid, stepping }} />
      <Overlaps report={report} />
      <FrameEdits {...{ laid, stepping }} />
      <Presets title="Another pattern" />
      <MarksAtSeams station={station} />
      <TakeOne />
    </>
  );
}

/** A seam through something that would show, and the move that spares it. */
function Seams({ laid: { station, layout, troubles } }: { laid: Laid }) {
  const { ways, all } = useMemo((): { ways: Way[]; all: boolean } => {
    if (troubles.length === 0) return { ways: [], all: true };
    const { move, all } = sparingMove(station);
    if (!move) return { ways: [], all };
    const { dx, dy, after } = move;
    const way = Math.abs(dx) >= Math.abs(dy) ? (dx > 0 ? 'right' : 'left') : dy > 0 ? 'up' : 'down';
    const by = fixed(Math.max(Math.abs(dx), Math.abs(dy)), 1);
    const found = [
      {
        id: 'seam',
        title: `Move all frames ${by} mm ${way}`,
        detail: 'spares it; the picture goes with them',
        after,
      },
    ];
    return { ways: found, all };
  }, [station, troubles]);
  if (troubles.length === 0) return null;
  return (
    <Group title="At the seams">
      <ul className="pb-1">
        {troubles.map((trouble) => (
          <li key={`${trouble.index} ${trouble.seam.a} ${trouble.seam.b}`} className="text-costs">
            {troubleSaid(trouble)}
          </li>
        ))}
      </ul>
      {ways.length === 0 ? (
        <p className="text-[13px] text-quiet">
          {layout.mosaic.pattern === 'grid' || layout.mosaic.pattern === 'free'
            ? all
              ? 'No move of all frames spares it; change the overlap, or move one frame.'
              : 'With so many frames not every move was tried; change the overlap, or move one frame.'
            : 'These frames cannot be moved together; choose another pattern.'}
        </p>
      ) : (
        <WayList ways={ways} />
      )}
    </Group>
  );
}

/** Frames by hand: added beside the one that is looked at, turned, taken away. */
function FrameEdits({ laid: { station, layout }, stepping }: LaidStepping) {
  const { change } = useEditing();
  const { mosaic } = layout;
  const at = stepping.at ?? layout.frames.length - 1;
  if (mosaic.pattern === 'turn') return null;
  const edit = (label: string, write: (now: Station) => Station) => () =>
    change(label, '/mosaic/places', write);
  return (
    <Group title="By hand">
      <div className="flex flex-wrap gap-1.5">
        {mosaic.pattern !== 'free' && (
          <Button onClick={edit('Take the pattern apart', asFree)}>Move each by itself</Button>
        )}
        <Button
          onClick={() => {
            edit('Add a frame', (now) => withFrameAdded(now, at))();
            stepping.show(at + 1);
          }}
        >
          Add a frame
        </Button>
        {layout.frames.length > 0 && (
          <>
            <Button
              aria-label={`Turn frame ${at + 1}`}
              onClick={edit(`Turn frame ${at + 1}`, (now) => withFrameTurned(now, at))}
            >
              Turn {at + 1}
            </Button>
            <Button
              aria-label={`Take frame ${at + 1} away`}
              onClick={edit(`Take frame ${at + 1} away`, (now) => withFrameTaken(now, at))}
            >
              Take {at + 1} away
            </Button>
          </>
        )}
        {mosaic.pattern === 'free' && layout.frames.length > 2 && (
          <Button onClick={edit('Put the frames in order', inOrder)}>Put in order</Button>
        )}
      </div>
      {station.movement_limits.detent_mm !== undefined && mosaic.pattern === 'free' && (
        <p className="pt-1 text-[13px] text-quiet">Frames drop onto the detents.</p>
      )}
    </Group>
  );
}

const CARES = [
  ['none', 'nothing'],
  ['fine', 'fine detail'],
  ['moving', 'moves'],
] as const;

/** What a seam must not run through, mark by mark. */
function MarksAtSeams({ station }: { station: Station }) {
  const marks = useAppSelector(selectStation).marks ?? [];
  if (marks.length === 0 || station.mosaic?.pattern === 'turn') return null;
  return (
    <Group title="Keep the seams off">
      <div className="space-y-1.5">
        {marks.map((mark, i) => (
          <ChoiceField
            key={i}
            label={mark.label || `Mark ${i + 1}`}
            pointer={`/marks/${i}/at_seams`}
            value={mark.at_seams ?? 'none'}
            options={CARES}
            write={(now, care) => ({
              ...now,
              marks: now.marks!.map((each, j) => {
                if (j !== i) return each;
                const { at_seams: _, ...rest } = each;
                return care === 'none' ? rest : { ...rest, at_seams: care };
              }),
            })}
          />
        ))}
      </div>
    </Group>
  );
}
