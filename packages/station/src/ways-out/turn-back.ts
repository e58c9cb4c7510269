import type { Kind } from './kind.js';

/** Turning the back is quick, but it is another picture. */
const ANOTHER_PICTURE = 2.5;

export const turnBack: Kind = {
  name: 'turn the back',
  propose: ({ station }) => {
    const { back } = station;
    const upright = back.orientation === 'landscape';
    const cut = `${(back.width_mm - back.height_mm).toFixed(0)} mm`;
    return [
      {
        id: 'turn-back',
        title: upright ? 'Turn the back upright' : 'Turn the back level',
        price: upright ? `${cut} narrower, ${cut} taller` : `${cut} lower, ${cut} wider`,
        cost: ANOTHER_PICTURE,
        after: { ...station, back: { ...back, orientation: upright ? 'portrait' : 'landscape' } },
      },
    ];
  },
};
