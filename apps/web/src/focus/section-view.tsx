import { useCallback, useMemo, useState } from 'react';
import {
  fixed,
  sectionOf,
  type Section,
  type SectionKind,
  type Station,
  type Units,
} from '@gangway/station';
import { selectShown } from '../store/selectors.js';
import { useAppSelector, useAppStore } from '../store/store.js';
import { Dashes } from '../drawing/dashes.js';
import { Drawn } from '../drawing/drawn.js';
import { useSize } from '../drawing/use-size.js';
import { Assumed, useAssumed } from '../station/assumed.js';
import { Camera, HingeMark } from './section-camera.js';
import { CameraDimensions, Ordinates } from './section-dimensions.js';
import { CROWD, Mark, markAt, needsWords } from './section-mark.js';
import {
  along,
  namePlaces,
  nameRect,
  sectionSheet,
  type SectionSheet,
  type Zoom,
} from './section-sheet.js';
import { LimitNames, Meeting, PlaneHandle, Wedge } from './section-wedge.js';
import { described, WORDS } from './section-words.js';

/** A cut through camera and scene with the wedge of sharpness lying in it. */
export function SectionView({ kind, zoom }: { kind: SectionKind; zoom: Zoom }) {
  const station = useAppSelector(selectShown);
  const units = useAppSelector((state) => state.preferences.units);
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const section = useMemo(() => sectionOf(station, kind), [station, kind]);
  const [held, setHeld] = useState<Section | null>(null);
  // The sheet stands still while something on it is held.
  const sheet = useMemo(
    () => sectionSheet(held ?? section, zoom, width, height - footPx(zoom, height)),
    [held, section, zoom, width, height],
  );
  const words = WORDS[kind];
  const store = useAppStore();
  // The same function throughout, so that marks which did not change are not drawn again.
  const onHold = useCallback(
    (hold: boolean) => setHeld(hold ? sectionOf(selectShown(store.getState()), kind) : null),
    [store, kind],
  );
  return (
    <Drawn
      {...{ box, size }}
      label={`${words.name}. ${described(section, units)}`}
      role="group"
      className="min-h-56 flex-1 lg:min-h-0"
      over={
        <span className="absolute top-1 right-2 flex items-center text-[12px] text-quiet">
          <AssumedWords />
        </span>
      }
    >
      <Scene {...{ station, section, sheet, zoom, units, width, height }} onHold={onHold} />
      <text x={16} y={20} className="halo text-quiet">
        {words.name}
        {sheet.stretch > 1.01 &&
          `, ${kind === 'side' ? 'heights' : 'widths'} drawn ${fixed(sheet.stretch, 0)} times larger`}
      </text>
    </Drawn>
  );
}

/** What the wedge in the drawing rests on that nobody gave. */
function AssumedWords() {
  const rests = ['sharpness'] as const;
  return useAssumed(rests).length === 0 ? null : (
    <>
      near and far limits
      <Assumed rests={rests} of="limits of the wedge" />
    </>
  );
}

const UNNAMED = { up: 0, beside: false };

/** A lens farther off the sheet than this is not drawn. */
const LENS_PX = 40;

/** Room at the foot of a scene for the distances of what stands in it. */
const footPx = (zoom: Zoom, height: number): number => (zoom !== 'camera' && height > 190 ? 44 : 0);

interface SceneProps {
  station: Station;
  section: Section;
  sheet: SectionSheet;
  zoom: Zoom;
  units: Units;
  width: number;
  height: number;
  onHold: (held: boolean) => void;
}

function Scene(props: SceneProps) {
  const { section, sheet, zoom, units, width, height, station, onHold } = props;
  const { plane, groundM, outlines } = section;
  // As far as anything that a line on the sheet comes from.
  const reach = Math.max(
    1e-3,
    sheet.right - sheet.left,
    sheet.right,
    Math.abs(section.hinge?.y ?? 0),
  );
  const like = plane ? along(plane) : undefined;
  const room = { width, height };
  const shared = { scale: sheet.scaleX, scaleUp: sheet.scaleY, onHold };
  const crowd = section.marks.length > CROWD;
  const marks = section.marks.map((mark) => ({
    mark,
    at: markAt(mark, sheet, width),
    needs: needsWords(mark, section),
  }));
  const named = marks.map(({ mark, at, needs }) => ({
    ...at,
    chars: Math.max(mark.label.length, needs.length),
  }));
  const names = crowd ? [] : namePlaces(named);
  const taken =
    zoom !== 'camera' ? named.map((each, i) => nameRect(each, names[i] ?? UNNAMED)) : [];
  const foot = footPx(zoom, height);
  return (
    <>
      {groundM !== null && zoom !== 'camera' && (
        <line
          x1={0}
          x2={width}
          y1={sheet.y(groundM)}
          y2={sheet.y(groundM)}
          className="stroke-rule-strong"
          strokeWidth={1.5}
        />
      )}
      {zoom !== 'camera' &&
        outlines.map((outline, i) => (
          <polygon
            key={i}
            points={outline.map(sheet.at).join(' ')}
            className="fill-paper stroke-ink"
            strokeWidth={1.25}
            strokeLinejoin="round"
          />
        ))}
      <Wedge {...{ section, sheet, reach, like, room }} />
      <Dashes
        {...{ sheet, room }}
        from={{ x: 0, y: 0 }}
        to={{ x: section.axis.x * 40 * reach, y: section.axis.y * 40 * reach }}
        className="stroke-quiet"
        strokeDasharray="10 3 2 3"
      />
      {zoom === 'camera' && <Meeting {...{ section, sheet, reach, room }} />}
      {plane && <PlaneHandle {...{ section, sheet, reach, shared, width, height }} />}
      <HingeMark {...{ section, sheet, units, width, shared }} height={height - foot} />
      {sheet.x(0) > -LENS_PX && <Camera {...{ section, sheet, shared, zoom }} />}
      {zoom !== 'camera' &&
        marks.map(({ mark, at, needs }, i) => (
          <Mark
            key={mark.index}
            {...{ mark, at, needs, crowd, units, shared, width }}
            kind={section.kind}
            cocUm={section.cocUm}
            name={names[i] ?? UNNAMED}
            planeY={
              mark.plane && mark.must === 'sharp' && !mark.infinite ? sheet.y(mark.plane.y) : null
            }
            rightM={sheet.right}
          />
        ))}
      <LimitNames {...{ section, sheet, station, width, taken }} height={height - foot} />
      {foot > 0 && <Ordinates {...{ section, sheet, units, width, height }} />}
      {zoom === 'camera' && <CameraDimensions {...{ section, sheet, station }} />}
    </>
  );
}
