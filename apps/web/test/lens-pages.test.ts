import { zoomedAt } from '../src/drawing/zoomed.js';
import { detailLines } from '../src/lens/detail-lines.js';
import { numberTyped, STOP_COLUMN, wrongWith, type Typed } from '../src/lens/typed.js';

const zones = (value: number) => [{ zone: 'centre' as const, radius_mm: 4, kept: value, mtf50_cy_mm: 60 * value }, { zone: 'corner' as const, radius_mm: 19, kept: value / 2, mtf50_cy_mm: 30 * value }]; // prettier-ignore

it.each([
  ['f/5.6', 5.6],
  ['−11 mm', -11],
  ['0,5°', 0.5],
  ['+14', 14],
  ['.25', 0.25],
  ['', null],
  ['  ', null],
])('“%s” typed beside a picture is %d', (text, value) => {
  expect(numberTyped(text)).toBe(value);
});

it.each(['eleven', '1/4', '5 6', 'f/x', '--3'])('“%s” is no figure', (text) => {
  expect(numberTyped(text)).toBeNaN();
});

it('says which picture lacks what, and what may stand there', () => {
  const file = { index: 0, name: 'a.jpg', widthPx: 6, heightPx: 4, fNumber: null, note: null };
  const typed = (text: string): Typed => ({ of: () => numberTyped(text), text: () => text, type: () => undefined, typeAll: () => undefined }); // prettier-ignore
  expect(wrongWith(file, [STOP_COLUMN], typed(''))).toBe('f-number of a.jpg is missing: give an f-number from 0.5 to 256.'); // prettier-ignore
  expect(wrongWith(file, [STOP_COLUMN], typed('900'))).toBe('f-number of a.jpg must be an f-number from 0.5 to 256.'); // prettier-ignore
  expect(wrongWith(file, [STOP_COLUMN], typed('8'))).toBeNull();
  expect(wrongWith({ ...file, fNumber: 8 }, [STOP_COLUMN], typed('nonsense'))).toBeNull();
});

it('closer under the hand: what lies there stays there', () => {
  const seen = { x: 3, y: -2, scale: 10 };
  const hand = { x: 120, y: 45 };
  const under = ({ x, y, scale }: typeof seen) => [x + hand.x / scale, y + hand.y / scale];
  const closer = zoomedAt(seen, 2.5, hand, [1, 100]);
  expect(closer.scale).toBe(25);
  under(closer).forEach((place, i) => expect(place).toBeCloseTo(under(seen)[i]!, 12));
  expect(zoomedAt(seen, 1e6, hand, [1, 100]).scale).toBe(100);
  expect(zoomedAt(seen, 1e-6, hand, [1, 100]).scale).toBe(1);
});

describe('the chart of a lens', () => {
  const detail = [4, 8, 16].map((f_number, i) => ({ f_number, zones: zones([0.7, 1, 0.8][i]!) }));
  it('shows shares of detail from a series, with the best stop', () => {
    const lines = detailLines({ detail })!;
    expect([lines.unit, lines.best]).toEqual(['%', 8]);
    expect(lines.zones).toEqual({ centre: [70, 100, 80], edge: [null, null, null], corner: [35, 50, 40] }); // prettier-ignore
  });

  it('shows half contrast where edges were measured at several stops; one alone is no curve', () => {
    const sharpness = detail.slice(0, 2);
    expect(detailLines({ detail, sharpness })!.unit).toBe('lp/mm');
    expect(detailLines({ detail, sharpness: sharpness.slice(0, 1) })!.unit).toBe('%');
    expect(detailLines({ sharpness: sharpness.slice(0, 1) })!.zones.centre).toEqual([42]);
    expect(detailLines({})).toBeNull();
  });
});
