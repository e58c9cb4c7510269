import { distanceAt } from '@gangway/optics';

/** How near to infinity a lens comes before a body, held straight. */
export interface HeldReach {
  readonly id: string;
  readonly name: string;
  /** From the sensor; null: infinity; undefined: its register is not known. */
  readonly farthestM: number | null | undefined;
  /** The gap at which it is farthest, mm. */
  readonly gapMm: number;
}

interface Lens {
  readonly id: string;
  readonly document: {
    readonly name: string;
    readonly focal_length_mm: number;
    readonly register_mm?: number | undefined;
  };
}

/** The lenses of a kit, those first that come nearest to infinity. */
export function heldReach(
  lenses: readonly Lens[],
  bodyRegisterMm: number | undefined,
): HeldReach[] {
  const rank = ({ farthestM: m }: HeldReach): number => (m === null ? Infinity : (m ?? -1));
  return lenses
    .map(({ id, document: { name, focal_length_mm: f, register_mm: own } }): HeldReach => {
      if (own === undefined || bodyRegisterMm === undefined) {
        return { id, name, farthestM: undefined, gapMm: 0 };
      }
      const spare = own - bodyRegisterMm;
      const farthest = spare >= 0 ? Infinity : distanceAt(f, 1, f - spare);
      return {
        id,
        name,
        farthestM: Number.isFinite(farthest) ? farthest / 1000 : null,
        gapMm: Math.max(0, spare),
      };
    })
    .sort((a, b) => {
      const by = rank(b) - rank(a);
      return Number.isNaN(by) || by === 0 ? a.gapMm - b.gapMm || a.name.localeCompare(b.name) : by;
    });
}
