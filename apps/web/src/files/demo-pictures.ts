import { unzipSync } from 'fflate';
import type { Found } from './dropped-pictures.js';

/** The pictures that come with the demo, as if they had been chosen from a card. */
export async function demoPictures(address: string): Promise<Found> {
  const response = await fetch(address);
  if (!response.ok) throw new Error('not there');
  const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
  return {
    files: Object.entries(files).map(([path, bytes]) => ({
      path,
      file: new File([bytes as BlobPart], path),
    })),
    folder: null,
  };
}
