import { dialSaid, factorSaid, timeSaid } from '../src/index.js';

describe('times in words', () => {
  it.each([
    [1 / 128, 'third', '1/125 s'],
    [2 ** (-7 - 1 / 3), 'third', '1/160 s'],
    [2 ** -7.5, 'half', '1/180 s'],
    [2 ** (1 / 3), 'third', '1.3 s'],
    [2 ** 0.5, 'half', '1.5 s'],
    [32, 'third', '30 s'],
    [2 ** (16 / 3), 'third', '40 s'],
    [64, 'full', '1 min 4 s'],
    [2 ** -13, 'full', '1/8000 s'],
    [2 ** -5, 'third', '1/30 s'],
    [2 ** (-4 - 2 / 3), 'third', '1/25 s'],
    [2 ** (-2 + 1 / 3), 'third', '0.3 s'],
    [2 ** -0.5, 'half', '0.7 s'],
  ] as const)('%p s on %p steps is engraved %p', (time, steps, said) => {
    expect(dialSaid(time, steps)).toBe(said);
  });

  it('every engraved step reads within a fifth of a stop of what it stands for', () => {
    for (const [steps, per] of [
      ['full', 1],
      ['half', 2],
      ['third', 3],
    ] as const) {
      for (let index = -13 * per; index <= 4 * per; index++) {
        const said = dialSaid(2 ** (index / per), steps).replace(' s', '');
        const [top, bottom = '1'] = said.split('/');
        const off = Math.log2(Number(top) / Number(bottom)) - index / per;
        expect([steps, said, Math.abs(off) < 0.2]).toEqual([steps, said, true]);
      }
    }
  });

  it.each([
    [1 / 118, '1/118 s'],
    [1.344, '1.34 s'],
    [20.42, '20.4 s'],
    [134, '2 min 14 s'],
    [4320, '1 h 12 min'],
    [59.97, '1 min'],
    [3599.8, '1 h'],
  ])('%p s is %p', (time, said) => {
    expect(timeSaid(time)).toBe(said);
  });

  it('a factor of time is told by its stops', () => {
    expect(factorSaid(4 / 3)).toBe('2.5×');
  });
});
