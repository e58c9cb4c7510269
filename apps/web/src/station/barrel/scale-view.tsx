import clsx from 'clsx';
import { memo, useEffect, useMemo, useRef } from 'react';
import {
  CONTROLS,
  fixed,
  significant,
  stopsOnScale,
  type ControlId,
  type Scale,
  type Segment,
} from '@gangway/station';
import { useEditing } from '../../store/editing.js';
import { selectScales, selectStation } from '../../store/selectors.js';
import { gestureEnded } from '../../store/station.js';
import { useTypedText } from '../../store/typed-text.js';
import { useAppDispatch, useAppSelector, useAppStore } from '../../store/store.js';
import { Drag, useSteady, Wheel, type DragState, type WheelState } from '../../drawing/drag.js';
import { useSize } from '../../drawing/use-size.js';
import { useKeyboard } from '../keyboard.js';
import { engrave, type Engraving } from './engraving.js';
import { ScaleHelp } from './scale-help.js';
import { StandardWord } from './standard-word.js';
import { stretchWords } from './stretches.js';
import { editable, figureOf } from './words.js';

const PAD = 12;
const BAND_Y = 9;
const RULE_Y = 15;
const HEIGHT = 42;

/** Drags land on tenths; distances on three figures; stops on hundredths. */
function snapped(id: ControlId, value: number): number {
  if (id === 'distance') return significant(value, 3);
  if (id === 'aperture') return Number(value.toFixed(1));
  return Number(value.toFixed(1)) + 0;
}

/** A back on dots stands at one of them. */
const onDot = (dots: readonly number[], value: number): number =>
  dots.reduce(
    (best, mm) => (Math.abs(mm - value) < Math.abs(best - value) ? mm : best),
    dots[0] ?? value,
  );

/** The scale for those who listen: where each stretch begins and ends. */
const described = (scale: Scale): string => scale.segments.map(stretchWords).join('; ');

export const ScaleView = memo(function ScaleView({ id }: { id: ControlId }) {
  const control = CONTROLS[id];
  const scale = useAppSelector((state) => selectScales(state)[id]);
  const units = useAppSelector((state) => state.preferences.units);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const { setControl } = useEditing();
  const { active, setActive, scaleKey } = useKeyboard();
  const slider = useRef<HTMLDivElement>(null);
  const inner = Math.max(40, width);
  const { domain, lastFinite } = scale;
  // The engraving stands still while the scale is dragged.
  const engraving = useMemo(
    () =>
      engrave(
        { id, value: 0, domain: [domain[0], domain[1]], lastFinite, segments: [], blocked: false },
        inner,
        units,
      ),
    [id, inner, units, domain[0], domain[1], lastFinite], // eslint-disable-line react-hooks/exhaustive-deps
  );
  const dots = useAppSelector((state) =>
    id === 'rise' || id === 'shift' ? stopsOnScale(selectStation(state), id) : NO_DOTS,
  );
  const drags = useRef(0);

  const onDrag = useSteady(({ first, last, xy: [x], event }: DragState): void => {
    event.stopPropagation();
    const box = slider.current?.getBoundingClientRect();
    if (!box) return;
    if (first) {
      drags.current += 1;
      setActive(id);
      slider.current?.focus({ preventScroll: true });
    }
    const station = selectStation(store.getState());
    const [least, most] = control.mechanism(station);
    const dots = id === 'rise' || id === 'shift' ? stopsOnScale(station, id) : [];
    const there = engraving.fromX(x - box.left - PAD);
    const value = dots.length > 0 ? onDot(dots, there) : snapped(id, there);
    setControl(id, Math.min(most, Math.max(least, value)), `drag-${id}-${drags.current}`);
    if (last) dispatch(gestureEnded());
  });

  const wheel = useRef(0);
  const onWheel = useSteady(({ delta: [, dy], event, ctrlKey }: WheelState): void => {
    // Where the page itself scrolls, only the scale in hand takes the wheel from it.
    const page = document.documentElement;
    const scrolls = page.scrollHeight > page.clientHeight + 1;
    if (ctrlKey || (scrolls && document.activeElement !== slider.current)) return;
    event.preventDefault();
    wheel.current += dy;
    while (Math.abs(wheel.current) >= 40) {
      scaleKey(id, {
        key: wheel.current < 0 ? 'ArrowUp' : 'ArrowDown',
        shiftKey: false,
        altKey: false,
        repeat: false,
      });
      wheel.current -= Math.sign(wheel.current) * 40;
    }
  });

  const [figure, unit] = figureOf(id, scale.value, units);
  return (
    <div
      ref={ref}
      className={clsx(
        'relative border-r border-b border-rule px-4 pt-1.5 pb-1 contain-layout',
        active === id && 'bg-page',
      )}
    >
      <div className="flex items-baseline justify-between gap-2">
        <span className="flex min-w-0 items-baseline gap-2">
          <span className={active === id ? 'font-semibold' : ''}>{control.label}</span>
          <StandardWord id={id} />
          <span aria-hidden className="text-[12px] text-faint pointer-coarse:hidden">
            {control.key}
          </span>
          <ScaleHelp scale={scale} units={units} />
        </span>
        <ScaleFigure id={id} figure={figure} unit={unit} value={scale.value} />
      </div>
      <div
        ref={slider}
        id={`scale-${id}`}
        role="slider"
        tabIndex={0}
        aria-label={control.label}
        aria-valuemin={domain[0]}
        aria-valuemax={Number.isFinite(domain[1]) ? domain[1] : lastFinite * 2}
        aria-valuenow={Number.isFinite(scale.value) ? scale.value : lastFinite * 2}
        aria-valuetext={`${figure} ${unit}`.trim()}
        aria-describedby={`scale-${id}-text`}
        onFocus={() => setActive(id)}
        onKeyDown={(event) => {
          if (event.ctrlKey || event.metaKey || !scaleKey(id, event)) return;
          event.preventDefault();
        }}
        className="-mx-3 cursor-ew-resize touch-pan-y select-none pointer-coarse:py-1"
      >
        <svg width={inner + 2 * PAD} height={HEIGHT} aria-hidden className="block overflow-visible">
          <g transform={`translate(${PAD} 0)`}>
            <Bands segments={scale.segments} engraving={engraving} width={inner} />
            <Ticks engraving={engraving} width={inner} />
            <Dots dots={dots} engraving={engraving} />
            <path
              d="M-7,-1 L7,-1 L0,13 Z"
              transform={`translate(${engraving.toX(scale.value)} 1)`}
              className="fill-ink stroke-paper"
              strokeWidth={1.5}
            />
          </g>
        </svg>
        <Drag {...{ onDrag }} target={slider} />
        <Wheel {...{ onWheel }} target={slider} />
      </div>
      <span id={`scale-${id}-text`} className="sr-only">
        {described(scale)}
        {dots.length > 0 && `; it stops at ${dots.map((mm) => `${fixed(mm, 1)} mm`).join(', ')}`}
      </span>
    </div>
  );
});

const NO_DOTS: readonly number[] = [];

/** Where a back on dots stops: nowhere else. */
const Dots = ({ dots, engraving }: { dots: readonly number[]; engraving: Engraving }) =>
  dots.map((mm) => (
    <circle
      key={mm}
      cx={engraving.toX(mm)}
      cy={BAND_Y}
      r={3.5}
      className="fill-paper stroke-ink"
      strokeWidth={1.5}
    />
  ));

function Bands({
  segments,
  engraving,
  width,
}: {
  segments: readonly Segment[];
  engraving: Engraving;
  width: number;
}) {
  return segments.map(({ from, to, standing, beyond }, i) => {
    const x = engraving.toX(from);
    const size = Math.max(0.5, (to === Infinity ? width : engraving.toX(to)) - x);
    if (standing === 'outside') {
      return (
        <g key={i} className={beyond ? 'text-rule-strong' : 'text-outside'}>
          <rect
            x={x}
            y={BAND_Y - 5}
            width={size}
            height={10}
            fill={`url(#hatch${beyond ? '-beyond' : ''})`}
          />
          {beyond && (
            <line
              x1={i === 0 ? x + size : x}
              x2={i === 0 ? x + size : x}
              y1={BAND_Y - 6}
              y2={BAND_Y + 6}
              className="stroke-ink"
              strokeWidth={2}
            />
          )}
        </g>
      );
    }
    return standing === 'costs' ? (
      <line
        key={i}
        x1={x}
        x2={x + size}
        y1={BAND_Y}
        y2={BAND_Y}
        className="stroke-costs"
        strokeWidth={5}
        strokeDasharray="2 3"
      />
    ) : (
      <line
        key={i}
        x1={x}
        x2={x + size}
        y1={BAND_Y}
        y2={BAND_Y}
        className="stroke-within"
        strokeWidth={5}
      />
    );
  });
}

const Ticks = memo(function Ticks({ engraving, width }: { engraving: Engraving; width: number }) {
  return engraving.ticks.map(({ value, label }) => {
    const x = value === Infinity ? width : engraving.toX(value);
    return (
      <g key={value} transform={`translate(${x} ${RULE_Y})`}>
        <line
          y2={label === null ? 4 : 8}
          className={label === null ? 'stroke-rule-strong' : 'stroke-ink'}
        />
        {label !== null && (
          <text y={21} textAnchor="middle" className="narrow text-[12px]">
            {label}
          </text>
        )}
      </g>
    );
  });
});

/** The figure itself is the field: press it and type. */
function ScaleFigure({
  id,
  figure,
  unit,
  value,
}: {
  id: ControlId;
  figure: string;
  unit: string;
  value: number;
}) {
  const control = CONTROLS[id];
  const { setControl } = useEditing();
  const units = useAppSelector((state) => state.preferences.units);
  const input = useRef<HTMLInputElement>(null);
  const plain = editable(id, value, units);
  const { typed, message, begin, props } = useTypedText(control.pointer, plain, (text) => {
    const read = control.parse(text, units);
    return read.ok ? setControl(id, read.value) : read.message;
  });
  // The sentence opens above the scale and must not hide behind the edge of a small screen.
  useEffect(() => {
    if (message !== null) input.current?.scrollIntoView({ block: 'nearest' });
  }, [message]);
  return (
    <span className="flex shrink-0 items-baseline gap-1">
      <input
        ref={input}
        aria-label={`${control.label}, typed`}
        {...props}
        value={typed ? props.value : figure}
        aria-describedby={message === null ? undefined : `why-${id}`}
        onFocus={({ target }) => {
          if (!typed) begin(plain);
          requestAnimationFrame(() => target.select());
        }}
        className="figure w-24 bg-transparent text-right text-[22px] leading-7"
      />
      {unit && <span className="text-[12px] text-quiet">{unit}</span>}
      {message !== null && (
        <span
          id={`why-${id}`}
          role="alert"
          className="absolute right-3 bottom-full left-3 z-10 border border-outside bg-paper px-3 py-2 text-[13px] text-outside"
        >
          {message}
        </span>
      )}
    </span>
  );
}
