import {
  fixed,
  megapixelsSaid,
  minutes,
  pixelsPerMm,
  mosaicVerdict,
  trimmed,
  type MosaicReport,
} from '@gangway/station';
import type { Laid } from '../store/mosaic.js';
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
      {report.width_mm !== null && <Why reason="mosaicPixels" of="pixels that come out" />}
    </p>
  );
}

/** Everything else that is known of the whole, each with its reason. */
export function Figures({ laid: { report, layout } }: { laid: Laid }) {
  const onThing = pixelsPerMm(layout);
  const {
    horizontal_deg: across,
    vertical_deg: up,
    equivalent_35mm_mm: like,
    falloff_stops: light,
    parallax_px: parts,
    body_travel_mm: travel,
    time_s,
    data_bytes,
  } = report;
  return (
    <Group title="The whole picture">
      {across !== null && (
        <Line
          name="Sees across × up"
          figure={`${fixed(across, 1)} × ${fixed(up!, 1)}`}
          unit="°"
          why={<Why reason="mosaicField" of="field of the whole" />}
        />
      )}
      {like !== null && <Line name="Like, on 24 × 36 mm" figure={fixed(like, 1)} unit="mm" />}
      <Line
        name="Near and far part by"
        figure={parts === null ? 'not known' : fixed(parts, parts > 0 && parts < 10 ? 1 : 0)}
        unit={parts === null ? '' : parts === 0 ? 'px, the lens stays still' : 'px'}
        tone={parts !== null && parts >= 2 ? STANDING_TEXT.costs : ''}
        rests={['depths']}
        why={<Why reason="mosaicParallax" of="parting of near and far" />}
      />
      {travel > 0 && <Line name="Body goes back by" figure={fixed(travel, 1)} unit="mm a frame" />}
      {onThing !== null && (
        <Line name="On the thing in focus" figure={fixed(onThing, 0)} unit="px a mm" />
      )}
      <Line
        name="Light across it"
        figure={light === null ? '∞' : fixed(light, 1)}
        unit="stops"
        tone={light !== null && light > 2 ? STANDING_TEXT.costs : ''}
        why={<Why reason="mosaicLight" of="light over the picture" />}
      />
      <Line
        name="Time, data"
        figure={`${minutes(time_s)}${data_bytes === null ? '' : `, ${trimmed(data_bytes / GIGA, data_bytes < GIGA ? 2 : 1)} GB`}`}
        rests={['work']}
        why={<Why reason="mosaicWork" of="time and data" />}
      />
    </Group>
  );
}

/** What stands in the way, and what to know. */
export function Problems({ report }: { report: MosaicReport }) {
  if (report.problems.length === 0) return null;
  return (
    <ul className="space-y-1.5">
      {report.problems.map(({ code, severity, message }) => (
        <li
          key={code}
          role={severity === 'stop' ? 'alert' : undefined}
          className={`border-l-2 pl-3 ${severity === 'stop' ? 'border-outside text-outside' : 'border-costs'}`}
        >
          {message}
        </li>
      ))}
    </ul>
  );
}
