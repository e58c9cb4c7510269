import { useMemo } from 'react';
import {
  fixed,
  megapixelsSaid,
  minutes,
  schools,
  type School,
  type Station,
} from '@gangway/station';
import { MiniLayout } from './mini-layout.js';
import { StationPart } from '../station/station-part.js';
import { TRIED } from '../station/way-list.js';
import { selectStation } from '../store/selectors.js';
import { changed } from '../store/station.js';
import { useAppDispatch, useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { usePaced } from '../ui/use-paced.js';
import { Aside } from '../station/aside.js';
import { Nothing } from './nothing.js';
import { Tried } from '../station/tried.js';

const NAMES = { shift: 'Shifted', turn: 'Turned about the pupil' } as const;

/** The same field by shift and by turning the camera: what each costs, and which serves. */
export function SchoolsPage() {
  const station = usePaced(useAppSelector(selectStation), 200);
  const found = useMemo(() => schools(station), [station]);
  if (!found) return <Nothing title="Nothing to compare yet" />;
  const { shift, turn, noShift, noTurn, serves, why } = found;
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col divide-y divide-rule bg-stage max-lg:min-h-[32rem]">
        <StationPart name="The drawing">
          <MiniLayout title={NAMES.shift} school={shift} none={noShift} best={serves === 'shift'} />
          <MiniLayout title={NAMES.turn} school={turn} none={noTurn} best={serves === 'turn'} />
        </StationPart>
      </div>
      <Aside label="Shift or turn">
        <div>
          <h1 className="text-[22px] leading-7 font-semibold">
            {serves === null ? 'Neither serves' : `${NAMES[serves]} serves`}
          </h1>
          <p className="text-quiet">{why}</p>
        </div>
        <Table shift={shift} turn={turn} />
        <Take {...{ station, shift, turn }} />
        <Tried />
        <p className="text-[13px] text-quiet">
          Lines: shifted they stay straight as shot. Turned they stay straight only when the merge
          lays them flat, which stretches the ends; on a cylinder level lines bend.
        </p>
      </Aside>
    </>
  );
}

type Row = readonly [name: string, of: (school: School) => string];

const some = (value: number | null, say: (value: number) => string): string =>
  value === null ? 'not known' : say(value);

const ROWS: readonly Row[] = [
  ['Frames', ({ frames }) => String(frames)],
  [
    'Sees',
    ({ horizontalDeg, verticalDeg }) => `${fixed(horizontalDeg, 1)} × ${fixed(verticalDeg, 1)}°`,
  ],
  ['Pixels as shot', ({ megapixels }) => some(megapixels, megapixelsSaid)],
  ['Light across it', ({ falloffStops }) => some(falloffStops, (s) => `${fixed(s, 1)} stops`)],
  ['Soft corners', ({ soft }) => (soft === 0 ? 'none' : `in ${soft} frames`)],
  [
    'Ends stretched, flat',
    ({ stretched }) => (Number.isFinite(stretched) ? `${fixed(stretched, 1)} ×` : 'cannot be flat'),
  ],
  ['Near and far part', ({ parallaxPx }) => some(parallaxPx, (px) => `${fixed(px, 0)} px`)],
  [
    'Pupil on the axis to',
    ({ pupilWithinMm }) => (pupilWithinMm === null ? '—' : `${fixed(pupilWithinMm, 1)} mm`),
  ],
  ['Time', ({ timeS }) => minutes(timeS)],
];

const Table = ({ shift, turn }: { shift: School | null; turn: School | null }) => (
  <table className="w-full text-right">
    <caption className="sr-only">Shifted beside turned</caption>
    <thead>
      <tr className="text-[13px] text-quiet [&>th]:font-normal">
        <td />
        <th>shifted</th>
        <th>turned</th>
      </tr>
    </thead>
    <tbody>
      {ROWS.map(([name, of]) => (
        <tr key={name} className="border-t border-rule">
          <th className="py-1 text-left font-normal">{name}</th>
          <td className="figure">{shift ? of(shift) : '—'}</td>
          <td className="figure">{turn ? of(turn) : '—'}</td>
        </tr>
      ))}
    </tbody>
  </table>
);

/** Takes the school that is not laid out yet. */
function Take({
  station,
  shift,
  turn,
}: {
  station: Station;
  shift: School | null;
  turn: School | null;
}) {
  const dispatch = useAppDispatch();
  const turned = station.mosaic?.pattern === 'turn';
  const other = turned ? shift : turn;
  if (!other) return null;
  const name = turned ? NAMES.shift : NAMES.turn;
  return (
    <Button
      onClick={() =>
        dispatch(changed({ station: other.after, label: `${TRIED}${name.toLowerCase()}` }))
      }
    >
      Lay it out {name.toLowerCase()}
    </Button>
  );
}
