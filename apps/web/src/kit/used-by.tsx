import { Link } from 'react-router';
import { sentence } from '../records/api.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { keptName } from '@gangway/station';
import { useUsedByQuery } from '../records/kit-api.js';
import type { StoredDocument } from '../records/shapes.js';

interface Props {
  stored: StoredDocument;
  then: 'look' | 'archive' | 'delete';
  onClose: () => void;
  onConfirm: () => Promise<void>;
}

const MOST_SHOWN = 12;

const ACTIONS = {
  look: null,
  archive: 'Archive',
  delete: 'Delete for good',
} as const;

/** Where an item is used, and, when it is about to go, that nothing there changes. */
export function UsedByDialog({ stored, then, onClose, onConfirm }: Props) {
  const { data, error } = useUsedByQuery(stored.id);
  const name = keptName(stored.document);
  const action = ACTIONS[then];
  const uses = data
    ? [
        ...data.rigs.map((rig) => ({
          key: rig.id,
          to: `/rigs/${rig.id}`,
          words: `Rig: ${rig.name}`,
        })),
        ...data.stations.map((station) => ({
          key: station.id,
          to: `/jobs/${station.jobId}/stations/${station.id}/view`,
          words: `Station: ${station.job}, ${station.name}`,
        })),
      ]
    : [];
  return (
    <Dialog
      open
      onClose={onClose}
      title={action ? `${action}: ${name}` : `${name} is used by`}
      {...(action
        ? {
            description:
              then === 'delete'
                ? 'It is taken out of the kit for good. Rigs and stations keep their own copies.'
                : 'It leaves the list and can be restored. Rigs and stations keep their own copies.',
          }
        : {})}
    >
      {error ? (
        <p role="alert">{sentence(error)}</p>
      ) : !data ? (
        <p className="text-quiet">Looking …</p>
      ) : uses.length === 0 ? (
        <p>No rig and no station uses it.</p>
      ) : (
        <>
          {action && <p className="mb-1">Used by:</p>}
          <ul className="mb-2">
            {uses.slice(0, MOST_SHOWN).map(({ key, to, words }) => (
              <li key={key}>
                <Link
                  to={to}
                  className="block truncate py-1 underline decoration-rule-strong underline-offset-4"
                >
                  {words}
                </Link>
              </li>
            ))}
          </ul>
          {uses.length > MOST_SHOWN && (
            <p className="text-quiet">and {uses.length - MOST_SHOWN} more</p>
          )}
        </>
      )}
      {action && (
        <div className="mt-4 flex justify-end gap-2">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button
            look="strong"
            onClick={() => {
              onClose();
              void onConfirm();
            }}
          >
            {action}
          </Button>
        </div>
      )}
    </Dialog>
  );
}
