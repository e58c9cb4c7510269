import Papa from 'papaparse';
import { circleTableOf, kitText, tableOf, type KitItem, type Kind } from '@gangway/station';
import { saveFile } from '../browser/save-file.js';

const csv = ({ heading, lines }: { heading: string[]; lines: string[][] }): string =>
  // RFC 4180; a cell that a spreadsheet would run as a formula is written as text.
  `${Papa.unparse({ fields: heading, data: lines }, { newline: '\r\n', escapeFormulae: /^[=+\-@\t\r'].*[A-Za-z!(|]/ })}\r\n`;

export const exportKit = (items: readonly KitItem[]): void =>
  saveFile('kit.json', kitText(items), 'application/json');

export const exportTable = (kind: Kind, items: readonly KitItem[]): void =>
  saveFile(`${kind === 'lens' ? 'lenses' : `${kind}s`}.csv`, csv(tableOf(kind, items)), 'text/csv');

export const exportCircles = (items: readonly KitItem[]): void =>
  saveFile('circles.csv', csv(circleTableOf(items)), 'text/csv');
