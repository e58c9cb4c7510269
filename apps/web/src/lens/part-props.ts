import type { MeasuredFrom } from '@gangway/station';
import type { Desk } from './desk.js';
import type { Typed } from './typed.js';
import type { Measured, StoredBack, StoredLens } from './use-lens.js';

/** What each way of measuring works with. */
export interface PartProps {
  readonly lens: StoredLens;
  readonly desk: Desk;
  readonly back: StoredBack | null;
  readonly typed: Typed;
  /** When and from what it is measured, of the files that were used. */
  readonly told: (files: readonly string[]) => MeasuredFrom;
  readonly keep: (measured: Measured, said: string) => Promise<boolean>;
}
