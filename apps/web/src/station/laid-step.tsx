import { selectMosaicVerdict } from '../store/mosaic.js';
import { useAppSelector } from '../store/store.js';
import { useAssumed, useMeasured } from './assumed.js';
import { Step } from './step.js';

const RESTS = ['circle', 'overlap', 'travel'] as const;

/** The step Mosaic, where frames are laid out. */
export default function LaidStep(props: { path: string; label: string; place: string }) {
  const verdict = useAppSelector(selectMosaicVerdict);
  const [assumed, measured] = [useAssumed(RESTS).length > 0, useMeasured(RESTS).length > 0];
  return <Step {...props} {...verdict!} rests={RESTS} {...{ assumed, measured }} />;
}
