export { FACE_FILES } from './faces.js';
export { sheetPdf, type Pdf } from './pdf.js';
export type { Sheet, SheetLine, SheetText } from './sheet.js';
export { limitsStrip, PROOF_MM } from './strip.js';
export { sheetSvg } from './svg.js';
