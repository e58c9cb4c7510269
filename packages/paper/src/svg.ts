import type { Sheet } from './sheet.js';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

const n = (value: number): string => String(Number(value.toFixed(3)));

/** A sheet as a drawing whose user unit is a millimetre. */
export function sheetSvg(sheet: Sheet): string {
  const lines = sheet.lines.map(
    ({ x1, y1, x2, y2, strokeMm }) =>
      `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}" stroke-width="${n(strokeMm)}"/>`,
  );
  const texts = sheet.texts.map(
    ({ x, y, text, sizeMm, anchor }) =>
      `<text x="${n(x)}" y="${n(y)}" font-size="${n(sizeMm)}" text-anchor="${anchor}">${escaped(text)}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(sheet.widthMm)}mm" height="${n(sheet.heightMm)}mm" viewBox="0 0 ${n(sheet.widthMm)} ${n(sheet.heightMm)}">`,
    `<title>${escaped(sheet.title)}</title>`,
    `<rect width="100%" height="100%" fill="white"/>`,
    `<g stroke="black">${lines.join('')}</g>`,
    `<g fill="black" font-family="sans-serif">${texts.join('')}</g>`,
    '</svg>',
    '',
  ].join('\n');
}
