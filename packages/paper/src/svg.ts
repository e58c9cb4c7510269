import type { Sheet, SheetShape } from './sheet.js';

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

const n = (value: number): string => String(Number(value.toFixed(3)));

const grey = (value = 0): string => {
  const byte = Math.round(255 * value);
  return `rgb(${byte},${byte},${byte})`;
};

/** A shape’s way in the words of SVG. */
export const pathOf = ({ points, closed }: Pick<SheetShape, 'points' | 'closed'>): string =>
  `${points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${n(x)},${n(y)}`).join('')}${closed ? 'Z' : ''}`;

/** A sheet as a drawing whose user unit is a millimetre. */
export function sheetSvg(sheet: Sheet): string {
  const shapes = (sheet.shapes ?? []).map(
    (shape) =>
      `<path d="${pathOf(shape)}" fill="${shape.fill === undefined ? 'none' : grey(shape.fill)}"${
        shape.strokeMm === undefined
          ? ''
          : ` stroke="${grey(shape.grey)}" stroke-width="${n(shape.strokeMm)}"`
      }${shape.dashMm === undefined ? '' : ` stroke-dasharray="${n(shape.dashMm)}"`}/>`,
  );
  const lines = sheet.lines.map(
    ({ x1, y1, x2, y2, strokeMm }) =>
      `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}" stroke-width="${n(strokeMm)}"/>`,
  );
  const texts = sheet.texts.map(
    ({ x, y, text, sizeMm, anchor, strong, grey: tone }) =>
      `<text x="${n(x)}" y="${n(y)}" font-size="${n(sizeMm)}" text-anchor="${anchor}"${
        strong ? ' font-weight="600"' : ''
      }${tone === undefined ? '' : ` fill="${grey(tone)}"`}>${escaped(text)}</text>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(sheet.widthMm)}mm" height="${n(sheet.heightMm)}mm" viewBox="0 0 ${n(sheet.widthMm)} ${n(sheet.heightMm)}">`,
    `<title>${escaped(sheet.title)}</title>`,
    `<rect width="100%" height="100%" fill="white"/>`,
    ...(shapes.length > 0 ? [`<g>${shapes.join('')}</g>`] : []),
    `<g stroke="black">${lines.join('')}</g>`,
    `<g fill="black" font-family="Archivo Variable, Archivo, sans-serif">${texts.join('')}</g>`,
    '</svg>',
    '',
  ].join('\n');
}
