import type { Station } from '@gangway/station';
import { saveFile } from './save-file.js';

const fileName = (name: string): string => {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .trim()
    .replace(/\s+/g, '-')
    .toLowerCase();
  return `${plain.slice(0, 80) || 'station'}.json`;
};

/** Hands the station to the browser as a file. */
export const exportStation = (station: Station): void =>
  saveFile(fileName(station.name), `${JSON.stringify(station, null, 2)}\n`, 'application/json');
