import { assumedFor, measuredFor, type Assumption, type Measurement, type Rests } from '@gangway/station'; // prettier-ignore
import { selectAssumed, selectMeasured } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { AssumedMark } from '../ui/assumed-mark.js';
import { MeasuredMark } from './measured-mark.js';

/** What of a station's figures rests on what nobody gave. */
export const useAssumed = (rests: readonly Rests[]): readonly Assumption[] =>
  assumedFor(useAppSelector(selectAssumed), rests);

/** What of a station's figures rests on what was measured. */
export const useMeasured = (rests: readonly Rests[]): readonly Measurement[] =>
  measuredFor(useAppSelector(selectMeasured), rests);

/** The ring after a figure of the open station: open where it is assumed, filled where it was measured. */
export const Assumed = ({
  rests,
  ...shown
}: {
  rests: readonly Rests[];
  of: string;
  className?: string;
}) => {
  const [assumed, measured] = [useAssumed(rests), useMeasured(rests)];
  return assumed.length > 0 ? (
    <AssumedMark found={assumed} {...shown} />
  ) : (
    <MeasuredMark found={measured} {...shown} />
  );
};
