import { readFile, writeFile } from 'node:fs/promises';
import { cardSheets, FACE_FILES, sheetPdf, typeface, type Size } from '@gangway/paper';
import type { Station } from '@gangway/station';

const faces = (): Promise<Uint8Array[]> =>
  Promise.all(
    FACE_FILES.map((name) =>
      readFile(new URL(import.meta.resolve(`@fontsource/archivo/files/${name}`))),
    ),
  );

/** The cards of stations as one PDF. @returns letters that the typeface does not have */
export async function writeCards(
  stations: readonly Station[],
  { out, size }: { readonly out: string; readonly size: Size },
): Promise<string> {
  const face = typeface(await faces());
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
