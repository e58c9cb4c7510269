import {
  dialSaid,
  exposureSteps,
  exposureVerdict,
  hasMiddle,
  fixed,
  rangeHeld,
  stops,
  type ExposureReport,
  type ExposureStep,
} from '@gangway/station';
import { Drawn } from '../drawing/drawn.js';
import { useSize } from '../drawing/use-size.js';
import { selectExposed, type Exposed } from '../store/exposure.js';
import { useAppSelector } from '../store/store.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { RangeDrawing, rangePx } from './range-drawing.js';

/** Room for the names of the steps; on a phone they stand over their bars. */
const NAMES_PX = 250;
const NARROW_PX = 560;
const ROW_PX = 38;

interface Axis {
  readonly left: number;
  readonly right: number;
  readonly low: number;
  readonly high: number;
}

const atStops = ({ left, right, low, high }: Axis, stops: number): number =>
  left + ((stops - low) / (high - low)) * (right - left);

/** From the meter to the shutter on one scale of times, each thing between them as long as the light it takes. */
export function LightDrawing({ exposed }: { exposed: Exposed }) {
  const { station, report } = exposed;
  const units = useAppSelector((state) => state.preferences.units);
  const [box, size] = useSize<HTMLDivElement>();
  const { width, height } = size;
  const steps = exposureSteps(station, station.exposure ?? {}, report, units);
  const narrow = width < NARROW_PX;
  const end = steps.at(-1);
  const last = end ? end.from + end.stops : null;
  const all = [
    ...steps.flatMap(({ from, stops: by }) => [from, from + by]),
    ...(report.dial_s === null ? [] : [Math.log2(report.dial_s)]),
    ...report.brackets_s.flatMap((each) => (each === null ? [] : [Math.log2(each)])),
  ];
  const from = Math.floor(Math.min(...all, last ?? -6) - 0.6);
  const to = Math.max(from + 8, Math.ceil(Math.max(...all, last ?? 0) + 0.9));
  const axis: Axis = {
    left: narrow ? 20 : NAMES_PX,
    right: width - 28,
    low: from,
    high: to,
  };
  const range = rangeHeld(station, report);
  const row = narrow ? 46 : ROW_PX;
  const rowsEnd = 44 + Math.max(1, steps.length) * row;
  const scaleY = rowsEnd + 12;
  const answerEnd = scaleY + 108;
  const rangeHeight = range ? rangePx(range, narrow) : 0;
  // On a phone the two follow each other; on a desk the range stands at the foot.
  const rangeTop = narrow ? answerEnd : Math.max(answerEnd, height - rangeHeight - 36);
  return (
    <Drawn
      {...{ box, size }}
      label={labelOf(exposed, steps)}
      className="flex-1"
      minHeight={answerEnd + rangeHeight}
    >
      <text x={narrow ? 12 : 20} y={24} className="text-quiet text-[13px]">
        {station.exposure?.flash
          ? 'From the meter to the flash, in stops of its power'
          : 'From the meter to the shutter, in stops'}
      </text>
      <Scale
        axis={axis}
        top={38}
        bottom={scaleY}
        narrow={narrow}
        flash={station.exposure?.flash === true}
      />
      {steps.map((step, i) => (
        <StepRow
          key={step.id}
          {...{ step, axis, narrow }}
          y={44 + i * row}
          below={i + 1 < steps.length ? row : null}
        />
      ))}
      {last === null ? (
        <Ghost {...{ axis, narrow, rowsEnd }} flash={station.exposure?.flash === true} />
      ) : (
        <Answer {...{ exposed, axis, last, scaleY }} top={44 + (steps.length - 1) * row} />
      )}
      {range && <RangeDrawing range={range} top={rangeTop} width={width} narrow={narrow} />}
    </Drawn>
  );
}

function labelOf({ station, report }: Exposed, steps: readonly ExposureStep[]): string {
  const { sentence } = exposureVerdict(station, report);
  const told = steps.map(({ title, detail }) => `${title}: ${detail}`).join('; ');
  return told === '' ? `From the meter to the shutter. ${sentence}` : `${told}. ${sentence}`;
}

/** Lines a stop apart, named as shutters name them, or as flashes do. */
function Scale({
  axis,
  top,
  bottom,
  narrow,
  flash,
}: {
  axis: Axis;
  top: number;
  bottom: number;
  narrow: boolean;
  flash: boolean;
}) {
  const count = axis.high - axis.low;
  const room = (axis.right - axis.left) / count;
  const every = Math.max(1, Math.ceil((narrow ? 34 : 46) / room));
  return (
    <g>
      {Array.from({ length: count + 1 }, (_, i) => axis.low + i).map((stop) => {
        const x = atStops(axis, stop);
        return (
          <g key={stop}>
            <line
              x1={x}
              x2={x}
              y1={top}
              y2={bottom}
              className={flash && stop === 0 ? 'stroke-ink' : 'stroke-rule'}
            />
            {(stop - axis.low) % every === 0 && (
              <text x={x} y={bottom + 18} textAnchor="middle" className="narrow text-quiet">
                {flash ? shortPower(stop) : shortTime(stop)}
              </text>
            )}
          </g>
        );
      })}
      <text x={axis.right + 10} y={bottom + 18} className="text-quiet">
        {flash ? '' : 's'}
      </text>
    </g>
  );
}

const shortPower = (stop: number): string =>
  stop < 0 ? `1/${2 ** -stop}` : stop === 0 ? 'full' : `${2 ** stop}×`;

const shortTime = (stop: number): string =>
  dialSaid(2 ** stop, 'full')
    .replace(/ s$/, '')
    .replace(/ min.*$/, '′')
    .replace(/ h.*$/, ' h');

function StepRow({
  step: { title, detail, from, stops: by },
  axis,
  narrow,
  y,
  below,
}: {
  step: ExposureStep;
  axis: Axis;
  narrow: boolean;
  y: number;
  below: number | null;
}) {
  const [a, b] = [atStops(axis, from), atStops(axis, from + by)];
  const barY = y + (narrow ? 24 : 8);
  const first = by === 0;
  return (
    <g>
      <text x={narrow ? 12 : 20} y={y + 13} className="halo text-[14px]" fontWeight={600}>
        {title}
      </text>
      <text
        x={narrow ? axis.right : 20}
        y={narrow ? y + 13 : y + 28}
        textAnchor={narrow ? 'end' : 'start'}
        className="halo text-quiet"
      >
        {detail}
      </text>
      {first ? (
        <rect x={a - 1.5} y={barY - 4} width={3} height={20} className="fill-ink" />
      ) : (
        <rect
          x={Math.min(a, b)}
          y={barY}
          width={Math.max(1.5, Math.abs(b - a))}
          height={12}
          className={by > 0 ? 'fill-costs' : 'fill-within'}
        />
      )}
      {below !== null && (
        <line
          x1={b}
          x2={b}
          y1={barY + (first ? 16 : 12)}
          y2={barY + below}
          className="stroke-quiet"
          strokeDasharray="1 3"
        />
      )}
    </g>
  );
}

/** The time that comes out, and the step it is set at. */
function Answer({
  exposed: { station, report },
  axis,
  last,
  scaleY,
  top,
}: {
  exposed: Exposed;
  axis: Axis;
  last: number;
  scaleY: number;
  top: number;
}) {
  const { standing, figure, words } = exposureVerdict(station, report);
  const said = answerSaid(report, words);
  const dial = report.dial_s === null ? last : Math.log2(report.dial_s);
  const x = Math.min(axis.right - 50, Math.max(axis.left + 30, atStops(axis, dial)));
  const tone = standing === null ? '' : STANDING_TEXT[standing];
  return (
    <g className={tone}>
      <line
        x1={atStops(axis, last)}
        x2={atStops(axis, last)}
        y1={top + 8}
        y2={scaleY}
        stroke="currentColor"
        strokeWidth={2}
      />
      <path
        d={`M${atStops(axis, dial)},${scaleY}l8,12h-16z`}
        fill="currentColor"
        transform="translate(0 -2)"
      />
      {report.brackets_s.length > 1 &&
        report.brackets_s.map((each, i) =>
          each === null ? null : (
            <line
              key={i}
              x1={atStops(axis, Math.log2(each))}
              x2={atStops(axis, Math.log2(each))}
              y1={scaleY - 8}
              y2={scaleY + 4}
              stroke="currentColor"
              strokeWidth={3}
            />
          ),
        )}
      <text x={x} y={scaleY + 56} textAnchor="middle" className="halo text-[34px]" fontWeight={600}>
        {figure}
      </text>
      <text x={x} y={scaleY + 76} textAnchor="middle" className="halo text-quiet">
        {said}
      </text>
    </g>
  );
}

/** What is said under the figure. */
function answerSaid(
  { dial_s: dial, off_stops: off, given_s: given, flash, brackets_s: brackets }: ExposureReport,
  words: string,
): string {
  if (flash) return `${words}; time does nothing to a flash`;
  if (given === null) return 'past the end of the film’s table';
  if (!hasMiddle(brackets)) return `the middle of ${brackets.length} exposures`;
  if (dial === null || off === null) return 'by the clock';
  return Math.abs(off) < 0.02
    ? 'to set, right on its step'
    : `to set, ${fixed(Math.abs(off), 2)} stops too ${off > 0 ? 'much' : 'little'}`;
}

/** Before there is anything to show: what comes next, and where things will stand. */
function Ghost({
  axis,
  narrow,
  rowsEnd,
  flash,
}: {
  axis: Axis;
  narrow: boolean;
  rowsEnd: number;
  flash: boolean;
}) {
  const { report } = useAppSelector(selectExposed);
  const noImage = report.bellows_stops === null;
  const [title, next] = noImage
    ? ['No image is formed', 'draw the lens out']
    : flash
      ? ['Flash meter', 'type the f-number it reads']
      : ['Meter', 'type its reading'];
  return (
    <g>
      <text x={narrow ? 12 : 20} y={58} className="halo text-[14px]" fontWeight={600}>
        {title}
      </text>
      <text x={narrow ? 12 : 20} y={74} className="halo text-quiet">
        {next}
      </text>
      <text
        x={(axis.left + axis.right) / 2}
        y={rowsEnd + 64}
        textAnchor="middle"
        className="halo text-quiet text-[14px]"
      >
        {noImage
          ? 'Without an image there is nothing to expose.'
          : report.added_stops > 0.02
            ? `So far ${stops(report.added_stops)} are added.`
            : 'Filters, bellows and film follow here, each as long as the light it takes.'}
      </text>
    </g>
  );
}
