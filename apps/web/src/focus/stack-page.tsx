import { useMemo } from 'react';
import {
  degrees,
  fixed,
  fStop,
  minutes,
  SECONDS_EACH,
  STACK_OVERLAP,
  stackStop,
  tiltOrStack,
  type Effort,
  type Station,
  leastOf,
} from '@gangway/station';
import { parseFNumber } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { usePaced } from '../ui/use-paced.js';
import { FigureField, parseNumber } from '../fields/fields.js';
import { DrawnPage } from '../station/drawn-page.js';
import { Group } from '../station/results.js';
import { EffortDrawing } from './stack-drawing.js';

const NAMES: Record<Effort['id'], string> = {
  tilt: 'One frame, leaned',
  straight: 'One frame, straight',
  stack: 'A stack, straight',
  both: 'A stack, leaned',
};

const withStack = (station: Station, change: object): Station => ({
  ...station,
  stack: { ...station.stack, ...change },
});

/** A lean, a stack, or both: what each costs and what it leaves. */
export function StackPage() {
  const station = usePaced(useAppSelector(selectStation), 120);
  const units = useAppSelector((state) => state.preferences.units);
  const dispatch = useAppDispatch();
  const efforts = useMemo(() => tiltOrStack(station), [station]);
  const least = leastOf(
    efforts.filter(({ holds }) => holds).map(({ spotUm }) => spotUm ?? Infinity),
  );
  const overlap = Math.round((station.stack?.overlap ?? STACK_OVERLAP) * 100);
  const shown = (['tilt', 'stack'] as const).flatMap(
    (id) => efforts.find((each) => each.id === id) ?? [],
  );
  return (
    <DrawnPage
      title="Lean or stack"
      about="The same marks by one leaned frame, by a stack, and by both. Wind, people and water move between frames of a stack; a lean takes one moment."
      drawing={
        shown.length === 0 ? (
          <p className="p-5">Mark what must be sharp first, on the page Plane.</p>
        ) : (
          <div className="flex min-h-0 flex-1 flex-col divide-y divide-rule">
            {shown.map((effort) => (
              <EffortDrawing key={effort.id} {...{ effort, units }} title={NAMES[effort.id]} />
            ))}
          </div>
        )
      }
    >
      <ul>
        {efforts.map((each) => (
          <li key={each.id} className="border-t border-rule py-2">
            <div className="flex items-center justify-between gap-3">
              <span>
                <span className="figure text-[22px]">{each.frames}</span>{' '}
                <span className="font-medium">{NAMES[each.id]}</span>
                {!each.holds && (
                  <span className="ml-2 text-[13px] text-outside">does not hold</span>
                )}
              </span>
              <Button
                aria-label={`Set for: ${NAMES[each.id]}`}
                onClick={() => dispatch(changed({ station: each.after, label: NAMES[each.id] }))}
              >
                Set
              </Button>
            </div>
            <p className="text-[13px] text-quiet">
              {[
                fStop(each.fNumber),
                each.leanDeg < 0.05 ? 'no lean' : `leaned ${degrees(each.leanDeg)}`,
                minutes(each.seconds),
                ...(each.stepMm === null ? [] : [`${fixed(each.stepMm, 2)} mm a step`]),
                ...(each.railMm === null ? [] : [`${fixed(each.railMm, 1)} mm on a rail`]),
              ].join(', ')}
              {'; '}
              <span className={each.holds && each.spotUm === least ? 'text-within' : ''}>
                worst spot {each.spotUm === null ? 'without end' : `${fixed(each.spotUm, 0)} µm`}
              </span>
            </p>
          </li>
        ))}
      </ul>
      <Group title="The stack">
        <div className="space-y-1.5">
          <FigureField
            label="Stop of a stack, f/"
            pointer="/stack/f_number"
            parse={parseFNumber}
            value={stackStop(station)}
            write={(now, f_number) => withStack(now, { f_number })}
          />
          <FigureField
            label="Frames share"
            pointer="/stack/overlap"
            unit="%"
            parse={parseNumber}
            value={overlap}
            write={(now, share) => withStack(now, { overlap: share / 100 })}
          />
          <FigureField
            label="Time for one frame"
            pointer="/stack/seconds_each"
            unit="s"
            parse={parseNumber}
            value={station.stack?.seconds_each ?? SECONDS_EACH}
            write={(now, seconds_each) => withStack(now, { seconds_each })}
          />
        </div>
      </Group>
      <p className="text-[13px] text-quiet">
        A step on the focus is a travel of lens or back; on a rail the whole camera moves, and the
        view with it. The spot of a stack is that at the seam of two frames.
      </p>
    </DrawnPage>
  );
}
