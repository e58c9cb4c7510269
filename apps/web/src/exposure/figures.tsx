import {
  bracketsSaid,
  centreStops,
  exposureVerdict,
  fixed,
  fStop,
  stops,
  trimmed,
  type ExposureReport,
} from '@gangway/station';
import type { Exposed } from '../store/exposure.js';
import { Assumed } from '../station/assumed.js';
import { Group, Line } from '../station/results.js';
import { Why } from '../station/why.js';
import { STANDING_TEXT } from '../ui/standing.js';

/** The time to set, or with flash the stop and power, as the largest figure. */
export function Verdict({ exposed: { station, report } }: { exposed: Exposed }) {
  const { figure, words, sentence, standing } = exposureVerdict(station, report);
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 border-b border-rule pb-2">
      <span className="sr-only" role="status">
        {sentence}
      </span>
      <span
        className={`figure text-[34px] leading-10 ${standing === null ? '' : STANDING_TEXT[standing]}`}
      >
        {figure}
      </span>
      <span className="text-quiet">{words}</span>
      <Assumed rests={['meter', 'dial', 'exposure']} of="the exposure" />
      {report.flash ? (
        <Why reason="exposureFlash" of="what the flash gives" />
      ) : (
        report.time_s !== null && <Why reason="exposureTime" of="the time" />
      )}
    </p>
  );
}

/** Falloff from here on is coloured; common practice, no source. */
const SHOWS = 1;

/** Light at the darkest corner, which is told and not added; a centre filter evens some of it. */
export function CornerLines({ exposed: { station, report } }: { exposed: Exposed }) {
  const { corner_stops: corner } = report;
  const evened = centreStops(station.exposure ?? {});
  const left = corner === null ? null : corner - evened;
  return (
    <Group title="Corners">
      <Line
        name="Darkest corner loses"
        figure={corner === null ? 'all' : fixed(corner, 1)}
        unit={corner === null ? '' : 'stops, not added'}
        tone={left === null || left >= SHOWS ? STANDING_TEXT.costs : ''}
        why={<Why reason="exposureCorner" of="light in the corner" />}
      />
      {evened > 0 && left !== null && (
        <Line
          name="Left with the centre filter"
          figure={fixed(Math.abs(left) < 0.05 ? 0 : left, 1)}
          unit={left < -0.05 ? 'stops, the middle is darker' : 'stops'}
        />
      )}
    </Group>
  );
}

/** The times of a bracket and what they hold together. */
export function BracketLines({ exposed: { station, report } }: { exposed: Exposed }) {
  const { brackets_s: times, span_stops: span, scene_range_stops: scene, problems } = report;
  const short = problems.some(({ code }) => code === 'range');
  return (
    <>
      {times.length > 1 && <Line name="Times" figure={bracketsSaid(station, report)} />}
      {span !== null && (
        <Line
          name={times.length > 1 ? 'Together they hold' : 'One exposure holds'}
          figure={stops(span)}
          tone={short ? STANDING_TEXT.costs : ''}
          {...(scene === null ? {} : { unit: `of ${trimmed(scene, 1)}` })}
          why={<Why reason="exposureBrackets" of="what the bracket holds" />}
        />
      )}
    </>
  );
}

/** What else a flash could do. */
export function FlashLines({ report: { flash } }: { report: ExposureReport }) {
  if (!flash) return null;
  return <Line name="Or one pop as metered, at" figure={fStop(flash.f_number)} />;
}
