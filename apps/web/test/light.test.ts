import { readFileSync } from 'node:fs';

/** What is written on what, in both lights: by the tokens, so that not every screen is read twice. */

const css = readFileSync(new URL('../src/styles.css', import.meta.url), 'utf8');

/** Tokens of the block a selector opens. */
function tokensOf(selector: string): Record<string, string> {
  const from = css.indexOf(`${selector} {`);
  const block = css.slice(from, css.indexOf('}', from));
  return Object.fromEntries(
    [...block.matchAll(/--([a-z-]+): (#[0-9a-f]{6});/g)].map(([, name, value]) => [name!, value!]),
  );
}

/** Relative luminance. Source: WCAG 2.2, definition of relative luminance. */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const c = parseInt(hex.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Source: WCAG 2.2, definition of contrast ratio. */
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** Checked against a value everybody knows: black on white is 21. */
it('tells the contrast of black on white', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 10);
  expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2);
});

const SURFACES = ['paper', 'page', 'stage', 'glass'];
const TEXTS = ['ink', 'quiet', 'within', 'costs', 'outside'];

describe.each([':root', "[data-light='darkcloth']"])('%s', (selector) => {
  const tokens = tokensOf(selector);

  it('has a value for every token of the other light', () => {
    const both = [':root', "[data-light='darkcloth']"].map((each) => Object.keys(tokensOf(each)));
    expect(both[0]).toEqual(both[1]);
    expect(both[0]!.length).toBeGreaterThan(10);
  });

  it.each(TEXTS.flatMap((text) => SURFACES.map((surface) => [text, surface] as const)))(
    '%s on %s is read: 4.5 at least (WCAG 2.2, 1.4.3)',
    (text, surface) => {
      expect(contrast(tokens[text]!, tokens[surface]!)).toBeGreaterThanOrEqual(4.5);
    },
  );

  it.each(['ink', 'within', 'costs', 'outside'])('what stands on %s is read', (strong) => {
    expect(contrast(tokens['on-strong']!, tokens[strong]!)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(SURFACES)('the edges of controls are seen on %s: 3 at least (WCAG 2.2, 1.4.11)', (on) => {
    expect(contrast(tokens['rule-strong']!, tokens[on]!)).toBeGreaterThanOrEqual(3);
  });
});
