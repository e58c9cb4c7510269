import {
  sectionOf,
  type Effort,
  type Point,
  type Section,
  type SectionMark,
  type Units,
} from '@gangway/station';
import { useState } from 'react';
import { Drawn } from '../drawing/drawn.js';
import { useSize } from '../drawing/use-size.js';
import { CROWD, Mark, markAt, needsWords } from './section-mark.js';
import { along, namePlaces, sectionSheet, type SectionSheet } from './section-sheet.js';
import { Wedge } from './section-wedge.js';

/** More slices than this are not told apart. */
const MOST_SLICES = 160;

/** One way through the scene, from the side: a wedge where it is leaned, slices where it is stacked. */
export function EffortDrawing({
  effort,
  title,
  units,
}: {
  effort: Effort;
  title: string;
  units: Units;
}) {
  const [box, size] = useSize<HTMLDivElement>();
  const section = sectionOf(effort.after, 'side');
  const [held, setHeld] = useState<Section | null>(null);
  const sheet = sectionSheet(held ?? section, 'marks', size.width, size.height);
  const reach = Math.max(1e-3, sheet.right - sheet.left, Math.abs(section.hinge?.y ?? 0));
  const crowd = section.marks.length > CROWD;
  const stacked = effort.slices.length > 0;
  const marks = section.marks.map((mark) => ({
    mark: stacked ? inStack(mark) : mark,
    at: markAt(mark, sheet, size.width),
    needs: stacked && mark.must === 'sharp' ? 'in a slice' : needsWords(mark, section),
  }));
  const names = crowd
    ? []
    : namePlaces(
        marks.map(({ mark, at, needs }) => ({
          ...at,
          chars: Math.max(mark.label.length, needs.length),
        })),
      );
  return (
    <Drawn
      {...{ box, size }}
      role="group"
      label={`${title}: ${effort.frames === 1 ? 'one frame' : `${effort.frames} frames`}${effort.holds ? '' : ', does not hold'}`}
      className="min-h-56 flex-1 lg:min-h-0"
    >
      {section.groundM !== null && (
        <path
          d={`M0,${sheet.y(section.groundM)}H${size.width}`}
          className="stroke-rule-strong"
          strokeWidth={1.5}
        />
      )}
      {section.outlines.map((outline, i) => (
        <polygon
          key={i}
          points={outline.map(sheet.at).join(' ')}
          className="fill-paper stroke-ink"
          strokeWidth={1.25}
        />
      ))}
      {stacked ? (
        <Slices {...{ effort, section, sheet }} />
      ) : (
        <Wedge
          {...{ section, sheet, reach }}
          room={size}
          like={section.plane ? along(section.plane) : undefined}
        />
      )}
      {marks.map(({ mark, at, needs }, i) => (
        <Mark
          key={mark.index}
          {...{ mark, at, needs, crowd, units }}
          kind="side"
          cocUm={section.cocUm}
          name={names[i] ?? { up: 0, beside: false }}
          planeY={null}
          rightM={sheet.right}
          width={size.width}
          shared={{
            scale: sheet.scaleX,
            scaleUp: sheet.scaleY,
            onHold: (hold) => setHeld(hold ? section : null),
          }}
        />
      ))}
      <text x={16} y={20} className="halo">
        <tspan className="fill-ink font-semibold">{title}</tspan>
        {stacked && (
          <tspan className="fill-quiet">
            {' '}
            {effort.frames} slices{effort.frames > MOST_SLICES ? ', too thin to draw' : ''}
          </tspan>
        )}
      </text>
    </Drawn>
  );
}

/** The frames of a stack as slices square to the lens axis, every other one darker. */
function Slices({
  effort: { slices },
  section: { axis },
  sheet,
}: {
  effort: Effort;
  section: Section;
  sheet: SectionSheet;
}) {
  const most = 4 * (sheet.right - sheet.left);
  const shown: Effort['slices'] =
    slices.length > MOST_SLICES ? [[slices[0]![0], slices.at(-1)![1]]] : slices;
  return shown.map(([from, to], i) => {
    const edge = (ahead: number, side: 1 | -1): Point => ({
      x: axis.x * ahead - side * axis.y * most,
      y: axis.y * ahead + side * axis.x * most,
    });
    const end = Math.min(to ?? most, most);
    const corners = [edge(from, 1), edge(end, 1), edge(end, -1), edge(from, -1)];
    return (
      <polygon
        key={i}
        points={corners.map(sheet.at).join(' ')}
        className={`stroke-within/60 ${i % 2 === 1 ? 'fill-within/25' : 'fill-within/10'}`}
        strokeWidth={0.5}
      />
    );
  });
}

/** In a stack what must be sharp is so in one of its frames. */
const inStack = (mark: SectionMark): SectionMark =>
  mark.must === 'sharp' ? { ...mark, blurUm: 0, holds: true } : mark;
