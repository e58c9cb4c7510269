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
} from '@gangway/station';
import { parseFNumber } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { usePaced } from '../ui/use-paced.js';
import { FigureField, parseNumber } from '../fields/fields.js';
import { Page } from './page.js';

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
  const dispatch = useAppDispatch();
  const efforts = useMemo(() => tiltOrStack(station), [station]);
  const least = Math.min(
    ...efforts.filter(({ holds }) => holds).map(({ spotUm }) => spotUm ?? Infinity),
  );
  const overlap = Math.round((station.stack?.overlap ?? STACK_OVERLAP) * 100);
  return (
    <Page
      title="Lean or stack"
      about="The same marks by one leaned frame, by a stack, and by both. Wind, people and water move between frames of a stack; a lean takes one moment."
    >
      {efforts.length === 0 ? (
        <p>Mark what must be sharp first, on the page Plane.</p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full max-w-4xl text-right">
            <thead>
              <tr className="align-bottom text-[13px] text-quiet [&>th]:px-1.5 [&>th]:font-normal sm:[&>th]:px-3">
                <th className="text-left">Way</th>
                <th>frames</th>
                <th>stop</th>
                <th>lean</th>
                <th>time</th>
                <th>spot of the worst µm</th>
                <th>step on the focus mm</th>
                <th>step on a rail mm</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {efforts.map((each) => (
                <tr key={each.id} className="border-t border-rule [&>td]:px-1.5 sm:[&>td]:px-3">
                  <th className="py-2 pl-1.5 text-left font-medium sm:pl-3">
                    {NAMES[each.id]}
                    {!each.holds && (
                      <span className="ml-2 text-[13px] text-outside">does not hold</span>
                    )}
                  </th>
                  <td className="figure text-[20px]">{each.frames}</td>
                  <td className="figure">{fStop(each.fNumber)}</td>
                  <td className="figure">{each.leanDeg < 0.05 ? '—' : degrees(each.leanDeg)}</td>
                  <td className="figure whitespace-nowrap">{minutes(each.seconds)}</td>
                  <td
                    className={`figure ${each.holds && each.spotUm === least ? 'text-within' : ''}`}
                  >
                    {each.spotUm === null ? '∞' : fixed(each.spotUm, 0)}
                  </td>
                  <td className="figure">{each.stepMm === null ? '—' : fixed(each.stepMm, 2)}</td>
                  <td className="figure">{each.railMm === null ? '—' : fixed(each.railMm, 1)}</td>
                  <td>
                    <Button
                      aria-label={`Set for: ${NAMES[each.id]}`}
                      onClick={() =>
                        dispatch(changed({ station: each.after, label: NAMES[each.id] }))
                      }
                    >
                      Set
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div className="mt-5 max-w-xs space-y-1.5">
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
      <p className="mt-4 max-w-[72ch] text-[13px] text-quiet">
        A step on the focus is a travel of lens or back; on a rail the whole camera moves, and the
        view with it. The spot of a stack is that at the seam of two frames.
      </p>
    </Page>
  );
}
