import { useMemo } from 'react';
import {
  cornerFalloff,
  fixed,
  fStop,
  looksFor,
  wedgeAtMarks,
  type WedgeAt,
} from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { usePaced } from '../ui/use-paced.js';
import { WayList } from '../station/way-list.js';
import { BlurFinder } from './blur-finder.js';
import { nearOrFar } from './section-words.js';
import { Group, Line } from '../station/results.js';
import { MarkList } from '../station/mark-list.js';

const READ_MS = 120;

/** What is left soft, and how soft: the wedge at each thing, and looks to begin from. */
export function SoftPage() {
  const station = usePaced(useAppSelector(selectStation), READ_MS);
  const units = useAppSelector((state) => state.preferences.units);
  const wedge = useMemo(() => wedgeAtMarks(station), [station]);
  const looks = useMemo(() => looksFor(station), [station]);
  const falloff = useMemo(() => cornerFalloff(station), [station]);
  const thick = ({ thicknessMm }: WedgeAt): string =>
    thicknessMm === null ? 'no end' : nearOrFar(thicknessMm / 1000, units);
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
        <div className="min-h-0 flex-1 overflow-y-auto bg-paper px-5 py-4">
          <h1 className="text-[18px] font-semibold">Soft on purpose</h1>
          <p className="max-w-[72ch] pb-3 text-quiet">
            Ask of each mark to be sharp or soft; how soft is told by its blur on the back. The
            wedge is measured square to the plane of sharp focus where each thing stands, at{' '}
            {fStop(station.aperture)}.
          </p>
          {wedge.length === 0 ? (
            <p className="py-3">
              Mark the things of the picture first: the one that is to be sharp, those that are to
              melt away.
            </p>
          ) : (
            <table className="w-full max-w-3xl text-right">
              <thead>
                <tr className="text-[13px] text-quiet [&>th]:px-2 [&>th]:font-normal">
                  <th className="text-left">Thing</th>
                  <th className="text-left">asked</th>
                  <th>wedge there</th>
                  <th>off the plane</th>
                  <th>blur µm</th>
                  <th>times what is sharp</th>
                </tr>
              </thead>
              <tbody>
                {wedge.map((line, i) => (
                  <tr key={i} className="border-t border-rule [&>td]:px-2">
                    <th className="py-1 pl-2 text-left font-medium">{line.label}</th>
                    <td className="text-left text-quiet">{line.must}</td>
                    <td className="figure">{thick(line)}</td>
                    <td className="figure">{nearOrFar(Math.abs(line.offPlaneMm) / 1000, units)}</td>
                    <td className="figure">{line.blurUm === null ? '∞' : fixed(line.blurUm, 0)}</td>
                    <td
                      className={`figure ${line.times !== null && line.times <= 1 ? 'text-within' : ''}`}
                    >
                      {line.times === null ? '∞' : fixed(line.times, 1)}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <div className="max-w-sm pt-4">
            <Group title="Corners, as it is leaned">
              <Line
                name="Brightest corner falls off"
                figure={fixed(falloff.least, 1)}
                unit="stops"
              />
              <Line
                name="Darkest corner falls off"
                figure={Number.isFinite(falloff.most) ? fixed(falloff.most, 1) : '∞'}
                unit="stops"
              />
            </Group>
          </div>
        </div>
        <BlurFinder />
      </div>
      <aside
        aria-label="Looks"
        className="w-full shrink-0 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        <Group title="Looks to begin from">
          {looks.length === 0 ? (
            <p>They need a mark that must be sharp.</p>
          ) : (
            <WayList ways={looks} />
          )}
        </Group>
        <MarkList />
      </aside>
    </>
  );
}
