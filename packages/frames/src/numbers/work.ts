/** What goes along with long work: how far it is, and whether it is still wanted. */
export interface Work {
  /** Parts done, of all. */
  readonly progress?: (done: number, of: number) => void;
  readonly signal?: { readonly aborted: boolean };
  /** Gives others a turn; not asked for in a thread of its own. */
  readonly pause?: () => Promise<void>;
}

/** Thrown by work that was stopped. */
export class Stopped extends Error {
  constructor() {
    super('Stopped.');
  }
}

/** Lets others have a turn, and ends work that is no longer wanted. */
export async function breathe({ signal, pause }: Work): Promise<void> {
  await pause?.();
  if (signal?.aborted) throw new Stopped();
}
