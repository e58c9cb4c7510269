/**
 * Every place of a station, in the order people work. Strip, sub-pages, palette and keys are made
 * from this table; what each place loads stands in routes.ts, so that nothing here loads anything.
 */
export const STEPS = [
  {
    key: '1',
    path: 'view',
    label: 'View',
    places: [
      { path: 'view', label: 'Site' },
      { path: 'view/rig', label: 'Rig and settings' },
    ],
  },
  {
    key: '2',
    path: 'cover',
    label: 'Cover',
    places: [
      { path: 'cover', label: 'Frame' },
      { path: 'cover/limits', label: 'Limits by stop' },
      { path: 'cover/turn-in', label: 'Turn in, shift back' },
      { path: 'cover/software', label: 'Shift or software' },
      { path: 'cover/variants', label: 'Variants' },
    ],
  },
  {
    key: '3',
    path: 'focus',
    label: 'Focus',
    places: [
      { path: 'focus', label: 'Plane' },
      { path: 'focus/stop', label: 'Stop' },
      { path: 'focus/soft', label: 'Soft on purpose' },
      { path: 'focus/stack', label: 'Lean or stack' },
      { path: 'focus/bed', label: 'From the bed scale' },
      { path: 'focus/close', label: 'Close up' },
      { path: 'focus/held-off', label: 'Held off the body' },
    ],
  },
  {
    key: '4',
    path: 'mosaic',
    label: 'Mosaic',
    places: [
      { path: 'mosaic', label: 'Layout' },
      { path: 'mosaic/wish', label: 'Wish' },
      { path: 'mosaic/order', label: 'In order' },
      { path: 'mosaic/schools', label: 'Shift or turn' },
      { path: 'mosaic/prove', label: 'Prove' },
    ],
  },
  {
    key: '5',
    path: 'expose',
    label: 'Expose',
    places: [
      { path: 'expose', label: 'Time' },
      { path: 'expose/bellows', label: 'Bellows graph' },
      { path: 'expose/tapes', label: 'Tapes' },
    ],
  },
  {
    key: '6',
    path: 'card',
    label: 'Card',
    places: [
      { path: 'card', label: 'To shoot from' },
      { path: 'card/paper', label: 'On paper' },
    ],
  },
] as const;

export type StepPath = (typeof STEPS)[number]['path'];
export type PlacePath = (typeof STEPS)[number]['places'][number]['path'];

/** Where a station opens. */
export const FIRST_PLACE: PlacePath = 'cover';

/** The step whose key this is. */
export const stepOf = (key: string): (typeof STEPS)[number] | undefined =>
  STEPS.find((step) => step.key === key);
