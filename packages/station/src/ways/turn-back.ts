import type { Station } from '../document/station.js';
import { fixed } from '../words/format.js';
import type { Draft } from './way.js';

/**
 * The back turned on its side: quick, and another picture.
 * @param at the station set for it; null where that does not serve
 */
export function turnBack(
  station: Station,
  { id, cost }: Pick<Draft<Station>, 'id' | 'cost'>,
  at: (turned: Station) => Station | null,
): Draft<Station>[] {
  const { back } = station;
  const upright = back.orientation === 'landscape';
  const after = at({
    ...station,
    back: { ...back, orientation: upright ? 'portrait' : 'landscape' },
  });
  if (!after) return [];
  const by = `${fixed(back.width_mm - back.height_mm, 0)} mm`;
  return [
    {
      id,
      says: ['/back/orientation'],
      title: upright ? 'Turn the back upright' : 'Turn the back level',
      price: upright ? `${by} narrower, ${by} taller` : `${by} lower, ${by} wider`,
      cost,
      after,
    },
  ];
}
