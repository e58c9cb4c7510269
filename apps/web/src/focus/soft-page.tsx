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
import { DrawnPage } from '../station/drawn-page.js';
import { MarkList } from '../station/mark-list.js';
import { SectionView } from './section-view.js';
import { isSwung } from './swung.js';

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
  const kind = isSwung(station) ? 'plan' : 'side';
  return (
    <DrawnPage
      title="Soft on purpose"
      about={`Ask of each mark to be sharp or soft; how soft is told by its blur on the back. The wedge is measured square to the plane where each thing stands, at ${fStop(station.aperture)}.`}
      drawing={
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <div className="flex min-h-64 min-w-0 flex-1 flex-col">
            <SectionView {...{ kind }} zoom={wedge.length > 0 ? 'marks' : 'scene'} />
          </div>
          <BlurFinder />
        </div>
      }
    >
      {wedge.length === 0 ? (
        <p>
          Mark the things of the picture first: the one that is to be sharp, those that are to melt
          away.
        </p>
      ) : (
        <table className="w-full text-right text-[13px]">
          <thead>
            <tr className="text-quiet [&>th]:font-normal">
              <th className="text-left">Thing</th>
              <th className="text-left">asked</th>
              <th>wedge there</th>
              <th>blur µm</th>
              <th title="times what counts as sharp">times sharp</th>
            </tr>
          </thead>
          <tbody>
            {wedge.map((line, i) => (
              <tr key={i} className="border-t border-rule">
                <th className="py-1 text-left font-medium">{line.label}</th>
                <td className="text-left text-quiet">{line.must}</td>
                <td className="figure">{thick(line)}</td>
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
      <Group title="Looks to begin from">
        {looks.length === 0 ? (
          <p>They need a mark that must be sharp.</p>
        ) : (
          <WayList ways={looks} />
        )}
      </Group>
      <Group title="Corners, as it is leaned">
        <Line
          name="Brightest corner falls off"
          figure={fixed(falloff.least, 1)}
          unit="stops"
          rests={['light']}
        />
        <Line
          name="Darkest corner falls off"
          figure={Number.isFinite(falloff.most) ? fixed(falloff.most, 1) : '∞'}
          unit="stops"
          rests={['light']}
        />
      </Group>
      <MarkList />
    </DrawnPage>
  );
}
