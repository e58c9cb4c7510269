export { FACE_FILES } from './faces.js';
export { MARGIN_MM, PAPERS, PROOF_MM, SIZES, type Paper, type Size } from './papers.js';
export { sheetPdf, type Pdf } from './pdf.js';
export type { Sheet, SheetLine, SheetShape, SheetText } from './sheet.js';
export { limitsStrip } from './strip.js';
export { pathOf, sheetSvg } from './svg.js';
export { bedTapes, tapeReach } from './tape.js';
export { typeface, type Typeface } from './typeface.js';
