/** The steps that are built, in the order people work. The key is the step's place in the whole. */
export const STEPS = [
  { key: '1', path: 'view', label: 'View' },
  { key: '2', path: 'cover', label: 'Cover' },
  { key: '3', path: 'focus', label: 'Focus' },
] as const;
