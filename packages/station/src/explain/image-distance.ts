import { fixed, mm } from '../words/format.js';
import type { Asked, Why } from './why.js';

export function whyImageDistance({ station, report, setup: s }: Asked): Why {
  const { focus } = station;
  const f = { symbol: 'f', meaning: 'focal length', value: mm(s.focalLengthMm) };
  const lean = {
    symbol: 'a_z',
    meaning: 'part of the lens axis along the sensor normal',
    value: fixed(s.axis[2], 5),
  };
  const common = {
    rests: ['exposure'] as const,
    title: 'Image distance',
    result: mm(report.focus.image_distance_mm, 2),
    source:
      s.focalLengthMm < s.engravedMm
        ? 'Thin-lens equation; e.g. Ray, Applied Photographic Optics, 3rd ed. (2002). The lens shortens up close: at its closest, f = D / (2 + m + 1/m) (common practice, no source); how it passes into that from half that magnification on is a choice.'
        : 'Thin-lens equation; e.g. Ray, Applied Photographic Optics, 3rd ed. (2002).',
  };
  if (focus.magnification !== undefined) {
    return {
      ...common,
      words:
        'The image stands one focal length behind the lens at infinity, and further by the magnification.',
      formula: 'v = f (1 + m) / a_z',
      numbers: [
        f,
        lean,
        {
          symbol: 'm',
          meaning: 'magnification set',
          value: fixed(focus.magnification * s.ahead, 3),
        },
      ],
    };
  }
  if (focus.image_distance_mm !== undefined) {
    return {
      ...common,
      words:
        'Set on the bed with the lens straight. A tilt axis behind the lens centre draws the lens back when it leans. The distance that counts is measured across the sensor: with the back leaned, along its normal, which rise and shift then lengthen or shorten.',
      formula: 'v = t · n,  t = (s, r, w),  w = w_set − b (1 − a_z) + b′ sin ρ',
      numbers: [
        f,
        { symbol: 'w_set', meaning: 'as set on the bed', value: mm(focus.image_distance_mm, 2) },
        {
          symbol: 'n',
          meaning: 'sensor’s normal in the bed’s axes: right, up, ahead',
          value: s.stance.basis.normal.map((each) => fixed(each, 4)).join(', '),
        },
        {
          symbol: 's, r',
          meaning: 'lens from the middle of the back, right and up',
          value: s.stance.fromBack.map((each) => fixed(each, 2)).join(', '),
        },
        { symbol: 'b', meaning: 'pivot’s part along the bed', value: mm(s.stance.pivotAlongMm, 2) },
        { symbol: 'b′', meaning: 'base tilt’s part along it', value: mm(s.stance.baseAlongMm, 2) },
      ],
    };
  }
  const far = focus.distance_m === null;
  return {
    ...common,
    words: far
      ? 'At infinity the image stands one focal length behind the lens, measured along its axis.'
      : 'The distance is measured from the sensor to the plane of sharp focus, straight ahead; of the two places of the lens that serve, the nearer to the sensor is taken.',
    formula: far ? 'v = f / a_z' : 'v = (D − √(D² − 4 D f / a_z)) / 2',
    numbers: [
      f,
      lean,
      {
        symbol: 'D',
        meaning: 'distance set',
        value: far ? '∞' : `${fixed(focus.distance_m ?? 0, 3)} m`,
      },
    ],
  };
}
