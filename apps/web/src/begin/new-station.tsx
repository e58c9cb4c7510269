import type { WholeRig } from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { BeginForm } from './begin-form.js';
import { NO_LENS_YET, ownLensShape } from './own-lens.js';

interface Props {
  jobId?: string;
  rig?: WholeRig;
  onClose: () => void;
}

/** Begins a station from a job, which asks for the rig, or from a rig, which asks for the job. */
export default function NewStation({ rig, onClose, ...rest }: Props) {
  const [texts, onTexts] = useKept('begin.lens', ownLensShape, NO_LENS_YET);
  return (
    <Dialog
      open
      onClose={onClose}
      title={rig ? 'Begin a station' : 'New station'}
      description={`It takes a copy of ${rig ? `“${rig.name}”` : 'the rig'}; later changes of the kit do not alter it unless you say so.`}
    >
      <BeginForm
        {...rest}
        {...{ texts, onTexts }}
        {...(rig ? { rig } : {})}
        aside={
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
        }
      />
    </Dialog>
  );
}
