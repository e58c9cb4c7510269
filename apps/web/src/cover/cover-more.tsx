import { useId, useState } from 'react';
import {
  circleAtFocusMm,
  CORNER_NAMES,
  distanceFrom,
  cornerFigures,
  fixed,
  atLeast,
  atMost,
  FRONT_OR_BACK,
  hasSecondStandard,
  movesOf,
  ontoStop,
  parseRatio,
  pivotMove,
  sense,
  signed,
  trimmed,
  orderLines,
  turningOf,
  withCounterMove,
  without,
  type Readings,
  type Station,
  type Units,
} from '@gangway/station';
import { Link } from 'react-router';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Group, Line } from '../station/results.js';
import { Why } from '../station/why.js';

/** Rise the façade asks for, against what is set and allowed. */
export function FacadeLines({
  station,
  report,
  units,
}: {
  station: Station;
  report: Readings;
  units: Units;
}) {
  const { facade, coverage } = report;
  const { movements, movement_limits: limits } = station;
  if (!facade) return null;
  const { rise_needed_mm: needed, rise_before_foot_is_cut_mm: foot } = facade;
  const mechanism = Math.min(limits.rise_mm?.[1] ?? Infinity, limits.radial_shift_mm ?? Infinity);
  const set = movements.rise_mm;
  const reached = needed !== null && set >= needed - 1e-6;
  const whole = foot === null || set <= foot + 1e-6;
  return (
    <Group
      title={
        <>
          Rise
          <Why reason="facadeRise" of="rise that brings in the top" />
        </>
      }
    >
      <Line
        name="Top of the façade asks"
        figure={needed === null ? '—' : fixed(atLeast(needed, 1), 1)}
        rests={['level']}
        unit="mm"
        tone={STANDING_TEXT[reached ? 'within' : 'costs']}
      />
      <Line name="Set" figure={fixed(set, 1)} unit="mm" />
      {foot !== null && (
        <Line
          name="Foot is cut above"
          figure={fixed(atMost(foot, 1), 1)}
          unit="mm"
          tone={STANDING_TEXT[whole ? 'within' : 'costs']}
        />
      )}
      <Line
        name="Circle ends"
        figure={
          coverage.limits.rise_mm === null
            ? coverage.limited_by.rise === 'nothing'
              ? 'nowhere'
              : 'not covered'
            : coverage.limited_by.rise === 'circle'
              ? fixed(coverage.limits.rise_mm, 1)
              : 'past the mechanism'
        }
        {...(coverage.limited_by.rise === 'circle' && coverage.limits.rise_mm !== null
          ? { unit: 'mm' }
          : {})}
      />
      {Number.isFinite(mechanism) && (
        <Line name="Mechanism ends" figure={fixed(mechanism, 1)} unit="mm" />
      )}
      {needed !== null && foot !== null && (
        <Line
          name="To spare above, below"
          figure={`${signed(atMost(set - needed, 1), 1)}, ${signed(atMost(foot - set, 1), 1)}`}
          unit="mm"
        />
      )}
      <FitsFrom distanceM={facade.distance_needed_m} units={units} />
    </Group>
  );
}

function FitsFrom({ distanceM, units }: { distanceM: number | null; units: Units }) {
  if (distanceM === null) return <Line name="Fits whole from" figure="nowhere" />;
  return <Line name="Fits whole from" figure={distanceFrom(distanceM, units)} />;
}

/** Several frames are laid out: their own step says how. */
export function MosaicNote({ station }: { station: Station }) {
  return (
    station.mosaic && (
      <p className="mb-3 border-l-2 border-rule-strong pl-3 text-[13px]">
        Several frames are laid out; what stands here is the middle of them.{' '}
        <Link to="../mosaic" className="underline">
          See them in Mosaic
        </Link>
        .
      </p>
    )
  );
}

/** How a turning lens is set, and what a pivot off the lens centre did. */
export function MechanismNotes({ station }: { station: Station }) {
  const { change } = useEditing();
  const reached = turningOf(station)?.reached !== false;
  const pivot = pivotMove(station);
  const choice = hasSecondStandard(station);
  // Where front and back differ, or something turns, it is told what the hand does.
  const told = choice || station.movement_limits.moves === 'rear' || turningOf(station) !== null;
  const lines = told ? orderLines(movesOf(station)) : [];
  if (!pivot && lines.length === 0 && !choice) return null;
  const moved = (mm: number, field: 'rise_mm' | 'shift_mm'): string =>
    `${fixed(Math.abs(mm), 1)} mm ${field === 'rise_mm' ? (mm > 0 ? 'up' : 'down') : mm > 0 ? 'right' : 'left'}`;
  return (
    <Group title={choice ? 'At front and back' : 'At the lens'}>
      {lines.map((line) => (
        <p key={line} className="py-0.5 font-medium">
          {line}
        </p>
      ))}
      {choice && <p className="py-0.5 text-[13px] text-quiet">{FRONT_OR_BACK.shift}</p>}
      {!reached && (
        <Button onClick={() => change('Set what comes nearest', '/movements', ontoStop)}>
          Set what comes nearest
        </Button>
      )}
      {pivot && (
        <div className="py-0.5">
          <p>
            The tilt axis is off the lens centre: leaning moved the picture{' '}
            {[
              Math.abs(pivot.riseMm) > 0.05 ? moved(pivot.riseMm, 'rise_mm') : '',
              Math.abs(pivot.shiftMm) > 0.05 ? moved(pivot.shiftMm, 'shift_mm') : '',
            ]
              .filter(Boolean)
              .join(' and ') || 'by less than 0.1 mm'}
            .
          </p>
          <Button
            className="mt-1"
            onClick={() => change('Counter the lean', '/movements', withCounterMove)}
          >
            Counter it:{' '}
            {[
              ['rise_mm', pivot.counter.rise_mm] as const,
              ['shift_mm', pivot.counter.shift_mm] as const,
            ]
              .filter(([, mm]) => Math.abs(mm) > 0.05)
              .map(([field, mm]) => `${fixed(Math.abs(mm), 1)} mm ${sense(field, mm)}`)
              .join(', ') || 'nothing to do'}
          </Button>
        </div>
      )}
    </Group>
  );
}

/** Margin, falloff and ring at each of the four corners. */
export function CornerTable({ station }: { station: Station }) {
  const corners = cornerFigures(station);
  const ring = corners.some(({ ringMm }) => ringMm !== null);
  const cell = (mm: number | null, write: (n: number) => string): string =>
    mm === null ? '∞' : write(mm);
  return (
    <Group title="The four corners">
      <table className="w-full text-right">
        <thead className="text-[12px] text-quiet">
          <tr>
            <th className="text-left font-normal">Corner</th>
            <th className="font-normal">circle</th>
            <th className="font-normal">core</th>
            <th className="font-normal">stops</th>
            {ring && <th className="font-normal">ring</th>}
          </tr>
        </thead>
        <tbody>
          {corners.map(({ corner, marginMm, coreMm, falloffStops, ringMm }) => (
            <tr key={corner}>
              <th className="text-left font-normal">{CORNER_NAMES[corner]}</th>
              <td className={`figure ${marginMm !== null && marginMm < 0 ? 'text-outside' : ''}`}>
                {cell(marginMm, (n) => signed(n, 1))}
              </td>
              <td className={`figure ${coreMm !== null && coreMm < 0 ? 'text-costs' : ''}`}>
                {cell(coreMm, (n) => signed(n, 1))}
              </td>
              <td className="figure">{cell(falloffStops, (n) => fixed(n, 1))}</td>
              {ring && (
                <td className={`figure ${ringMm !== null && ringMm < 0 ? 'text-outside' : ''}`}>
                  {ringMm === null ? '—' : signed(ringMm, 1)}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <Line name="Circle at this focus" figure={fixed(circleAtFocusMm(station), 1)} unit="mm" />
    </Group>
  );
}

const SHAPES = ['2:1', '3:2', '4:3', '5:4', '1:1', '4:5', '3:4', '2:3'];

const shapeOf = ({ crop }: Station): string =>
  crop ? `${trimmed(crop.across, 4)}:${trimmed(crop.up, 4)}` : '';

/** “4:5”, “16 x 9” or “1.5” as a shape. */
function readShape(text: string): { across: number; up: number } | null {
  const parts = /^\s*([\d.,]+)\s*[:x×/]\s*([\d.,]+)\s*$/.exec(text);
  const number = (part: string): number => Number(part.replace(',', '.'));
  if (parts) {
    const [across, up] = [number(parts[1]!), number(parts[2]!)];
    return across > 0 && up > 0 && across <= 1000 && up <= 1000 ? { across, up } : null;
  }
  const one = parseRatio(text);
  return one.ok && one.value > 0 ? { across: one.value, up: 1 } : null;
}

/** The part of the picture that is kept. */
export function CropFields() {
  const station = useAppSelector(selectStation);
  const { change } = useEditing();
  const id = useId();
  const shown = shapeOf(station);
  const [text, setText] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const commit = (typed: string): void => {
    if (typed.trim() === '') {
      setMessage(change('Without crop', '/crop', (now) => without(now, 'crop')));
      setText(null);
      return;
    }
    const shape = readShape(typed);
    if (!shape) {
      setMessage(`“${typed}” is not a shape; write for example 4:5, 2:1 or 1.5.`);
      return;
    }
    setMessage(change('Crop', '/crop', (now) => ({ ...now, crop: { ...now.crop, ...shape } })));
    setText(null);
  };
  const { crop } = station;
  return (
    <Group title="Crop">
      <div className="flex items-baseline justify-between gap-3">
        <label htmlFor={id}>Across : up</label>
        <input
          id={id}
          list={`${id}-shapes`}
          value={text ?? shown}
          placeholder="whole picture"
          autoComplete="off"
          onChange={(event) => {
            setMessage(null);
            setText(event.target.value);
            if (SHAPES.includes(event.target.value)) commit(event.target.value);
          }}
          onBlur={() => text !== null && text !== shown && commit(text)}
          onKeyDown={(event) => event.key === 'Enter' && text !== null && commit(text)}
          className="figure min-h-7 w-32 border-b border-rule bg-transparent text-right placeholder:font-normal placeholder:text-faint hover:border-rule-strong pointer-coarse:min-h-11"
        />
        <datalist id={`${id}-shapes`}>
          {SHAPES.map((shape) => (
            <option key={shape} value={shape} />
          ))}
        </datalist>
      </div>
      {message !== null && (
        <p role="alert" className="text-[13px] text-outside">
          {message}
        </p>
      )}
      {crop && (
        <div className="flex items-center gap-3 py-1">
          <label className="flex flex-1 items-center gap-3">
            <span className="text-quiet">Slide</span>
            <input
              type="range"
              min={-1}
              max={1}
              step={0.05}
              value={crop.slide ?? 0}
              onChange={(event) => {
                const slide = Number(event.target.value);
                change(
                  'Slide the crop',
                  '/crop/slide',
                  (now) => ({ ...now, crop: { ...now.crop!, slide } }),
                  'crop-slide',
                );
              }}
              className="min-h-8 flex-1 accent-ink"
            />
          </label>
          <Button onClick={() => commit('')}>Whole picture</Button>
        </div>
      )}
    </Group>
  );
}
