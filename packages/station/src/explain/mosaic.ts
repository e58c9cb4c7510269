import { measuredOf } from '../optical/measured.js';
import { depthsOf, type Depths } from '../mosaic/depths.js';
import { layoutOf, overlapOf, type Layout } from '../mosaic/layout.js';
import { parallaxOf } from '../mosaic/parallax.js';
import { mosaicPicture, type MosaicPicture } from '../mosaic/picture.js';
import { reportMosaic, type MosaicReport } from '../mosaic/report.js';
import { degrees, fixed, mm } from '../words/format.js';
import type { Asked, Why } from './why.js';

/** Why each figure of a mosaic is what it is. */

interface Laid {
  readonly layout: Layout;
  readonly report: MosaicReport;
  readonly picture: MosaicPicture | null;
  readonly depths: Depths | null;
}

const number = (symbol: string, meaning: string, value: string) => ({ symbol, meaning, value });

const laidOf = ({ station }: Asked): Laid => {
  const layout = layoutOf(station);
  return {
    layout,
    report: reportMosaic(station, station.mosaic!),
    picture: mosaicPicture(layout),
    depths: depthsOf(station, layout),
  };
};

const OWN = 'Worked here; checked against a general polygon library.';

function pixels(asked: Asked): Why {
  const { layout, report, picture } = laidOf(asked);
  const turn = layout.turn !== null;
  return {
    title: 'Pixels that come out',
    result: report.width_px === null ? 'none' : `${report.width_px} × ${report.height_px} px`,
    words: turn
      ? 'On a cylinder of the image distance the picture is as wide as the turn and as high as is left all along; its ends are where a frame is lowest. Frames times the sensor, which is usually said, counts every overlap twice.'
      : 'The largest upright rectangle about the middle of the layout that lies in the frames together and in the circle. Frames times the sensor, which is usually said, counts every overlap twice.',
    formula: turn ? 'width = v · angle / p,  height = h cos(H/2) / p' : 'width × height / p²',
    numbers: [
      number(
        '',
        'picture',
        picture ? `${fixed(picture.widthMm, 2)} × ${mm(picture.heightMm, 2)}` : '—',
      ),
      number(
        'p',
        'pixel',
        layout.pixelPitchMm === null ? '—' : `${fixed(1000 * layout.pixelPitchMm, 2)} µm`,
      ),
      number(
        '',
        'claimed',
        report.claimed_megapixels === null ? '—' : `${fixed(report.claimed_megapixels, 1)} MP`,
      ),
    ],
    source: OWN,
    rests: ['overlap', 'circle'],
  };
}

function field(asked: Asked): Why {
  const { layout, picture, report } = laidOf(asked);
  return {
    title: 'What the whole sees',
    result: picture
      ? `${fixed(picture.horizontalDeg, 1)} × ${degrees(picture.verticalDeg)}`
      : 'nothing',
    words:
      'From the lens centre to either side of the picture. The equivalent is the lens that sees as much corner to corner on 24 × 36 mm.',
    formula: layout.turn
      ? 'H + (n − 1)(1 − o) H,  H = 2 atan(w / 2v)'
      : 'atan((x + W/2) / v) − atan((x − W/2) / v)',
    numbers: [
      number('v', 'image distance', mm(layout.imageDistanceMm, 2)),
      number('W', 'width of the picture', picture ? mm(picture.widthMm, 2) : '—'),
      ...(layout.turn
        ? [
            number('H', 'of one frame', degrees(layout.turn.frameDeg, 2)),
            number('o', 'overlap', `${fixed(100 * overlapOf(layout.mosaic), 0)} %`),
          ]
        : []),
      number(
        '',
        'like, on 24 × 36 mm',
        report.equivalent_35mm_mm === null ? '—' : mm(report.equivalent_35mm_mm),
      ),
    ],
    source: 'Ray, Applied Photographic Optics, 3rd ed. (2002)',
    rests: ['overlap'],
  };
}

function overlaps(asked: Asked): Why {
  const { layout, report } = laidOf(asked);
  const least = report.overlaps.reduce((low, { share }) => Math.min(low, share), 1);
  return {
    title: 'What neighbours share',
    result: report.overlaps.length === 0 ? 'nothing' : `${fixed(100 * least, 0)} % at the least`,
    words: layout.turn
      ? 'A share of the angle that one frame sees.'
      : 'The area that two frames both see, over the area of one. A merge needs detail in it: a fifth does on a wall, a third or more where there is sky or water (common practice, no source).',
    formula: layout.turn ? '1 − step / H' : '(w − |dx|)(h − |dy|) / (w h)',
    numbers: [
      number('', 'wanted', `${fixed(100 * overlapOf(layout.mosaic), 0)} %`),
      number(
        'w, h',
        'one frame',
        `${fixed(layout.frame.widthMm, 1)} × ${mm(layout.frame.heightMm)}`,
      ),
    ],
    source: OWN,
    rests: ['overlap'],
  };
}

function light(asked: Asked): Why {
  const { layout, report } = laidOf(asked);
  return {
    title: 'Light over the whole picture',
    result:
      report.falloff_stops === null
        ? 'none at a corner'
        : `${fixed(report.falloff_stops, 2)} stops`,
    words: `Darkest place against the lightest. ${measuredOf(asked.station.lens)?.falloff ? 'It is as it was measured' : 'It is natural falloff, which no stop cures'}: a centre filter of that density does, or a frame of evenly lit white at each place, taken off afterwards.`,
    formula: 'log₂ of cos β · cos³ γ, darkest against lightest',
    numbers: [number('v', 'image distance', mm(layout.imageDistanceMm, 2))],
    source:
      'Ray, Applied Photographic Optics, 3rd ed. (2002); the leaned form by summing over the stop.',
    rests: ['overlap', 'light'],
  };
}

function parallax(asked: Asked): Why {
  const { layout, report, depths } = laidOf(asked);
  const { travelMm } = parallaxOf(layout, depths);
  const told = (value: number): string =>
    Number.isFinite(value) ? `${fixed(value / 1000, 2)} m from the sensor` : 'infinity';
  return {
    title: 'Near and far at a seam',
    result: report.parallax_px === null ? 'not known' : `${fixed(report.parallax_px, 1)} px`,
    words:
      'Where the lens goes across, near things move against far ones. With the body moved back by as much, or the back moved instead of the lens, they do not.',
    formula: 'v · t · (1/z₁ − 1/z₂) / p',
    numbers: [
      number('v', 'image distance', mm(layout.imageDistanceMm, 2)),
      number('t', 'travel of the lens, two neighbours', mm(travelMm, 2)),
      number('z₁', 'nearest thing', depths ? told(depths.nearMm) : 'not known'),
      number('z₂', 'farthest thing', depths ? told(depths.farMm) : 'not known'),
    ],
    source: 'Two similar triangles, worked here.',
    rests: ['depths'],
  };
}

function work(asked: Asked): Why {
  const { layout, report } = laidOf(asked);
  const { brackets } = asked.station.exposure ?? {};
  return {
    title: 'Time and data',
    result: `${fixed(report.time_s, 0)} s`,
    words: 'Every frame counts, with its brackets; the first frame again at the end does not.',
    formula: 'frames × brackets × time of one;  × pixels × bits / 8',
    numbers: [
      number('', 'frames', String(layout.frames.length)),
      number('', 'brackets', String(brackets?.frames ?? 1)),
    ],
    source: 'Counted.',
    rests: ['work'],
  };
}

export const MOSAIC_REASONS = {
  mosaicPixels: pixels,
  mosaicField: field,
  mosaicOverlap: overlaps,
  mosaicLight: light,
  mosaicParallax: parallax,
  mosaicWork: work,
};
