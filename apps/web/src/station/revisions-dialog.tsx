import { lightFormat } from 'date-fns';
import { coverVerdict, readings, type Station } from '@gangway/station';
import { sentence, useRevisionsQuery } from '../store/api.js';
import { useEditing } from '../store/editing.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** Every save of this station. Taking one back is an edit like any other: it can be undone. */
export default function RevisionsDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} title="Earlier versions">
      <Revisions onClose={onClose} />
    </Dialog>
  );
}

function Revisions({ onClose }: { onClose: () => void }) {
  const { id, baseRevision } = useAppSelector(selectOpen);
  const { data, error } = useRevisionsQuery(id);
  const { change } = useEditing();
  const take = (document: Station, revision: number): void => {
    change(`Take back version ${revision}`, '', () => document);
    onClose();
  };
  if (error) return <p>{sentence(error)}</p>;
  if (!data) return <p className="text-quiet">Loading …</p>;
  return (
    <ul className="divide-y divide-rule">
      {data.map(({ revision, savedAt, document }) => {
        const verdict = coverVerdict(document, readings(document));
        return (
          <li key={revision} className="flex items-center justify-between gap-3 py-2">
            <span className="min-w-0">
              <span className="block font-medium">
                {revision} · {lightFormat(savedAt, 'yyyy-MM-dd, HH:mm:ss')}
              </span>
              <span className="block truncate text-quiet">
                {document.name}, {verdict.figure} {verdict.words}
              </span>
            </span>
            {revision === baseRevision ? (
              <span className="text-quiet">present</span>
            ) : (
              <Button onClick={() => take(document, revision)}>Take back</Button>
            )}
          </li>
        );
      })}
    </ul>
  );
}
