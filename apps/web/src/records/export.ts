import { cutText, keptName, type Station } from '@gangway/station';
import { saveFile } from '../browser/save-file.js';

const fileName = (name: string): string => {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return `${cutText(plain, 80) || 'station'}.json`;
};

/** Hands a stored document to the browser as a file, whatever it holds. */
export const saveDocument = (document: unknown): void =>
  saveFile(
    fileName(keptName(document)),
    `${JSON.stringify(document, null, 2)}\n`,
    'application/json',
  );

export const exportStation = (station: Station): void => saveDocument(station);
