/**
 * How far a search may go. Steps are counted, not timed, so that the same question has the same
 * answer on every machine; a step is about one multiplication in the innermost loop.
 */
export interface Budget {
  /** Steps left; at or below zero the search ends with the best it has. */
  left: number;
}

/** Some tenths of a second; two hundred marks about a table take a fiftieth of it. */
export const SEARCH_STEPS = 30_000_000;

export const newBudget = (steps: number = SEARCH_STEPS): Budget => ({ left: steps });

export const isSpent = ({ left }: Budget): boolean => left <= 0;

/**
 * Takes steps from a budget before they are done.
 * @returns whether there were any left to begin with; where not, none are taken and nothing is to be done
 */
export function spend(budget: Budget, steps: number): boolean {
  if (isSpent(budget)) return false;
  budget.left -= steps;
  return true;
}

/** Does work on a part of a budget, so that one search leaves something for the next. */
export function within<T>(budget: Budget, most: number, work: (part: Budget) => T): T {
  const given = Math.max(0, Math.min(most, budget.left));
  const part = newBudget(given);
  try {
    return work(part);
  } finally {
    budget.left -= given - part.left;
  }
}

/** A budget with word of whether anything was looked at coarsely, or not at all, to stay within it. */
export interface Effort extends Budget {
  cut: boolean;
}

export const effortOf = ({ left }: Budget): Effort => ({ left, cut: false });

/** Whether all was looked at: only then is it certain that nothing better is there. */
export const isWholeSearch = (effort: Effort): boolean => !effort.cut && !isSpent(effort);
