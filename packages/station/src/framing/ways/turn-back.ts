import { placed } from '../place.js';
import type { FramingKind } from './kind.js';

export const turnBack: FramingKind = ({ station }) => {
  const { back } = station;
  const upright = back.orientation === 'landscape';
  const after = placed({
    ...station,
    back: { ...back, orientation: upright ? 'portrait' : 'landscape' },
  });
  if (!after) return [];
  const more = `${(back.width_mm - back.height_mm).toFixed(0)} mm`;
  return [
    {
      id: 'frame-turn-back',
      title: upright ? 'Turn the back upright' : 'Turn the back level',
      price: upright ? `${more} taller, ${more} narrower` : `${more} wider, ${more} lower`,
      cost: 1.5,
      after,
    },
  ];
};
