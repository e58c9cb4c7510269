import type { Standing } from '@gangway/station';

/** Colour of a verdict's figure; the words beside it say the same. */
export const STANDING_TEXT: Record<Standing, string> = {
  within: 'text-within',
  costs: 'text-costs',
  outside: 'text-outside',
};
