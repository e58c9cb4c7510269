import { assumedFor } from '@gangway/station';
import { selectExposureVerdict } from '../store/exposure.js';
import { selectAssumed } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Step } from './step.js';

const RESTS = ['meter', 'dial', 'exposure'] as const;

/** The step Expose, where something is said of the exposure. */
export default function ExposedStep(props: { path: string; label: string; place: string }) {
  const verdict = useAppSelector(selectExposureVerdict);
  const assumed = useAppSelector(selectAssumed);
  const rests = verdict.standing === null ? [] : RESTS;
  return (
    <Step {...props} {...verdict} rests={rests} assumed={assumedFor(assumed, rests).length > 0} />
  );
}
