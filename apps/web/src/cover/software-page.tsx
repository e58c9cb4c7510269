import { useMemo } from 'react';
import { degrees, fixed, inSoftware, type Point, type Station } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Group, Line } from '../station/results.js';
import { MiniFinder } from '../drawing/mini-finder.js';
import type { Sheet } from '../drawing/sheet.js';

const polygon = (sheet: Sheet, points: readonly Point[]): string =>
  points.map(({ x, y }) => `${sheet.x(x)},${sheet.y(y)}`).join(' ');

const path = (sheet: Sheet, points: readonly Point[]): string =>
  points.length === 0
    ? ''
    : `M${points.map(({ x, y }) => `${sheet.x(x)} ${sheet.y(y)}`).join('L')}Z`;

/** The same picture by rise, and by pointing the camera and correcting it afterwards. */
export function SoftwarePage() {
  const station = useAppSelector(selectStation);
  const found = useMemo(() => inSoftware(station), [station]);
  const taken = useMemo<Station | null>(
    () =>
      found && {
        ...station,
        camera: { ...station.camera, pitch_deg: found.pitchDeg },
        movements: { ...station.movements, rise_mm: 0 },
      },
    [station, found],
  );
  const level = station.camera.pitch_deg === 0;
  if (!found || !taken) {
    return (
      <div className="flex-1 bg-stage p-6">
        <p className="max-w-prose">
          {level
            ? 'This picture lies beside what a camera without rise could point at.'
            : 'The camera is pitched already. Level it, frame with rise, and compare here what pointing and correcting would give instead.'}
        </p>
      </div>
    );
  }
  const nothing = Math.abs(found.pitchDeg) < 0.005;
  const way = found.pitchDeg >= 0 ? 'up' : 'down';
  return (
    <>
      <div className="flex min-h-0 flex-1 flex-col bg-stage sm:flex-row">
        <MiniFinder station={station} title="With rise">
          <p className="text-quiet">Level, {fixed(station.movements.rise_mm, 1)} mm of rise.</p>
        </MiniFinder>
        <MiniFinder
          station={taken}
          title="Pointed, as taken"
          over={(sheet) => (
            <polygon
              points={polygon(sheet, found.pitched)}
              fill="none"
              className="stroke-costs"
              strokeWidth={2}
              strokeDasharray="6 4"
            />
          )}
        >
          <p className="text-quiet">
            {degrees(Math.abs(found.pitchDeg))} {way}. Dashed: the part the picture needs.
          </p>
        </MiniFinder>
        <MiniFinder
          station={station}
          title="Pointed, corrected"
          over={(sheet) => (
            <path
              d={`${path(sheet, found.wanted)} ${path(sheet, [...found.seen].reverse())}`}
              fillRule="evenodd"
              fill="url(#hatch)"
              className="stroke-outside"
              strokeWidth={1}
            />
          )}
        >
          <p className="text-quiet">
            {found.fieldLost > 0.0005
              ? `Hatched: not on the sensor, ${fixed(100 * found.fieldLost, 1)} % of the picture.`
              : 'All of the picture is on the sensor.'}
          </p>
        </MiniFinder>
      </div>
      <aside
        aria-label="Shift or software"
        className="w-full shrink-0 overflow-y-auto border-l border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        {nothing && (
          <p className="mb-3">No rise is set, so both are the same picture. Set some rise first.</p>
        )}
        <Group title="Left by correcting in software">
          <Line
            name="Pixels"
            figure={fixed(100 * found.pixelShare, 0)}
            unit="% of the shifted picture’s"
          />
          {found.megapixels && (
            <Line
              name="Which is"
              figure={`${fixed(found.megapixels.corrected, 1)} of ${fixed(found.megapixels.shifted, 1)}`}
              unit="MP"
            />
          )}
          <Line name="Field lost" figure={fixed(100 * found.fieldLost, 1)} unit="%" />
        </Group>
        <Group title="Stretch it takes">
          <Line name="At the top, across" figure={fixed(found.top.across, 2)} unit="×" />
          <Line name="At the top, up and down" figure={fixed(found.top.up, 2)} unit="×" />
          <Line name="At the foot, across" figure={fixed(found.foot.across, 2)} unit="×" />
          <Line name="At the foot, up and down" figure={fixed(found.foot.up, 2)} unit="×" />
        </Group>
        <Group title="Pointing">
          <Line
            name={`The camera points ${way}`}
            figure={fixed(Math.abs(found.pitchDeg), 1)}
            unit="°"
          />
        </Group>
        <p className="text-[13px] text-quiet">
          Both pictures have the same perspective. Pixels and stretch are counted on the sensor;
          what resampling itself costs comes on top.
        </p>
      </aside>
    </>
  );
}
