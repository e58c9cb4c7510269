import { useMemo } from 'react';
import { useDesk } from './desk.js';
import { useTyped } from './file-fields.js';
import type { Spot } from './spots.js';
import type { StoredLens } from './use-lens.js';

/** Stops that the lens names or was measured at. */
export function stopsOf({ document }: StoredLens): number[] {
  const { measured } = document;
  const all = [
    document.f_min,
    ...document.circle.map(({ f_number }) => f_number),
    ...(measured?.circle ?? []).map(({ f_number }) => f_number),
    ...(measured?.sharpness ?? []).map(({ f_number }) => f_number),
    ...(measured?.detail ?? []).map(({ f_number }) => f_number),
  ];
  return [...new Set(all)].filter((stop) => stop >= document.f_min * 0.99 && stop <= document.f_max * 1.01).sort((a, b) => a - b); // prettier-ignore
}

/** The pictures of a series as they lie on its desk. */
export function useSpots(lens: StoredLens | null): Spot[] {
  const desk = useDesk(lens?.id ?? '', 'series');
  const typed = useTyped(lens?.id ?? '', 'series');
  return useMemo(
    () =>
      (desk.files ?? [])
        .flatMap((file): Spot[] => {
          const fNumber = file.fNumber ?? typed.of(file.name, 'stop');
          return lens && fNumber !== null && !Number.isNaN(fNumber) ? [{ lens: lens.id, file, fNumber }] : []; // prettier-ignore
        })
        .sort((a, b) => a.fNumber - b.fNumber),
    [desk.files, lens, typed],
  );
} // prettier-ignore
