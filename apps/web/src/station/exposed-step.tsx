import { selectExposureVerdict } from '../store/exposure.js';
import { useAppSelector } from '../store/store.js';
import { useAssumed, useMeasured } from './assumed.js';
import { Step } from './step.js';

const RESTS = ['meter', 'dial', 'exposure'] as const;

/** The step Expose, where something is said of the exposure. */
export default function ExposedStep(props: { path: string; label: string; place: string }) {
  const verdict = useAppSelector(selectExposureVerdict);
  const rests = verdict.standing === null ? [] : RESTS;
  const [assumed, measured] = [useAssumed(rests).length > 0, useMeasured(rests).length > 0];
  return <Step {...props} {...verdict} rests={rests} {...{ assumed, measured }} />;
}
