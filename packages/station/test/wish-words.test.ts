import { limitSaid, noneServesSaid, type NoneServes } from '../src/index.js';

type Nearest = Extract<NoneServes, { code: 'nearest' }>['values'];

const nearest = (change: Partial<Nearest>): string =>
  noneServesSaid({
    code: 'nearest',
    values: {
      step: null,
      had: { in: 'px', across: 12_384, up: 8256 },
      frames: 3,
      limit: null,
      proven: true,
      ...change,
    },
  });

describe('why no layout serves a wish', () => {
  it.each([
    [{ by: 'circle', aperture: 8 }, 'the circle at f/8'],
    [{ by: 'core', aperture: 11 }, 'the sharp core at f/11'],
    [{ by: 'shift', what: 'back', lowMm: -20, highMm: 20 }, 'the shift of the back, ±20.0 mm'],
    [
      { by: 'rise', what: 'lens', lowMm: -5, highMm: 12 },
      'the rise of the lens, −5.0 mm to 12.0 mm',
    ],
    [{ by: 'travel', what: 'lens', mostMm: 11.5 }, 'the travel of the lens, 11.5 mm'],
    [{ by: 'stops', what: 'back' }, 'the stops of the back'],
  ] as const)('is told by what ends it: %j', (limit, said) => {
    expect(limitSaid(limit)).toBe(said);
    expect(nearest({ limit })).toBe(
      `The nearest by shift is 102 MP, from 3 frames, limited by ${said}.`,
    );
  });

  it.each([
    [{ in: 'degrees', across: 71.24, up: 40 }, '71.2° × 40.0°'],
    [{ in: 'mm', across: 54, up: 36 }, '54.0 × 36.0 mm'],
    [{ in: 'px_across', across: 9000 }, '9000 px across'],
  ] as const)('tells the nearest by what was wished for: %j', (had, said) => {
    expect(nearest({ had, frames: 1 })).toBe(`The nearest by shift is ${said}, from 1 frame.`);
  });

  it('says of detents that they lie too far apart, and that not all was tried', () => {
    const step = { overlap: 0.9, mostOverlap: 0.667, longestStepMm: 3.6, detentMm: 12 };
    const asks =
      'An overlap of 90 % asks for steps of 3.6 mm or less; the detents are 12.0 mm apart. The most overlap on them is 67 %.';
    const none = (values: Extract<NoneServes, { code: 'none' }>['values']): string =>
      noneServesSaid({ code: 'none', values });
    expect(none({ step, sharp: false, proven: true })).toBe(asks);
    expect(none({ step: null, sharp: true, proven: false })).toBe(
      'No layout was found on this rig with every frame in the sharp core. Not every layout was tried.',
    );
    // Detents further apart than a frame is wide leave no overlap to speak of.
    expect(none({ step: { ...step, mostOverlap: -0.2 }, sharp: false, proven: true })).toBe(
      asks.replace(/ The most.*$/, ''),
    );
    expect(nearest({ step, proven: false })).toBe(
      `${asks} The nearest by shift is 102 MP, from 3 frames. Not every layout was tried.`,
    );
  });
});
