import Papa from 'papaparse';
import {
  circleTableOf,
  guardedLines,
  kitText,
  tableOf,
  type KitItem,
  type Kind,
} from '@gangway/station';
import { saveFile } from '../browser/save-file.js';

const csv = ({ heading, lines }: { heading: string[]; lines: string[][] }): string =>
  // RFC 4180; a cell that a table program would run as a formula is written as text.
  `${Papa.unparse(guardedLines([heading, ...lines]), { newline: '\r\n' })}\r\n`;

export const exportKit = (items: readonly KitItem[]): void =>
  saveFile('kit.json', kitText(items), 'application/json');

export const exportTable = (kind: Kind, items: readonly KitItem[]): void =>
  saveFile(`${kind === 'lens' ? 'lenses' : `${kind}s`}.csv`, csv(tableOf(kind, items)), 'text/csv');

export const exportCircles = (items: readonly KitItem[]): void =>
  saveFile('circles.csv', csv(circleTableOf(items)), 'text/csv');
