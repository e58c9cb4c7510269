import { readFile, writeFile } from 'node:fs/promises';
import {
  cardSheets,
  FACE_FILES,
  MORE_FILES,
  sheetPdf,
  typeface,
  type Size,
  type Typeface,
} from '@gangway/paper';
import type { Station } from '@gangway/station';

const read = (names: readonly string[]): Promise<Uint8Array[]> =>
  Promise.all(names.map((name) => readFile(new URL(import.meta.resolve(name)))));

/** The typeface, and where a text has letters it lacks, others with it. */
async function faceFor(text: string): Promise<Typeface> {
  const own = await read(FACE_FILES.map((name) => `@fontsource/archivo/files/${name}`));
  const face = typeface(own);
  return face.missing(text).length === 0 ? face : typeface(own, await read(MORE_FILES));
}

/** The cards of stations as one PDF. @returns letters that the typeface does not have */
export async function writeCards(
  stations: readonly Station[],
  { out, size }: { readonly out: string; readonly size: Size },
): Promise<string> {
  const face = await faceFor(JSON.stringify(stations));
  const sheets = stations.flatMap((station, i) =>
    cardSheets(
      {
        station,
        size,
        ...(stations.length > 1 ? { place: `${i + 1} of ${stations.length}` } : {}),
      },
      face,
    ),
  );
  const { bytes, missing } = await sheetPdf(sheets, face);
  await writeFile(out, bytes);
  return missing;
}
