import { lazy, memo, Suspense } from 'react';
import {
  atMost,
  circleVerdict,
  CORNER_NAMES,
  coverVerdict,
  distance,
  distanceParts,
  fixed,
  fStop,
  readingOf,
  signed,
  type LimitedBy,
  type Report,
  type Station,
} from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { usePaced } from '../ui/use-paced.js';
import { STANDING_TEXT } from '../ui/standing.js';
import { Assumed } from '../station/assumed.js';
import { Group, Line } from '../station/results.js';
import { SharpnessNote } from '../station/sharpness-note.js';
import { StationPart } from '../station/station-part.js';
import { Why } from '../station/why.js';
import { CoverDrawing } from './cover-drawing.js';
import { WaysOut } from './ways-out.js';

// The verdict, the circle and the ways out come first; the rest of the figures follows them in.
const more = () => import('./cover-more.js');
const FacadeLines = lazy(async () => ({ default: (await more()).FacadeLines }));
const MechanismNotes = lazy(async () => ({ default: (await more()).MechanismNotes }));
const MosaicNote = lazy(async () => ({ default: (await more()).MosaicNote }));
const CornerTable = lazy(async () => ({ default: (await more()).CornerTable }));
const CropFields = lazy(async () => ({ default: (await more()).CropFields }));

export function CoverStep() {
  return (
    <>
      <StationPart name="The drawing">
        <CoverDrawing />
      </StationPart>
      <aside
        aria-label="Coverage"
        className="w-full shrink-0 overflow-y-auto border-l contain-content border-rule bg-paper px-5 py-3 lg:w-[332px]"
      >
        <StationPart name="This part">
          <Aside />
        </StationPart>
      </aside>
    </>
  );
}

/** The drawing keeps up with the hand; the figures beside it are read at this pace. */
const READ_MS = 90;

const Aside = () => <CoverFigures station={usePaced(useAppSelector(selectStation), READ_MS)} />;

const CoverFigures = memo(function CoverFigures({ station }: { station: Station }) {
  const units = useAppSelector((state) => state.preferences.units);
  const report = readingOf(station);
  const verdict = coverVerdict(station, report, units);
  const { coverage, focus, field, optics } = report;
  const tone = STANDING_TEXT[coverage.covered ? 'within' : 'outside'];
  const at = station.focus.distance_m !== undefined ? station.focus.distance_m : null;
  const [near, nearUnit] = distanceParts(focus.near_m, units);
  const [far, farUnit] = distanceParts(focus.far_m, units);
  return (
    <>
      <p className="sr-only" role="status">
        {verdict.sentence}
      </p>
      {/* A lens in the hand is not judged as mounted: there is nothing to be cured. */}
      {!station.held_off && (
        <WaysOut station={station} state={circleVerdict(station, report).state} />
      )}
      <Suspense>
        {!station.held_off && <FacadeLines station={station} report={report} units={units} />}
        <MosaicNote station={station} />
        <MechanismNotes station={station} />
      </Suspense>
      <Group title={`Circle at ${fStop(station.aperture)}`}>
        <Line
          name="Diameter, at infinity"
          term="image-circle"
          figure={fixed(optics.circle_diameter_mm, 1)}
          unit="mm"
          rests={['circle']}
        />
        <Line
          name={`Worst corner, ${CORNER_NAMES[coverage.worst_corner]}`}
          figure={coverage.margin_mm === null ? '∞' : signed(coverage.margin_mm, 1)}
          unit="mm"
          tone={tone}
          rests={['circle']}
          why={<Why reason="margin" of="margin of the worst corner" />}
        />
        <Line
          name="Sharp core there"
          term="sharp-core"
          figure={coverage.sharp_margin_mm === null ? '∞' : signed(coverage.sharp_margin_mm, 1)}
          unit="mm"
          tone={coverage.sharp ? STANDING_TEXT.within : STANDING_TEXT.costs}
          rests={['core']}
        />
        <Line
          name="Darkest corner loses"
          figure={
            coverage.corner_falloff_stops === null ? '∞' : fixed(coverage.corner_falloff_stops, 1)
          }
          unit="stops"
          rests={['light']}
        />
        {!coverage.filter_clear && (
          <Line name="Filter ring" figure="cuts a corner" tone={STANDING_TEXT.outside} />
        )}
      </Group>
      <Group
        title={
          <>
            <span className="flex items-center">
              How far each goes alone
              <Assumed rests={['circle']} of="limits of the movements" />
            </span>
            <Why reason="limits" of="limits of the movements" />
          </>
        }
      >
        <Limits coverage={coverage} />
        {coverage.rear_limits && (
          <>
            <p className="pt-1.5 text-[13px] text-quiet">The back, by itself</p>
            <Limits coverage={{ ...coverage, limits: coverage.rear_limits }} plain />
          </>
        )}
      </Group>
      <Suspense>
        <CornerTable station={station} />
        <CropFields />
      </Suspense>
      <Group title={at === null ? 'Focus' : `Focus at ${distance(at, units)}`}>
        <Line
          name="Image distance"
          figure={fixed(focus.image_distance_mm, 2)}
          unit="mm"
          why={<Why reason="imageDistance" of="image distance" />}
        />
        <Line name="Sharp from" figure={near} unit={nearUnit} rests={['sharpness']} />
        <Line name="Sharp to" figure={far} unit={farUnit} rests={['sharpness']} />
        {focus.hinge_mm === null && (
          <Line
            name="Hyperfocal distance"
            term="hyperfocal"
            figure={distanceParts(focus.hyperfocal_m, units)[0]}
            unit={distanceParts(focus.hyperfocal_m, units)[1]}
            rests={['sharpness']}
          />
        )}
        {focus.hinge_mm !== null && (
          <Line
            name="Hinge line from the lens"
            term="hinge-line"
            figure={distanceParts(focus.hinge_mm / 1000, units)[0]}
            unit={distanceParts(focus.hinge_mm / 1000, units)[1]}
          />
        )}
        <Line
          name="Sees across × up"
          figure={`${fixed(field.horizontal_deg, 1)} × ${fixed(field.vertical_deg, 1)}`}
          unit="°"
        />
        <SharpnessNote />
      </Group>
    </>
  );
});

const SIDES = [
  ['Rise', 'rise_mm', 'rise'],
  ['Fall', 'fall_mm', 'fall'],
  ['Left', 'left_mm', 'left'],
  ['Right', 'right_mm', 'right'],
] as const;

/** Where there is no figure: nothing ends the movement, or not even zero is covered. */
function Endless({ by }: { by: LimitedBy }) {
  return by === 'nothing' ? (
    <span className="text-[13px] text-quiet">no end</span>
  ) : (
    <span className="text-[13px] text-outside">not covered</span>
  );
}

/** @param plain what ends each is not told */
function Limits({ coverage, plain = false }: { coverage: Report['coverage']; plain?: boolean }) {
  return (
    <div className="grid grid-cols-2 gap-x-5">
      {SIDES.map(([name, key, by]) => {
        const limit = coverage.limits[key];
        return (
          <div key={key} className="flex items-baseline justify-between py-px">
            <span>{name}</span>
            {limit === null && plain ? (
              <span className="text-[13px] text-quiet">—</span>
            ) : limit === null ? (
              <Endless by={coverage.limited_by[by]} />
            ) : (
              <span className="whitespace-nowrap">
                <span className="figure">{fixed(atMost(limit, 1), 1)}</span>{' '}
                {!plain && (
                  <span className="narrow text-[12px] text-quiet">{coverage.limited_by[by]}</span>
                )}
              </span>
            )}
          </div>
        );
      })}
    </div>
  );
}
