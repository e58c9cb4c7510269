import { useMemo } from 'react';
import { exposureWays, fStop, isoOf, stationShot, trimmed } from '@gangway/station';
import { Aside } from '../station/aside.js';
import { Group } from '../station/results.js';
import { StationPart } from '../station/station-part.js';
import { Tried } from '../station/tried.js';
import { WayList } from '../station/way-list.js';
import { selectExposed, type Exposed } from '../store/exposure.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { ProblemLines } from '../ui/problem-lines.js';
import { usePaced } from '../ui/use-paced.js';
import { ClockFields } from './clock-fields.js';
import { FilmFields } from './film-fields.js';
import { FilterFields } from './filter-fields.js';
import { CornerLines, Verdict } from './figures.js';
import { ReadingFields } from './reading-fields.js';
import { BracketFields, FlashFields, MovingFields } from './scene-fields.js';
import { ShutterFields } from './shutter-fields.js';
import { LightDrawing } from './light-drawing.js';

/** The drawing keeps up with the hand; what is beside it is read at this pace. */
const READ_MS = 90;

/** From the meter’s reading to the time to set. */
export function TimePage() {
  const exposed = useAppSelector(selectExposed);
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col overflow-y-auto bg-stage max-lg:flex-none print:min-h-[14cm]">
        <StationPart name="The drawing">
          <LightDrawing exposed={exposed} />
        </StationPart>
      </div>
      <Aside label="Exposure">
        <Figured exposed={exposed} />
      </Aside>
    </>
  );
}

function Figured({ exposed: now }: { exposed: Exposed }) {
  const exposed = usePaced(now, READ_MS);
  const station = useAppSelector(selectStation);
  const { exposure } = station;
  const iso = isoOf(station);
  return (
    <>
      <Verdict exposed={exposed} />
      <Tried />
      <ProblemLines problems={exposed.report.problems} />
      <Ways />
      <Group title={exposure?.flash ? 'Read with the flash meter' : 'Metered'}>
        <ReadingFields />
        <p className="pt-1.5 text-[13px] text-quiet">
          Read it before you shift or tilt: a meter behind a shifted lens reads wrong.
        </p>
      </Group>
      <Group
        title={`Exposed at ${fStop(stationShot(station).aperture)}${iso === null ? '' : `, ISO ${trimmed(iso, 1)}`}`}
      >
        <FilterFields />
      </Group>
      {(station.back.medium !== 'digital' || exposure?.film || exposure?.reciprocity) && (
        <Group title="Film">
          <FilmFields exposed={exposed} />
        </Group>
      )}
      <Group title="Shutter">
        <ShutterFields />
      </Group>
      {!exposure?.flash && (
        <Group title="Brackets">
          <BracketFields exposed={exposed} />
        </Group>
      )}
      <CornerLines exposed={exposed} />
      <Group title="Flash">
        <FlashFields exposed={exposed} />
      </Group>
      <Group title="What moves">
        <MovingFields exposed={exposed} />
      </Group>
      {!exposure?.flash && (
        <Group title="By the clock">
          <ClockFields exposed={exposed} />
        </Group>
      )}
    </>
  );
}

/** Changes that answer what stands against the exposure, each tried with one touch. */
function Ways() {
  const station = useAppSelector(selectStation);
  const ways = useMemo(() => exposureWays(station), [station]);
  if (ways.length === 0) return null;
  return (
    <Group title="What would help">
      <WayList ways={ways} />
    </Group>
  );
}
