import { useMemo } from 'react';
import {
  fixed,
  megapixelsSaid,
  minutes,
  pixelsPerMm,
  pupilWithinMm,
  mosaicVerdict,
  trimmed,
  type MosaicReport,
} from '@gangway/station';
import type { Laid } from '../store/mosaic.js';
import { Assumed } from '../station/assumed.js';
import { Group, Line } from '../station/results.js';
import { Why } from '../station/why.js';
import { STANDING_TEXT } from '../ui/standing.js';

const GIGA = 1e9;

/** What comes out, as the largest figure, and what is said against it. */
export function Verdict({ report }: { report: MosaicReport }) {
  const { figure, words, sentence, standing } = mosaicVerdict(report);
  const claimed = report.claimed_megapixels;
  const mp = report.megapixels !== null && standing !== 'outside';
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 border-b border-rule pb-2">
      <span className="sr-only" role="status">
        {sentence}
      </span>
      <span className={`figure text-[28px] leading-9 ${STANDING_TEXT[standing]}`}>{figure}</span>
      <span className="text-quiet">
        {mp && claimed !== null ? `come out, ${megapixelsSaid(claimed)} claimed` : words}
      </span>
      <Assumed rests={['overlap', 'travel', 'circle']} of="the picture that comes out" />
      {report.width_mm !== null && <Why reason="mosaicPixels" of="pixels that come out" />}
    </p>
  );
}

/** Everything else that is known of the whole, each with its reason. */
export function Figures({ laid: { station, report, layout, picture } }: { laid: Laid }) {
  const onThing = pixelsPerMm(layout);
  const pupil = useMemo(() => pupilWithinMm(station, layout), [station, layout]);
  const {
    equivalent_35mm_mm: like,
    falloff_stops: light,
    parallax_px: parts,
    body_travel_mm: travel,
    time_s,
    data_bytes,
  } = report;
  return (
    <Group title="The whole picture">
      {picture && (
        <Line
          name="Sees across × up"
          figure={`${fixed(picture.horizontalDeg, 1)} × ${fixed(picture.verticalDeg, 1)}`}
          unit="°"
          why={<Why reason="mosaicField" of="field of the whole" />}
        />
      )}
      {like !== null && <Line name="Like, on 24 × 36 mm" figure={fixed(like, 1)} unit="mm" />}
      <Line
        name="Near and far part by"
        term="parallax"
        figure={parts === null ? 'not known' : fixed(parts, parts > 0 && parts < 10 ? 1 : 0)}
        unit={parts === null ? '' : parts === 0 ? 'px, the lens stays still' : 'px'}
        tone={parts !== null && parts >= 2 ? STANDING_TEXT.costs : ''}
        rests={['depths']}
        why={<Why reason="mosaicParallax" of="parting of near and far" />}
      />
      {travel > 0 && <Line name="Body goes back by" figure={fixed(travel, 1)} unit="mm a frame" />}
      {pupil !== null && (
        <Line
          name="Pupil on the axis to"
          term="entrance-pupil"
          figure={fixed(pupil, 1)}
          unit="mm, for one pixel"
          rests={['depths']}
        />
      )}
      {onThing !== null && (
        <Line name="On the thing in focus" figure={fixed(onThing, 0)} unit="px a mm" />
      )}
      <Line
        name="Light across it"
        figure={light === null ? '∞' : fixed(light, 1)}
        unit="stops"
        tone={light !== null && light > 2 ? STANDING_TEXT.costs : ''}
        why={<Why reason="mosaicLight" of="light over the picture" />}
        rests={['light']}
      />
      {light !== null && light >= 1 && (
        <p className="text-[13px] text-quiet">
          A centre filter of {fixed(light, 1)} stops evens it, or a frame of plain white shot at
          each place and taken off afterwards.
        </p>
      )}
      <Line
        name="Time, data"
        figure={`${minutes(time_s)}${data_bytes === null ? '' : `, ${trimmed(data_bytes / GIGA, data_bytes < GIGA ? 2 : 1)} GB`}`}
        rests={['work']}
        why={<Why reason="mosaicWork" of="time and data" />}
      />
    </Group>
  );
}

/** More pairs than this are told by their weakest only. */
const MOST_PAIRS = 12;

/** What each pair of neighbours shares. */
export function Overlaps({ report: { overlaps } }: { report: MosaicReport }) {
  if (overlaps.length === 0) return null;
  const weakest = overlaps.reduce((least, each) => (each.share < least.share ? each : least));
  const told = overlaps.length > MOST_PAIRS ? [weakest] : overlaps;
  return (
    <Group
      title={
        <>
          {overlaps.length > MOST_PAIRS
            ? `The weakest of ${overlaps.length} overlaps`
            : 'What neighbours share'}
          <Why reason="mosaicOverlap" of="overlaps" />
        </>
      }
    >
      <div className="grid grid-cols-3 gap-x-5">
        {told.map(({ a, b, share }) => (
          <div key={`${a} ${b}`} className="flex justify-between">
            <span className="text-quiet">
              {a} and {b}
            </span>
            <span className="figure">{fixed(100 * share, 0)} %</span>
          </div>
        ))}
      </div>
    </Group>
  );
}
