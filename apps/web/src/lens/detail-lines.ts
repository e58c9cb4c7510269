import { bestAllOver, type LensZone } from '@gangway/station';
import type { Measured } from './use-lens.js';

/** What is charted of a lens, by stop. */

export interface DetailLines {
  readonly unit: string;
  readonly title: string;
  readonly stops: readonly number[];
  /** By zone, in the order of the stops; null where it was not measured. */
  readonly zones: Readonly<Record<LensZone, readonly (number | null)[]>>;
  readonly best: number | null;
}

/** Half contrast where edges were measured, else the share of detail that a series tells. */
export function detailLines(measured: Measured): DetailLines | null {
  const own = measured.sharpness ?? [];
  // One edge is a figure, not a curve; a series then tells more.
  if (own.length > 1 || (own.length > 0 && (measured.detail ?? []).length === 0)) {
    return linesOf(own, 'mtf50_cy_mm', (value) => value, {
      unit: 'lp/mm',
      title: 'Half contrast, line pairs a millimetre',
      best: null,
    });
  }
  if ((measured.detail ?? []).length === 0) return null;
  return linesOf(measured.detail!, 'kept', (value) => 100 * value, {
    unit: '%',
    title: 'Fine detail kept, of the best stop’s',
    best: bestAllOver(measured),
  });
}

type Entry<Value extends string> = {
  readonly f_number: number;
  readonly zones: readonly ({ readonly zone: LensZone } & Readonly<Record<Value, number>>)[];
};

function linesOf<Value extends string>(
  entries: readonly Entry<Value>[],
  value: Value,
  shown: (value: number) => number,
  rest: Pick<DetailLines, 'unit' | 'title' | 'best'>,
): DetailLines {
  const zone = (of: LensZone) =>
    entries.map(({ zones }) => {
      const found = zones.find((each) => each.zone === of);
      return found ? shown(found[value] as number) : null;
    });
  return {
    ...rest,
    stops: entries.map(({ f_number }) => f_number),
    zones: { centre: zone('centre'), edge: zone('edge'), corner: zone('corner') },
  };
}
