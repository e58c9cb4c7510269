/** One change that might cure what is wrong; whether it does is tried before it is offered. */
export interface Draft<T> {
  /** Stable while the change stays of the same kind, for lists on screen. */
  readonly id: string;
  /** What to do, in the imperative. */
  readonly title: string;
  /** JSON pointers, or their beginnings, of what the title says is changed; anything else is told beside it. */
  readonly says: readonly string[];
  /** What it costs, in words. */
  readonly price: string;
  /** What it costs against the others: one stop of light is 1. */
  readonly cost: number;
  readonly after: T;
}

/** A change that was tried and serves: what to do, what it brings and costs, and what it leads to. */
export interface Way<T> {
  readonly id: string;
  readonly title: string;
  readonly detail: string;
  readonly after: T;
}

/** Asks for proposals. To add one: write a file beside the others and list it in their index. */
export type Propose<Question, T> = (question: Question) => Draft<T>[];

/** How drafts are tried, priced and ranked. */
export interface Trial<T> {
  /** Whether what was wrong is cured by it. */
  readonly cures: (after: T) => boolean;
  /** What else it costs, looked at only where it cures. */
  readonly priced?: (draft: Draft<T>) => Draft<T>;
  readonly most: number;
  /** List what is far dearer than the cheapest too. */
  readonly anyPrice?: boolean;
}

/** A remedy this much dearer than the cheapest does not fit the trouble. */
const TIMES_DEARER = 3;
/** In stops: so much dearer it may be in any case. */
const DEARER = 0.5;

/**
 * The drafts that cure, the cheapest first, without those that cost far more than the trouble is
 * worth. Where two cost the same the first proposed leads.
 */
export function tried<T>(
  drafts: readonly Draft<T>[],
  { cures, priced = (draft) => draft, most, anyPrice = false }: Trial<T>,
): Draft<T>[] {
  const found = drafts
    .filter(({ after }) => cures(after))
    .map(priced)
    .sort((a, b) => a.cost - b.cost);
  const dearest = anyPrice
    ? Infinity
    : Math.max((found[0]?.cost ?? 0) * TIMES_DEARER, (found[0]?.cost ?? 0) + DEARER);
  return found.filter(({ cost }) => cost <= dearest).slice(0, most);
}
