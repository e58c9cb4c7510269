import { useState } from 'react';
import { sectionOf, solveOf, withSolve } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppStore } from '../store/store.js';
import { useStation } from '../fields/fields.js';
import { useSiteEdit } from '../fields/site-part.js';
import { Advice } from './advice.js';
import { BlurFinder } from './blur-finder.js';
import { MarkList } from '../station/mark-list.js';
import { StationPart } from '../station/station-part.js';
import { SectionView } from './section-view.js';
import { isSwung } from './swung.js';
import { firstZoom, type Zoom } from './section-sheet.js';

const SHOWN = [
  ['side', 'Side section'],
  ['plan', 'Plan'],
  ['both', 'Both'],
] as const;
type Shown = (typeof SHOWN)[number][0];

const ZOOMS = [
  ['scene', 'Scene'],
  ['marks', 'Marks'],
  ['camera', 'Camera'],
] as const;

/** Where the plane of sharp focus lies, and how to bring it where it is wanted. */
export function FocusStep() {
  const store = useAppStore();
  const [shown, setShown] = useState<Shown>(() =>
    isSwung(selectStation(store.getState())) ? 'plan' : 'side',
  );
  const [zoom, setZoom] = useState<Zoom>(() =>
    firstZoom(sectionOf(selectStation(store.getState()), shown === 'plan' ? 'plan' : 'side')),
  );
  return (
    <>
      <div className="relative flex min-h-0 flex-1 flex-col bg-stage max-lg:min-h-[34rem]">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-4 pt-1">
          <Choice label="Section" options={SHOWN} value={shown} onChoose={setShown} />
          <Choice label="Zoom on" options={ZOOMS} value={zoom} onChoose={setZoom} />
          <Follow />
        </div>
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <div className="flex min-h-0 min-w-0 flex-1 flex-col max-lg:min-h-[26rem]">
            {shown !== 'plan' && (
              <StationPart name="The section">
                <SectionView kind="side" zoom={zoom} />
              </StationPart>
            )}
            {shown === 'both' && <div className="border-t border-rule" />}
            {shown !== 'side' && (
              <StationPart name="The plan">
                <SectionView kind="plan" zoom={zoom} />
              </StationPart>
            )}
          </div>
          <StationPart name="The picture">
            <BlurFinder />
          </StationPart>
        </div>
      </div>
      <aside
        aria-label="Focus"
        className="w-full shrink-0 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        <StationPart name="The advice">
          <Advice />
        </StationPart>
        <StationPart name="The list of marks">
          <MarkList />
        </StationPart>
      </aside>
    </>
  );
}

function Choice<T extends string>({
  label,
  options,
  value,
  onChoose,
}: {
  label: string;
  options: readonly (readonly [T, string])[];
  value: T;
  onChoose: (value: T) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex">
      {options.map(([key, words]) => (
        <button
          key={key}
          type="button"
          aria-pressed={key === value}
          onClick={() => onChoose(key)}
          className="min-h-8 px-1.5 text-quiet hover:text-ink aria-pressed:font-semibold aria-pressed:text-ink aria-pressed:underline aria-pressed:decoration-2 aria-pressed:underline-offset-4 pointer-coarse:min-h-11"
        >
          {words}
        </button>
      ))}
    </div>
  );
}

/** Whether the settings follow a mark that is moved. */
function Follow() {
  const station = useStation();
  const edit = useSiteEdit();
  const on = solveOf(station).follow === true;
  return (
    <label className="ml-auto flex min-h-8 items-center gap-2 pointer-coarse:min-h-11">
      <input
        type="checkbox"
        checked={on}
        onChange={() =>
          edit(on ? 'Hold the settings' : 'Follow the marks', '/solve', (now) =>
            withSolve(now, { follow: !on }),
          )
        }
        className="size-4 accent-within"
      />
      Settings follow the marks
    </label>
  );
}
