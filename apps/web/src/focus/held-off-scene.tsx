import {
  heldWedge,
  withHeldMark,
  type CutBounds,
  type HeldMark,
  type HeldScene,
  type Units,
} from '@gangway/station';
import { useState } from 'react';
import { Drawn } from '../drawing/drawn.js';
import { Handle } from '../drawing/handle.js';
import { fitted, type Sheet } from '../drawing/sheet.js';
import { useSize } from '../drawing/use-size.js';
import { namePlaces, type NamePlace } from './section-sheet.js';
import { nearOrFar } from './section-words.js';

/** Nothing farther than this is drawn to scale with what stands before it, mm. */
const FARTHEST_MM = 50_000;

/** What the drawing holds: everything marked, and the crossing of the plane ahead. */
function boundsOf({ marks, plane }: HeldScene): CutBounds {
  const seen = marks.filter(({ aheadMm }) => aheadMm > 0 && aheadMm < FARTHEST_MM);
  const ahead = plane.equals / plane.ahead;
  const reach = Math.max(
    300,
    ...seen.map(({ aheadMm }) => aheadMm),
    ahead > 0 && ahead < FARTHEST_MM && seen.length === 0 ? ahead : 0,
  );
  const wide = Math.max(0.22 * reach, ...seen.map(({ asideMm }) => 1.35 * Math.abs(asideMm)));
  return { left: 0, right: 1.18 * reach, bottom: -wide, top: wide };
}

const points = (polygon: readonly { x: number; y: number }[], sheet: Sheet): string =>
  polygon.map(sheet.at).join(' ');

/** What the held lens draws sharp: the plane through the things, and what is sharp about it. */
export function HeldOffScene({ scene, units }: { scene: HeldScene; units: Units }) {
  const [box, size] = useSize<HTMLDivElement>();
  const [hold, setHold] = useState<CutBounds | null>(null);
  const bounds = hold ?? boundsOf(scene);
  const sheet = fitted(bounds, size, { pad: 30 });
  const whole: CutBounds = {
    left: 0,
    right: sheet.back(size.width, 0).x,
    bottom: sheet.back(0, size.height).y,
    top: sheet.back(0, 0).y,
  };
  const { wedge, plane } = heldWedge(scene, whole);
  const step = STEPS_MM.find((mm) => mm * sheet.scaleX >= 70) ?? 1e5;
  const lines = Array.from(
    { length: Math.floor((whole.right - 24 / sheet.scaleX) / step) },
    (_, i) => (i + 1) * step,
  );
  const shown = scene.marks.filter(({ aheadMm }) => aheadMm > 0 && aheadMm < FARTHEST_MM);
  const names = namePlaces(
    shown.map(({ aheadMm, asideMm, label }) => ({
      x: sheet.x(aheadMm),
      y: sheet.y(asideMm),
      chars: Math.max(label.length, 16),
    })),
  );
  return (
    <Drawn
      {...{ box, size }}
      role="group"
      label={`The scene. ${scene.marks.map((mark) => `${mark.label}: ${told(mark)}`).join('; ') || 'Nothing is marked in it'}`}
      className="min-h-52 min-w-0 flex-[1.4]"
    >
      <text x={16} y={20} className="halo text-quiet">
        The scene
      </text>
      {lines.map((mm) => (
        <g key={mm}>
          <path d={`M${sheet.x(mm)},34V${size.height - 26}`} className="stroke-rule" />
          <text
            x={sheet.x(mm)}
            y={size.height - 10}
            textAnchor="middle"
            className="narrow fill-quiet"
          >
            {nearOrFar(mm / 1000, units)}
          </text>
        </g>
      ))}
      <polygon points={points(wedge, sheet)} className="fill-within opacity-15" />
      {plane.length === 2 && (
        <path
          d={`M${sheet.at(plane[0]!)}L${sheet.at(plane[1]!)}`}
          className="stroke-within"
          strokeWidth={2.5}
        />
      )}
      <g transform={`translate(${sheet.x(0)} ${sheet.y(0)})`} aria-hidden>
        <rect x={-16} y={-8} width={14} height={16} className="fill-ink" />
        <path d="M-1,0L9,-8V8Z" className="fill-ink" />
      </g>
      {shown.map((mark, i) => (
        <SceneMark
          key={mark.index}
          {...{ mark, scene, sheet, units }}
          name={names[i]!}
          onHold={(held) => setHold(held ? bounds : null)}
        />
      ))}
    </Drawn>
  );
}

const STEPS_MM = [50, 100, 250, 500, 1000, 2500, 5000, 10_000];

const told = ({ must, holds, blurUm }: HeldMark): string =>
  `${blurUm === null ? 'no focus' : `${blurUm.toFixed(0)} µm blur`}${must === 'free' || holds ? '' : ', not as wanted'}`;

function SceneMark({
  mark,
  scene,
  sheet,
  units,
  name,
  onHold,
}: {
  mark: HeldMark;
  scene: HeldScene;
  sheet: Sheet;
  units: Units;
  name: NamePlace;
  onHold: (held: boolean) => void;
}) {
  const [x, y] = [sheet.x(mark.aheadMm), sheet.y(mark.asideMm)];
  const tone = mark.must === 'free' ? 'text-quiet' : mark.holds ? 'text-within' : 'text-outside';
  const blur = mark.blurUm === null ? 'no focus' : `${mark.blurUm.toFixed(0)} µm`;
  const words = `${mark.must === 'sharp' && mark.holds ? 'sharp' : blur}, ${nearOrFar(mark.aheadMm / 1000, units)}`;
  return (
    <g className={tone}>
      <Handle
        label={`${mark.label}, in the scene`}
        value={mark.aheadMm / 1000}
        valueText={`${nearOrFar(mark.aheadMm / 1000, units)}, ${told(mark)}`}
        scale={sheet.scaleX}
        step={10}
        pointer={`/marks/${mark.index}`}
        write={(from, dx, dy) => withHeldMark(from, scene, mark.index, dx, dy)}
        onHold={onHold}
      >
        <circle cx={x} cy={y} r={18} fill="transparent" />
        <circle
          cx={x}
          cy={y}
          r={9}
          className="fill-paper"
          stroke="currentColor"
          strokeWidth={2.5}
        />
        <circle cx={x} cy={y} r={3} fill="currentColor" />
      </Handle>
      {name.beside ? (
        <text x={x + 15} y={y + 4} className="halo" fill="currentColor" aria-hidden>
          <tspan className="fill-ink font-semibold">{mark.label}</tspan> {words}
        </text>
      ) : (
        <g transform={`translate(${x} ${y - name.up})`} aria-hidden>
          <text y={-31} textAnchor="middle" className="halo fill-ink font-semibold">
            {mark.label}
          </text>
          <text y={-16} textAnchor="middle" className="halo" fill="currentColor">
            {words}
          </text>
        </g>
      )}
    </g>
  );
}
