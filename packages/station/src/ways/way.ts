/** One change that might cure what is wrong; whether it does is tried before it is offered. */
export interface Draft<T> {
  /** Stable while the change stays of the same kind, for lists on screen. */
  readonly id: string;
  /** What to do, in the imperative. */
  readonly title: string;
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
}

/** The drafts that cure, the cheapest first. Where two cost the same the first proposed leads. */
export const tried = <T>(
  drafts: readonly Draft<T>[],
  { cures, priced = (draft) => draft, most }: Trial<T>,
): Draft<T>[] =>
  drafts
    .filter(({ after }) => cures(after))
    .map(priced)
    .sort((a, b) => a.cost - b.cost)
    .slice(0, most);
