import { lightFormat } from 'date-fns';
import { useState } from 'react';
import { coverVerdict, keptStation, readings, type Station } from '@gangway/station';
import {
  sentence,
  useRevisionQuery,
  useRevisionsQuery,
  type ListedRevision,
} from '../records/api.js';
import { useEditing } from '../store/editing.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';

/** Every save of this station. Taking one back is an edit like any other: it can be undone. */
export default function RevisionsDialog({ onClose }: { onClose: () => void }) {
  // Each part begins before the last save of the part above it.
  const [parts, setParts] = useState<readonly number[]>([2_147_483_647]);
  return (
    <Dialog open onClose={onClose} title="Earlier versions">
      {parts.map((before, index) => (
        <Part
          key={before}
          before={before}
          onClose={onClose}
          onMore={index === parts.length - 1 ? (next) => setParts([...parts, next]) : null}
        />
      ))}
    </Dialog>
  );
}

function Part({
  before,
  onClose,
  onMore,
}: {
  before: number;
  onClose: () => void;
  onMore: ((before: number) => void) | null;
}) {
  const { id, baseRevision } = useAppSelector(selectOpen);
  const { data, error } = useRevisionsQuery({ id, before });
  if (error) return <p>{sentence(error)}</p>;
  if (!data) return <p className="text-quiet">Loading …</p>;
  const last = data.at(-1)?.revision ?? 1;
  return (
    <>
      <ul className="divide-y divide-rule">
        {data.map((each) => (
          <Revision
            key={each.revision}
            id={id}
            listed={each}
            present={each.revision === baseRevision}
            onClose={onClose}
          />
        ))}
      </ul>
      {onMore && last > 1 && (
        <Button look="quiet" onClick={() => onMore(last)}>
          Show earlier ones
        </Button>
      )}
    </>
  );
}

function Revision({
  id,
  listed: { revision, savedAt },
  present,
  onClose,
}: {
  id: string;
  listed: ListedRevision;
  present: boolean;
  onClose: () => void;
}) {
  const [looked, setLooked] = useState(false);
  const { change } = useEditing();
  const { data, error } = useRevisionQuery({ id, revision }, { skip: !looked });
  const kept = data ? keptStation(data.document) : null;
  const [refused, setRefused] = useState<string | null>(null);
  const take = (station: Station): void => {
    const why = change(`Take back version ${revision}`, '', () => station);
    setRefused(why);
    if (why === null) onClose();
  };
  return (
    <li className="flex items-center justify-between gap-3 py-2">
      <span className="min-w-0">
        <span className="block font-medium">
          {revision} · {lightFormat(savedAt, 'yyyy-MM-dd, HH:mm:ss')}
        </span>
        {looked && (
          <span role="status" className="block truncate text-quiet">
            {error && sentence(error)}
            {!error && !kept && 'Loading …'}
            {kept?.kind === 'broken' && 'This version cannot be read.'}
            {kept && kept.kind !== 'broken' && <Told station={kept.station} />}
          </span>
        )}
        {refused !== null && (
          <span role="alert" className="block text-outside">
            {refused}
          </span>
        )}
      </span>
      {present ? (
        <span className="text-quiet">present</span>
      ) : kept && kept.kind !== 'broken' ? (
        <Button onClick={() => take(kept.station)}>Take back</Button>
      ) : (
        !looked && (
          <Button
            look="quiet"
            onClick={() => setLooked(true)}
            aria-label={`Look at version ${revision}`}
          >
            Look
          </Button>
        )
      )}
    </li>
  );
}

function Told({ station }: { station: Station }) {
  const verdict = coverVerdict(station, readings(station));
  return (
    <>
      {station.name}, {verdict.figure} {verdict.words}
    </>
  );
}
