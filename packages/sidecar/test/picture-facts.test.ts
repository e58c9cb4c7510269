import { describe, expect, test } from '@jest/globals';
import { embeddedPreview, factsOf } from '../src/picture-facts.js';
import { heic, jpeg, tiff, type Told } from './helpers/picture-bytes.js';

const TOLD: Told = {
  make: 'Quay',
  model: 'Plain 36',
  taken: '2026:10:03 07:12:08',
  hundredths: '25',
  exposure: [1, 40],
  iso: 64,
};
const CLOCK_S = Date.UTC(2026, 9, 3, 7, 12, 8) / 1000;

describe('what a picture tells of itself', () => {
  test.each([
    ['JPEG', jpeg(TOLD)],
    ['TIFF', tiff(TOLD)],
    ['TIFF, the other way round', tiff(TOLD, { little: false })],
    ['DNG', tiff(TOLD, { raw: true })],
    ['HEIC', heic(TOLD)],
  ])('is read from %s', async (_, bytes) => {
    const facts = await factsOf(bytes);
    expect(facts).toMatchObject({ clockS: CLOCK_S + 0.25, camera: 'Quay Plain 36', iso: 64 });
    expect(facts!.timeS).toBeCloseTo(1 / 40, 12);
  });

  test.each([
    ['noughts', '0000:00:00 00:00:00'],
    ['a month that is none', '2026:13:03 07:12:08'],
    ['a day that is none', '2026:02:30 07:12:08'],
    ['an hour that is none', '2026:10:03 27:12:08'],
    ['blanks', '    :  :     :  :  '],
    ['long ago', '1826:10:03 07:12:08'],
  ])('a clock with %s is no time', async (_, taken) => {
    expect((await factsOf(jpeg({ ...TOLD, taken })))!.clockS).toBeNull();
  });

  test('what is not told is not made up, and what is no figure is none', async () => {
    expect(await factsOf(tiff({ make: 'Quay', exposure: [1, 0], iso: 0 }))).toEqual({
      clockS: null,
      camera: 'Quay',
      timeS: null,
      iso: null,
      fNumber: null,
      widthPx: null,
      heightPx: null,
      linear: false,
    });
  });

  test('a file cut short, and one that is no picture, harm nothing', async () => {
    const whole = jpeg(TOLD);
    for (let end = 0; end < whole.length; end += 7) {
      const read = await factsOf(whole.subarray(0, end)).catch(() => null);
      expect(read === null || read.clockS === null || read.clockS >= CLOCK_S).toBe(true);
    }
    await expect(factsOf(Buffer.from('no picture at all, only words'))).rejects.toThrow();
  });
});

describe('a raw file made to cost much', () => {
  it('is looked through a few times, and no more', () => {
    // Beginnings of a JPEG one after the other, each with data that never end.
    const begin = Buffer.from([0xff, 0xd8, 0xff, 0xda, 0x00, 0x02]);
    const bytes = Buffer.alloc(2_000_000, 0x11);
    for (let at = 0; at < 1_000_000; at += 64) begin.copy(bytes, at);
    for (let at = 70; at < 1_000_000; at += 64) bytes[at] = 0x00;
    let looked = 0;
    const counted = new Proxy(bytes, {
      get(target, name) {
        if (typeof name === 'string' && /^\d+$/.test(name)) looked++;
        const value: unknown = Reflect.get(target, name, target);
        return typeof value === 'function' ? (value as () => unknown).bind(target) : value;
      },
    });
    expect(embeddedPreview(counted)).toBeNull();
    expect(looked).toBeLessThan(60 * bytes.length);
  });
});
