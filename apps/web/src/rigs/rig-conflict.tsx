import { useState } from 'react';
import { differences, type Rig } from '@gangway/station';
import { Button } from '../ui/button.js';
import { DifferenceTable } from '../ui/difference-table.js';
import { Dialog } from '../ui/dialog.js';

interface Props {
  mine: Rig;
  theirs: Rig;
  onMine: () => void;
  onTheirs: () => void;
  onBoth: () => Promise<string | null>;
}

export function RigConflict({ mine, theirs, onMine, onTheirs, onBoth }: Props) {
  const [failed, setFailed] = useState<string | null>(null);
  return (
    <Dialog
      open
      mustAnswer
      onClose={() => {}}
      title="Changed elsewhere"
      description="This rig was saved from another place while you had changes of your own."
    >
      <DifferenceTable rows={differences(mine, theirs)} mine="Yours" theirs="The other" />
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={onMine}>
          Keep mine
        </Button>
        <Button onClick={onTheirs}>Take the other</Button>
        <Button onClick={() => void onBoth().then(setFailed)}>Keep both</Button>
      </div>
      <p className="mt-3 text-[13px] text-quiet">
        Keep both saves yours separately, as a rig of its own.
      </p>
    </Dialog>
  );
}
