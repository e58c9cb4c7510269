import { useId, useMemo, useState } from 'react';
import {
  distance,
  fixed,
  focusedThrough,
  fStop,
  hingedAt,
  leanedTo,
  sceneStep,
  sectionOf,
  withMark,
  type Line,
  type Point,
  type Section,
  type SectionKind,
  type SectionMark,
  type Station,
  type Units,
} from '@gangway/station';
import { selectShown } from '../../store/selectors.js';
import { useAppSelector } from '../../store/store.js';
import { useSize } from '../../ui/use-size.js';
import { SiteHandle } from '../view/site-handle.js';
import {
  along,
  ends,
  heightAt,
  raisedNames,
  sectionSheet,
  type SectionSheet,
  type Zoom,
} from './section-sheet.js';

/** Near work is told in millimetres. */
export const nearOrFar = (m: number, units: Units): string =>
  units === 'metric' && Math.abs(m) < 2 ? `${fixed(m * 1000, 0)} mm` : distance(m, units);

const SIDE = { name: 'Side section', above: 'above', below: 'below', lean: 'Lean' } as const;
const PLAN = { name: 'Plan', above: 'right of', below: 'left of', lean: 'Swing' } as const;
const WORDS = { side: SIDE, plan: PLAN };

interface Held {
  section: Section;
}

/** A cut through camera and scene with the wedge of sharpness lying in it. */
export function SectionView({ kind, zoom }: { kind: SectionKind; zoom: Zoom }) {
  const station = useAppSelector(selectShown);
  const units = useAppSelector((state) => state.preferences.units);
  const [box, { width, height }] = useSize<HTMLDivElement>();
  const section = useMemo(() => sectionOf(station, kind), [station, kind]);
  const [held, setHeld] = useState<Held | null>(null);
  // The sheet stands still while something on it is held.
  const sheet = useMemo(
    () => sectionSheet(held?.section ?? section, zoom, width, height),
    [held, section, zoom, width, height],
  );
  const words = WORDS[kind];
  return (
    <div ref={box} className="relative min-h-56 flex-1 overflow-hidden lg:min-h-0">
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="group"
          aria-label={`${words.name}. ${described(section, units)}`}
          className="absolute inset-0 text-[12px]"
        >
          <Drawn
            {...{ station, section, sheet, zoom, units, width, height }}
            onHold={(hold) => setHeld(hold ? { section } : null)}
          />
          <text x={16} y={20} className="halo text-quiet">
            {words.name}
            {sheet.stretch > 1.01 &&
              `, ${kind === 'side' ? 'heights' : 'widths'} drawn ${fixed(sheet.stretch, 0)} times larger`}
          </text>
        </svg>
      )}
    </div>
  );
}

/** What the drawing shows, for those who listen. */
function described({ hingeMm, kind, aheadM, marks }: Section, units: Units): string {
  const { above, below } = WORDS[kind];
  const hinge =
    hingeMm === null
      ? 'The lens stands straight'
      : `The hinge line lies ${nearOrFar(Math.abs(hingeMm) / 1000, units)} ${hingeMm > 0 ? above : below} the lens`;
  const plane = aheadM === null ? 'at or past infinity' : `${nearOrFar(aheadM, units)} ahead`;
  return `${hinge}; the plane of sharp focus crosses straight ahead ${plane}. ${marks
    .map((mark) => `${mark.label}: ${blurWords(mark)}`)
    .join('; ')}`;
}

const blurWords = ({ blurUm, holds, must }: SectionMark): string =>
  `${blurUm === null ? 'no focus' : `${fixed(blurUm, 0)} µm blur`}${holds ? '' : must === 'soft' ? ', not soft enough' : ', does not hold'}`;

interface DrawnProps {
  station: Station;
  section: Section;
  sheet: SectionSheet;
  zoom: Zoom;
  units: Units;
  width: number;
  height: number;
  onHold: (held: boolean) => void;
}

function Drawn(props: DrawnProps) {
  const { section, sheet, zoom, units, width, height, station, onHold } = props;
  const { plane, limits, hinge, groundM, outlines } = section;
  const reach = Math.max(1e-3, sheet.right - sheet.left);
  const like = plane ? along(plane) : undefined;
  const shared = { scale: sheet.scaleX, scaleUp: sheet.scaleY, onHold };
  const raised = raisedNames(
    section.marks.map((mark) => {
      const { x, y } = markAt(mark, sheet, width);
      return { x, y, chars: Math.max(mark.label.length, needsWords(mark, section).length) };
    }),
  );
  return (
    <>
      {groundM !== null && zoom === 'scene' && (
        <line
          x1={0}
          x2={width}
          y1={sheet.y(groundM)}
          y2={sheet.y(groundM)}
          className="stroke-rule-strong"
          strokeWidth={1.5}
        />
      )}
      {zoom === 'scene' &&
        outlines.map((outline, i) => (
          <polygon
            key={i}
            points={outline.map(sheet.at).join(' ')}
            className="fill-paper stroke-ink"
            strokeWidth={1.25}
            strokeLinejoin="round"
          />
        ))}
      <Wedge {...{ section, sheet, reach, like }} />
      <line
        x1={sheet.x(0)}
        y1={sheet.y(0)}
        x2={sheet.x(section.axis.x * 40 * reach)}
        y2={sheet.y(section.axis.y * 40 * reach)}
        className="stroke-quiet"
        strokeDasharray="10 3 2 3"
      />
      {zoom === 'camera' && <Meeting {...{ section, sheet, reach }} />}
      {plane && <PlaneHandle {...{ section, sheet, reach, station, shared, width, height }} />}
      <HingeMark {...{ section, sheet, units, width, height, shared, station }} />
      <Camera {...{ section, sheet, shared, zoom }} />
      {zoom === 'scene' &&
        section.marks.map((mark, i) => (
          <Mark
            key={mark.index}
            {...{ mark, section, sheet, units, shared, width }}
            raised={raised[i]!}
          />
        ))}
      {hinge === null && limits[0] && (
        <LimitNames {...{ section, sheet, station, width, height }} />
      )}
      {hinge !== null && <LimitNames {...{ section, sheet, station, width, height }} />}
    </>
  );
}

interface Shared {
  scale: number;
  scaleUp: number;
  onHold: (held: boolean) => void;
}

function Wedge({
  section: { plane, limits, hinge },
  sheet,
  reach,
  like,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
  like: { x: number; y: number } | undefined;
}) {
  const [near, far] = limits;
  const lines = [near, far].map((line) => line && ends(line, hinge, reach, like));
  const [a, b] = lines;
  const area =
    a && b
      ? [a[0], a[1], b[1], b[0]]
      : a
        ? // No far limit: sharp from the near one on.
          [a[0], a[1], { x: 40 * reach, y: a[1].y }, { x: 40 * reach, y: a[0].y }]
        : null;
  const drawn = plane && ends(plane, hinge, reach, like);
  return (
    <g aria-hidden>
      {area && <polygon points={area.map(sheet.at).join(' ')} className="fill-within/14" />}
      {lines.map(
        (line, i) =>
          line && (
            <path
              key={i}
              d={`M${sheet.at(line[0])}L${sheet.at(line[1])}`}
              className="stroke-within"
              strokeWidth={1.25}
              strokeDasharray="6 4"
            />
          ),
      )}
      {drawn && (
        <path
          d={`M${sheet.at(drawn[0])}L${sheet.at(drawn[1])}`}
          className="stroke-within"
          strokeWidth={2.75}
        />
      )}
    </g>
  );
}

/** Names at the right end of the limits, kept apart where the wedge is thin. */
function LimitNames({
  section: { limits, plane },
  sheet,
  station,
  width,
  height,
}: {
  section: Section;
  sheet: SectionSheet;
  station: Station;
  width: number;
  height: number;
}) {
  const at = (line: (typeof limits)[number]): number | null => {
    const y = line && heightAt(line, sheet.right - 10 / sheet.scaleX);
    return y === null ? null : sheet.y(y);
  };
  const [near, far, middle] = [at(limits[0]), at(limits[1]), at(plane)];
  const stop = fStop(station.aperture);
  const inside = (y: number | null): y is number => y !== null && y > 30 && y < height - 12;
  if (!inside(near) || !inside(far)) return null;
  const nearAbove = near < far;
  const [up, down] = nearAbove ? [near, far] : [far, near];
  const thin = Math.abs(up - down) < THIN_PX;
  return (
    <g aria-hidden className="text-within">
      {thin ? (
        <text x={width - 12} y={down + 18} textAnchor="end" className="halo" fill="currentColor">
          near and far limit at {stop}
        </text>
      ) : (
        <>
          <text x={width - 12} y={up - 8} textAnchor="end" className="halo" fill="currentColor">
            {nearAbove ? 'near' : 'far'} limit at {stop}
          </text>
          <text x={width - 12} y={down + 17} textAnchor="end" className="halo" fill="currentColor">
            {nearAbove ? 'far' : 'near'} limit at {stop}
          </text>
        </>
      )}
      {inside(middle) && Math.abs(up - down) > 46 && (
        <text
          x={width - 12}
          y={middle - 5}
          textAnchor="end"
          className="halo font-semibold"
          fill="currentColor"
        >
          plane of sharp focus
        </text>
      )}
    </g>
  );
}

/** Limits nearer to each other than this share one name. */
const THIN_PX = 28;

/** The three planes that share one line, drawn when the camera is looked at. */
function Meeting({
  section: { sensor, meeting, axis, plane },
  sheet,
  reach,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
}) {
  const [a, b] = sensor;
  const size = Math.hypot(b.x - a.x, b.y - a.y);
  const up = { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
  const across = { x: -axis.y, y: axis.x };
  const line = (from: { x: number; y: number }, d: { x: number; y: number }): string =>
    `M${sheet.at({ x: from.x - d.x * 9 * reach, y: from.y - d.y * 9 * reach })}L${sheet.at({ x: from.x + d.x * 9 * reach, y: from.y + d.y * 9 * reach })}`;
  const whole = plane && ends(plane, null, reach);
  return (
    <g aria-hidden fill="none" className="stroke-quiet" strokeDasharray="2 4">
      <path d={line(a, up)} />
      <path d={line({ x: 0, y: 0 }, across)} />
      {meeting && whole && <path d={`M${sheet.at(whole[0])}L${sheet.at(whole[1])}`} />}
      {meeting && (
        <g strokeDasharray="none">
          <circle cx={sheet.x(meeting.x)} cy={sheet.y(meeting.y)} r={4} className="fill-paper" />
          <text
            x={sheet.x(meeting.x) + 10}
            y={sheet.y(meeting.y) + 4}
            className="halo fill-quiet stroke-none"
          >
            all three planes meet
          </text>
        </g>
      )}
    </g>
  );
}

/** A place of the plane that is in sight, on the way from the lens to the right edge. */
function gripOn(plane: Line, sheet: SectionSheet, width: number, height: number): Point | null {
  for (const share of [0.62, 0.5, 0.75, 0.4, 0.3, 0.85, 0.2]) {
    const x = sheet.left + share * (sheet.right - sheet.left);
    const y = heightAt(plane, x);
    if (y === null) break;
    const py = sheet.y(y);
    if (x > 0 && py > 24 && py < height - 24) return { x, y };
  }
  const x = plane.k / plane.nx;
  const inSight = Math.abs(plane.nx) > 1e-12 && sheet.x(x) > 0 && sheet.x(x) < width;
  return inSight ? { x, y: 0 } : null;
}

/** Grip on the plane: moving it focuses, and it swings about the hinge. */
function PlaneHandle({
  section,
  sheet,
  reach,
  shared,
  width,
  height,
}: {
  section: Section;
  sheet: SectionSheet;
  reach: number;
  station: Station;
  shared: Shared;
  width: number;
  height: number;
}) {
  const plane = section.plane!;
  const drawn = ends(plane, section.hinge, reach);
  const grip = gripOn(plane, sheet, width, height);
  if (!grip) return null;
  return (
    <SiteHandle
      {...shared}
      step={Math.max(0.001, 0.01 * Math.abs(section.aheadM ?? 10))}
      label="Plane of sharp focus"
      value={section.aheadM ?? 0}
      valueText={
        section.aheadM === null
          ? 'at or past infinity straight ahead'
          : `${fixed(section.aheadM, 3)} m straight ahead`
      }
      write={(from, dx, dy) => {
        // From where the hand took hold; what is drawn now has moved already.
        const plane = sectionOf(from, section.kind).plane;
        const at = plane && gripOn(plane, sheet, width, height);
        return (at && focusedThrough(from, section.kind, { x: at.x + dx, y: at.y + dy })) ?? from;
      }}
    >
      <path
        d={`M${sheet.at(drawn[0])}L${sheet.at(drawn[1])}`}
        stroke="transparent"
        strokeWidth={18}
      />
      <g transform={`translate(${sheet.x(grip.x)} ${sheet.y(grip.y)})`}>
        <rect
          x={-7}
          y={-7}
          width={14}
          height={14}
          transform="rotate(45)"
          className="fill-paper stroke-within"
          strokeWidth={2.25}
        />
      </g>
    </SiteHandle>
  );
}

/** The hinge line: where it lies, or which way it lies off the sheet. */
function HingeMark({
  section,
  sheet,
  units,
  width,
  height,
  shared,
}: {
  section: Section;
  sheet: SectionSheet;
  units: Units;
  width: number;
  height: number;
  shared: Shared;
  station: Station;
}) {
  const { hinge, hingeMm, kind } = section;
  if (!hinge || hingeMm === null) return null;
  const { above, below } = WORDS[kind];
  const words = `hinge line, ${nearOrFar(Math.abs(hingeMm) / 1000, units)} ${hingeMm > 0 ? above : below} the lens`;
  const [x, y] = [sheet.x(hinge.x), sheet.y(hinge.y)];
  const off = x < 0 || x > width || y < 4 || y > height - 4;
  const lens = { x: sheet.x(0), y: sheet.y(0) };
  if (off) {
    const down = y > lens.y;
    const edge = down ? height - 14 : 34;
    const ax = Math.min(width - 20, Math.max(20, lens.x));
    return (
      <g className="text-within" fill="currentColor">
        <path
          d={down ? `M${ax},${edge + 8}l-6,-10h12z` : `M${ax},${edge - 8}l-6,10h12z`}
          aria-hidden
        />
        <text x={ax + 12} y={edge + 4} className="halo" fill="currentColor">
          {words}, off the sheet
        </text>
      </g>
    );
  }
  return (
    <>
      <line
        x1={lens.x}
        y1={lens.y}
        x2={x}
        y2={y}
        className="stroke-quiet"
        strokeDasharray="2 4"
        aria-hidden
      />
      <SiteHandle
        {...shared}
        step={0.02 * Math.max(0.05, Math.abs(hingeMm) / 1000)}
        label={kind === 'side' ? 'Hinge line, from the side' : 'Hinge line, in the plan'}
        value={hingeMm}
        valueText={words}
        write={(from, _dx, dy) => {
          const held = sectionOf(from, kind).hingeMm ?? hingeMm;
          return hingedAt(from, kind, notNone(held + dy * 1000, held));
        }}
      >
        <circle cx={x} cy={y} r={16} fill="transparent" />
        <circle cx={x} cy={y} r={6} className="fill-within stroke-paper" strokeWidth={1.5} />
      </SiteHandle>
      <text x={x + 12} y={y + 20} className="halo text-within" fill="currentColor" aria-hidden>
        {words}
      </text>
    </>
  );
}

/** The hinge never passes through the lens: it stays on its side. */
const notNone = (mm: number, like: number): number =>
  Math.sign(like) * Math.max(1, Math.sign(like) * mm);

const leanOf = ({ movements }: Station, kind: SectionKind): number =>
  kind === 'side' ? movements.tilt_deg : movements.swing_deg;

/** On the sheet of a scene lens and sensor are at least so large, px from their middle. */
const LEAST_HALF_PX = 20;

function Camera({
  section,
  sheet,
  shared,
  zoom,
}: {
  section: Section;
  sheet: SectionSheet;
  shared: Shared;
  zoom: Zoom;
}) {
  const { sensor, axis, lensHalfM, kind, leanDeg } = section;
  const [x0, y0] = [sheet.x(0), sheet.y(0)];
  // In pixels, so that a symbol too small to see grows without turning.
  const lean = Math.atan2(axis.y * sheet.scaleY, axis.x * sheet.scaleX);
  const half = Math.max(LEAST_HALF_PX, lensHalfM * sheet.scaleX);
  const [ux, uy] = [-Math.sin(lean) * half, -Math.cos(lean) * half];
  const [a, b] = sensor.map((p) => ({ x: sheet.x(p.x), y: sheet.y(p.y) })) as [
    { x: number; y: number },
    { x: number; y: number },
  ];
  const grow = Math.max(1, (0.7 * LEAST_HALF_PX) / (Math.hypot(b.x - a.x, b.y - a.y) / 2 || 1));
  const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
  const back = Math.min(middle.x, x0 - (zoom === 'scene' ? 9 : 0));
  const end = (p: { x: number; y: number }): string =>
    `${back + (p.x - middle.x) * grow},${middle.y + (p.y - middle.y) * grow}`;
  const forward = kind === 'side' ? 1 : -1;
  const words =
    Math.abs(leanDeg) < 0.005
      ? 'straight'
      : kind === 'side'
        ? `${fixed(Math.abs(leanDeg), 1)}° ${leanDeg > 0 ? 'forward' : 'back'}`
        : `${fixed(Math.abs(leanDeg), 1)}° ${leanDeg > 0 ? 'right' : 'left'}`;
  return (
    <>
      <path
        d={`M${end(a)}L${end(b)}`}
        className="stroke-ink"
        strokeWidth={4}
        strokeLinecap="square"
        aria-hidden
      />
      <SiteHandle
        {...shared}
        scale={1}
        scaleUp={1}
        step={0.5}
        label={kind === 'side' ? 'Lens, tilt' : 'Lens, swing'}
        value={leanDeg}
        valueText={words}
        write={(from, dx) => {
          // Pixels at the lens's upper end, under the hand.
          const turn = (Math.atan2(dx, half) * 180) / Math.PI;
          return leanedTo(from, kind, Number((leanOf(from, kind) + forward * turn).toFixed(2)));
        }}
        writeStep={(from, dx, dy) =>
          leanedTo(from, kind, Number((leanOf(from, kind) + dx + dy).toFixed(2)))
        }
      >
        <path
          d={`M${x0 - ux},${y0 - uy}L${x0 + ux},${y0 + uy}`}
          stroke="transparent"
          strokeWidth={22}
        />
        <path
          d={`M${x0 - ux},${y0 - uy}L${x0 + ux},${y0 + uy}`}
          className="stroke-ink"
          strokeWidth={5}
          strokeLinecap="round"
        />
        <circle cx={x0 + ux} cy={y0 + uy} r={5} className="fill-paper stroke-ink" strokeWidth={2} />
      </SiteHandle>
      <text x={x0 + ux + 10} y={y0 + uy - 6} className="halo font-semibold" aria-hidden>
        {Math.abs(leanDeg) < 0.005 ? '' : `${WORDS[kind].lean.toLowerCase()} ${words}`}
      </text>
    </>
  );
}

/** Blur of the drawn target, px for each circle of confusion of blur. */
const SMEAR_PX = 0.55;
const MOST_SMEAR_PX = 9;

/** A mark at infinity stands at the right edge, in its direction. */
function markAt(
  { infinite, at }: SectionMark,
  sheet: SectionSheet,
  width: number,
): { x: number; y: number } {
  return infinite
    ? {
        x: width - EDGE_PX,
        y: sheet.y((at.y / at.x) * (sheet.right - EDGE_PX / sheet.scaleX)),
      }
    : { x: sheet.x(at.x), y: sheet.y(at.y) };
}

const EDGE_PX = 30;

/** What a mark asks for, in the few words there is room for. */
function needsWords(
  { must, holds, blurUm, neededFNumber: n }: SectionMark,
  { widestFNumber }: Section,
): string {
  if (blurUm === null || n === null) return 'no focus';
  if (must === 'sharp' && n <= widestFNumber) return 'sharp wide open';
  if (must === 'sharp') return `needs f/${fixed(n, n < 10 ? 1 : 0)}${holds ? '' : ', soft'}`;
  return `${must === 'soft' ? 'soft, ' : ''}${fixed(blurUm, 0)} µm`;
}

/** A mark as it will look: the more it blurs, the more its target smears. */
function Mark({
  mark,
  section,
  sheet,
  units,
  shared,
  width,
  raised,
}: {
  mark: SectionMark;
  raised: number;
  section: Section;
  sheet: SectionSheet;
  units: Units;
  shared: Shared;
  width: number;
}) {
  const id = useId();
  const { x, y } = markAt(mark, sheet, width);
  const times = mark.blurUm === null ? Infinity : mark.blurUm / section.cocUm;
  const smear = Math.min(MOST_SMEAR_PX, SMEAR_PX * Math.max(0, times - 0.4));
  const tone = mark.must === 'free' ? 'text-quiet' : mark.holds ? 'text-within' : 'text-outside';
  const needs = needsWords(mark, section);
  return (
    <g className={tone}>
      {mark.plane && mark.must === 'sharp' && !mark.infinite && (
        <line
          x1={x}
          x2={x}
          y1={y}
          y2={sheet.y(mark.plane.y)}
          stroke="currentColor"
          strokeWidth={1}
          aria-hidden
        />
      )}
      <SiteHandle
        {...shared}
        step={mark.distanceM < 3 ? 0.005 : 0.1}
        label={
          section.kind === 'side' ? `${mark.label}, from the side` : `${mark.label}, in the plan`
        }
        value={mark.distanceM}
        valueText={`${mark.infinite ? 'at infinity' : nearOrFar(mark.distanceM, units)}, ${blurWords(mark)}`}
        write={(from, dx, dy) => moved(from, section.kind, mark, dx, dy)}
      >
        <circle cx={x} cy={y} r={16} fill="transparent" />
        {smear > 0.05 && (
          <filter id={id} x="-150%" y="-150%" width="400%" height="400%">
            <feGaussianBlur stdDeviation={smear} />
          </filter>
        )}
        <g {...(smear > 0.05 ? { filter: `url(#${id})` } : {})}>
          <circle
            cx={x}
            cy={y}
            r={8}
            className="fill-paper"
            stroke="currentColor"
            strokeWidth={2.5}
          />
          <circle cx={x} cy={y} r={2.5} fill="currentColor" />
        </g>
        {/* A hair of outline stays, so that a smeared mark can still be found and held. */}
        {smear > 3 && (
          <circle cx={x} cy={y} r={8} fill="none" stroke="currentColor" strokeWidth={0.75} />
        )}
      </SiteHandle>
      <g aria-hidden transform={`translate(${Math.min(x, width - 60)} ${y - raised})`}>
        <text y={-30} textAnchor="middle" className="halo fill-ink font-semibold">
          {mark.label}
        </text>
        <text y={-15} textAnchor="middle" className="halo" fill="currentColor">
          {needs}
        </text>
      </g>
    </g>
  );
}

const MM = 1000;
const toMm = (m: number): number => Math.round(m * MM) / MM + 0;

function moved(
  from: Station,
  kind: SectionKind,
  { index }: SectionMark,
  dx: number,
  dy: number,
): Station {
  const mark = from.marks![index]!;
  const step = sceneStep(from, kind, dx, dy);
  return withMark(from, index, {
    x_m: toMm(mark.x_m + step.x_m),
    y_m: toMm(mark.y_m + step.y_m),
    z_m: toMm(mark.z_m + step.z_m),
  });
}
