import { isSpent, type Budget } from '@gangway/optics';

/** What a search for layouts may still cost, and whether it left anything out for it. */
export interface Effort extends Budget {
  /** Something was looked at more coarsely than could be, to stay within reason. */
  cut: boolean;
}

export const effortOf = ({ left }: Budget): Effort => ({ left, cut: false });

/** Whether all was looked at: only then is it certain that nothing better is there. */
export const isWholeSearch = (effort: Effort): boolean => !effort.cut && !isSpent(effort);
