import { assumedFor, type Assumption, type Rests } from '@gangway/station';
import { selectAssumed } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedMark } from '../ui/assumed-mark.js';

/** What of a station's figures rests on what nobody gave. */
export const useAssumed = (rests: readonly Rests[]): readonly Assumption[] =>
  assumedFor(useAppSelector(selectAssumed), rests);

/** The ring after a figure of the open station. */
export const Assumed = ({
  rests,
  ...shown
}: {
  rests: readonly Rests[];
  of: string;
  className?: string;
}) => <AssumedMark found={useAssumed(rests)} {...shown} />;
