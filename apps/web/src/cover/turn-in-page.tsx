import { useMemo } from 'react';
import {
  acrossConvergenceDeg,
  balls,
  fixed,
  mostTurnInOf,
  parseAngleDeg,
  readingOf,
  signed,
  stretchedThings,
  turnedIn,
  without,
  type PicturedBall,
  type Station,
} from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Field } from '../fields/field.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Group, Line } from '../station/results.js';
import { Why } from '../station/why.js';
import { MiniFinder } from '../drawing/mini-finder.js';
import type { Sheet } from '../drawing/sheet.js';

type Keep = NonNullable<Station['turn_in']>['keep'];

const KEEPS: readonly (readonly [Keep, string])[] = [
  ['left', 'Left edge'],
  ['center', 'Middle'],
  ['right', 'Right edge'],
];

const NO_TURN: NonNullable<Station['turn_in']> = { yaw_deg: 0, keep: 'left' };

/** How much one turns in to begin with, as a share of the most. */
const BEGIN_SHARE = 0.5;

const start = (station: Station, side: -1 | 1): NonNullable<Station['turn_in']> => {
  const keep = side < 0 ? 'left' : 'right';
  const most = Math.min(10, mostTurnInOf(station, keep, side));
  return { yaw_deg: Number((side * most * BEGIN_SHARE).toFixed(1)) + 0, keep };
};

/** Turn the camera into the stretched side, shift back the other way: before and after. */
export function TurnInPage() {
  const station = useAppSelector(selectStation);
  const { change } = useEditing();
  const things = useMemo(() => stretchedThings(station), [station]);
  const asked = station.turn_in ?? NO_TURN;
  const side: -1 | 1 =
    asked.keep === 'left' ? -1 : asked.keep === 'right' ? 1 : asked.yaw_deg < 0 ? -1 : 1;
  const most = mostTurnInOf(station, asked.keep, side);
  const before = useMemo(() => without(station, 'turn_in'), [station]);
  const after = useMemo(() => turnedIn({ ...station, turn_in: asked }), [station, asked]);
  const report = readingOf({ ...station, turn_in: asked }).turn_in!;
  const set = (turn_in: NonNullable<Station['turn_in']>, gesture?: string): string | null =>
    change('Turn in', '/turn_in/yaw_deg', (now) => ({ ...now, turn_in }), gesture);
  const amount = side * asked.yaw_deg;
  const tone = STANDING_TEXT[report.possible ? 'within' : 'outside'];

  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage sm:flex-row">
        <MiniFinder
          station={before}
          title="Before"
          over={(sheet) => <Balls sheet={sheet} balls={balls(before, before)} />}
        >
          <p className="text-quiet">As set: shift {signed(station.movements.shift_mm, 1)} mm.</p>
        </MiniFinder>
        <MiniFinder
          station={after}
          title="After"
          over={(sheet) => <Balls sheet={sheet} balls={balls(before, after)} />}
        >
          <p className="text-quiet">
            Turned {fixed(Math.abs(asked.yaw_deg), 1)}° to the{' '}
            {asked.yaw_deg < 0 ? 'left' : 'right'}, shift {signed(after.movements.shift_mm, 1)} mm.
          </p>
        </MiniFinder>
      </div>
      <aside
        aria-label="Turn in, shift back"
        className="w-full shrink-0 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        <p className="mb-3">Turn the camera into the stretched side, shift back the other way.</p>
        <Group title="What is stretched">
          <ul>
            {(
              [
                [-1, 'Left edge'],
                [1, 'Right edge'],
              ] as const
            ).map(([way, name]) => (
              <li
                key={name}
                className="flex items-center justify-between border-t border-rule py-1"
              >
                <span>
                  {name}{' '}
                  <span className="figure text-quiet">
                    {fixed(readingOf(station).perspective.stretch[way < 0 ? 'left' : 'right'], 2)} ×
                  </span>
                </span>
                <Button onClick={() => set(start(station, way))} aria-label={`Ease: ${name}`}>
                  Ease
                </Button>
              </li>
            ))}
            {things.slice(0, 2).map(({ name, asideDeg, stretch }) => (
              <li
                key={name}
                className="flex items-center justify-between border-t border-rule py-1"
              >
                <span>
                  {name} <span className="figure text-quiet">{fixed(stretch, 2)} ×</span>
                </span>
                <Button
                  onClick={() => set(start(station, asideDeg < 0 ? -1 : 1))}
                  aria-label={`Ease: ${name}`}
                >
                  Ease
                </Button>
              </li>
            ))}
          </ul>
        </Group>
        <Group title="Turn">
          <div role="radiogroup" aria-label="What stays where it is" className="mb-2 flex gap-1">
            {KEEPS.map(([keep, label]) => (
              <button
                key={keep}
                type="button"
                role="radio"
                aria-checked={asked.keep === keep}
                onClick={() => {
                  const way = keep === 'left' ? -1 : keep === 'right' ? 1 : side;
                  set({ keep, yaw_deg: way * Math.abs(asked.yaw_deg) + 0 });
                }}
                className="min-h-9 flex-1 border border-rule-strong px-1 aria-checked:bg-ink aria-checked:text-on-strong pointer-coarse:min-h-11"
              >
                {label}
              </button>
            ))}
          </div>
          <input
            type="range"
            aria-label="How far to turn"
            min={0}
            max={Math.max(1, Math.min(45, Math.ceil(most * 1.2)))}
            step={0.1}
            value={Math.max(0, amount)}
            onChange={(event) =>
              set({ ...asked, yaw_deg: side * Number(event.target.value) + 0 }, 'turn-in')
            }
            className="min-h-9 w-full accent-ink"
          />
          <Field
            label="Yaw, right positive"
            pointer="/turn_in/yaw_deg"
            unit="°"
            shown={fixed(asked.yaw_deg, 1)}
            parse={parseAngleDeg}
            write={(now, yaw_deg) => ({ ...now, turn_in: { ...asked, yaw_deg } })}
          />
          <Line name="Circle and mechanism allow" figure={fixed(most, 1)} unit="°" />
        </Group>
        <Group title="What it does">
          <Line
            name="Shift to"
            figure={report.shift_mm === null ? '—' : signed(report.shift_mm, 1)}
            unit="mm"
            tone={tone}
            why={<Why reason="turnIn" of="shift that holds the picture" />}
          />
          {!report.possible && (
            <p role="status" className="text-[13px] text-outside">
              More than circle or mechanism allow. Turn {fixed(most, 1)}° at most.
            </p>
          )}
          <Line
            name="Stretch on the near side"
            figure={`${fixed(report.stretch_before.near, 2)} → ${report.stretch_after ? fixed(report.stretch_after.near, 2) : '—'}`}
            unit="×"
          />
          <Line
            name="Stretch on the far side"
            figure={`${fixed(report.stretch_before.far, 2)} → ${report.stretch_after ? fixed(report.stretch_after.far, 2) : '—'}`}
            unit="×"
          />
          <Line
            name="Far edge loses"
            figure={report.far_edge_lost_deg === null ? '—' : fixed(report.far_edge_lost_deg, 1)}
            unit="°"
          />
          <Line
            name="Level lines converge"
            figure={fixed(Math.abs(acrossConvergenceDeg(after)), 1)}
            unit="°"
          />
        </Group>
        <div className="flex flex-wrap gap-2">
          <Button
            look="strong"
            disabled={!report.possible || asked.yaw_deg === 0}
            onClick={() => change('Turn in, shift back', '/movements', turnedIn)}
          >
            Set yaw and shift
          </Button>
          {station.turn_in && (
            <Button
              onClick={() =>
                change('Without the turn', '/turn_in', (now) => without(now, 'turn_in'))
              }
            >
              Forget the turn
            </Button>
          )}
        </div>
      </aside>
    </>
  );
}

/** Round things on the subject as the picture draws them, with their stretch. */
function Balls({ sheet, balls: all }: { sheet: Sheet; balls: readonly PicturedBall[] }) {
  return (
    <g aria-hidden>
      {all.map(({ outline, at, stretch }, i) => (
        <g key={i}>
          <polygon
            points={outline.map(({ x, y }) => `${sheet.x(x)},${sheet.y(y)}`).join(' ')}
            className="fill-costs/25 stroke-costs"
            strokeWidth={1.5}
          />
          <text
            x={sheet.x(at.x)}
            y={sheet.y(at.y) + 4}
            textAnchor="middle"
            className="halo figure text-[11px]"
          >
            {fixed(stretch, 2)}
          </text>
        </g>
      ))}
    </g>
  );
}
