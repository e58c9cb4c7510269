import { fixed, mm } from '../format.js';
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
    title: 'Image distance',
    result: mm(report.focus.image_distance_mm, 2),
    source:
      s.focalLengthMm < s.engravedMm
        ? 'Thin-lens equation; e.g. Ray, Applied Photographic Optics, 3rd ed. (2002). The lens shortens up close: at its closest, f = D / (2 + m + 1/m) (common practice, no source); how it passes into that from half that magnification on is a choice.'
        : 'Thin-lens equation; e.g. Ray, Applied Photographic Optics, 3rd ed. (2002).',
  };
  if ('magnification' in focus) {
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
          value: fixed(focus.magnification * s.combined, 3),
        },
      ],
    };
  }
  if ('image_distance_mm' in focus) {
    return {
      ...common,
      words:
        'Set on the bed; a tilt axis behind the lens centre draws the lens back when it leans.',
      formula: 'v = v_set − b (1 − cos τ)',
      numbers: [f, { symbol: 'v_set', meaning: 'as set', value: mm(focus.image_distance_mm, 2) }],
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
