import { useState } from 'react';
import { cutText, differences, type KitItem } from '@gangway/station';
import { sentence } from '../records/api.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { DifferenceTable } from '../ui/difference-table.js';
import { useCreateItemMutation, type StoredItem } from '../records/kit-api.js';
import { local } from '../browser/storage.js';
import { tab } from '../store/store.js';
import { itemDrafts } from '../records/item-drafts.js';
import { newId } from '../browser/new-id.js';

interface Props {
  mine: KitItem;
  current: StoredItem;
  draftKey: string;
  /** @returns the sentence that says why not, or null */
  onMine: () => Promise<string | null>;
  onTheirs: () => void;
}

/** Two people changed one item: asks which to go on with. Nothing is lost. */
export function ItemConflict({ mine, current, draftKey, onMine, onTheirs }: Props) {
  const [create] = useCreateItemMutation();
  const [failed, setFailed] = useState<string | null>(null);
  const takeTheirs = (): void => {
    itemDrafts.drop(local, draftKey, tab);
    onTheirs();
  };
  const keepBoth = async (): Promise<void> => {
    const made = await create({
      id: newId(),
      document: { ...mine, name: `${cutText(mine.name, 180)} (mine)` },
    });
    if (made.error) setFailed(sentence(made.error));
    else takeTheirs();
  };
  return (
    <Dialog
      open
      mustAnswer
      onClose={() => {}}
      title="Changed elsewhere"
      description="Somebody saved this item while you had changes of your own."
    >
      <DifferenceTable rows={differences(mine, current.document)} mine="Yours" theirs="The other" />
      {failed !== null && (
        <p role="alert" className="mb-3 text-outside">
          {failed}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <Button look="strong" onClick={() => void onMine().then(setFailed)}>
          Keep mine
        </Button>
        <Button onClick={takeTheirs}>Take the other</Button>
        <Button onClick={() => void keepBoth()}>Keep both</Button>
      </div>
      <p className="mt-3 text-[13px] text-quiet">
        Keep both saves yours separately, as an item of its own.
      </p>
    </Dialog>
  );
}
