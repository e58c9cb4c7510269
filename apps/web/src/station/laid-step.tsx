import { assumedFor } from '@gangway/station';
import { selectMosaicVerdict } from '../store/mosaic.js';
import { selectAssumed } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Step } from './step.js';

const RESTS = ['circle', 'overlap', 'travel'] as const;

/** The step Mosaic, where frames are laid out. */
export default function LaidStep(props: { path: string; label: string; place: string }) {
  const verdict = useAppSelector(selectMosaicVerdict);
  const assumed = useAppSelector(selectAssumed);
  return (
    <Step {...props} {...verdict!} rests={RESTS} assumed={assumedFor(assumed, RESTS).length > 0} />
  );
}
