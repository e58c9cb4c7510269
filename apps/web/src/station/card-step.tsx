import { useMemo } from 'react';
import { cardStanding } from '@gangway/station';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { usePaced } from '../ui/use-paced.js';
import { Step } from './step.js';

/** While a hand is on a scale the card is judged at this pace. */
const READ_MS = 200;

/** The step Card of a station with frames or an exposure, which have a say in it. */
export default function CardStep(props: { path: string; label: string; place: string }) {
  const station = usePaced(useAppSelector(selectStation), READ_MS);
  const verdict = useMemo(() => cardStanding(station), [station]);
  return <Step {...props} {...verdict} rests={[]} assumed={false} measured={false} />;
}
