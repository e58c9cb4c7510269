export { FACE_FILES } from './faces.js';
export { sheetPdf, type Pdf } from './pdf.js';
export type { Sheet, SheetLine, SheetText } from './sheet.js';
export { limitsStrip, PAPERS, PROOF_MM, type Paper } from './strip.js';
export { sheetSvg } from './svg.js';
