import type { Station } from '@gangway/station';

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
export function exportStation(station: Station): void {
  const blob = new Blob([`${JSON.stringify(station, null, 2)}\n`], { type: 'application/json' });
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = fileName(station.name);
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
