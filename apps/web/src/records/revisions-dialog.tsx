import { lightFormat } from 'date-fns';
import { useState } from 'react';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { NameDialog } from '../ui/name-dialog.js';
import {
  sentence,
  useNameRevisionMutation,
  useRevisionQuery,
  useRevisionsQuery,
  type Kept,
} from './api.js';
import { HistorySetting } from './history-setting.js';
import type { ListedRevision } from './shapes.js';

interface Props {
  of: Kept;
  id: string;
  /** The revision the page works on. */
  present: number;
  /** What a version is, in a line; null when it cannot be read. */
  tell: (document: unknown) => string | null;
  /** Takes a version back. @returns null, or the sentence that says why not */
  onTake: (document: unknown, revision: number) => string | null;
  onClose: () => void;
}

/** Every save there is. Taking one back is an edit like any other: it can be undone. */
export default function RevisionsDialog(props: Props) {
  // Each part begins before the last save of the part above it.
  const [parts, setParts] = useState<readonly number[]>([2_147_483_647]);
  const [naming, setNaming] = useState<ListedRevision | null>(null);
  const [name] = useNameRevisionMutation();
  const { of, id } = props;
  return (
    <Dialog open onClose={props.onClose} title="Earlier versions">
      {parts.map((before, index) => (
        <Part
          key={before}
          {...props}
          before={before}
          onName={setNaming}
          onMore={index === parts.length - 1 ? (next) => setParts([...parts, next]) : null}
        />
      ))}
      <HistorySetting />
      <NameDialog
        open={naming !== null}
        title={`Name version ${naming?.revision ?? ''}`}
        label="Name of the version"
        action="Keep it"
        initial={naming?.name ?? ''}
        onClose={() => setNaming(null)}
        onSubmit={async (given) => {
          const made = await name({ of, id, revision: naming!.revision, name: given });
          return made.error ? sentence(made.error) : null;
        }}
      />
    </Dialog>
  );
}

function Part({
  before,
  onMore,
  ...props
}: Props & {
  before: number;
  onName: (listed: ListedRevision) => void;
  onMore: ((before: number) => void) | null;
}) {
  const { data, error } = useRevisionsQuery({ of: props.of, id: props.id, before });
  if (error) return <p>{sentence(error)}</p>;
  if (!data) return <p className="text-quiet">Loading …</p>;
  const last = data.at(-1)?.revision ?? 1;
  return (
    <>
      <ul className="divide-y divide-rule">
        {data.map((each) => (
          <Revision key={each.revision} {...props} listed={each} />
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
  of,
  id,
  listed,
  present,
  tell,
  onTake,
  onName,
  onClose,
}: Props & { listed: ListedRevision; onName: (listed: ListedRevision) => void }) {
  const { revision, savedAt, name } = listed;
  const [looked, setLooked] = useState(false);
  const { data, error } = useRevisionQuery({ of, id, revision }, { skip: !looked });
  const told = data ? tell(data.document) : null;
  const [refused, setRefused] = useState<string | null>(null);
  const take = (document: unknown): void => {
    const why = onTake(document, revision);
    setRefused(why);
    if (why === null) onClose();
  };
  return (
    <li className="flex items-center justify-between gap-3 py-2">
      <span className="min-w-0">
        <span className="block font-medium">
          {revision} · {lightFormat(savedAt, 'yyyy-MM-dd, HH:mm:ss')}
          {name !== null && ` · ${name}`}
        </span>
        {looked && (
          <span role="status" className="block truncate text-quiet">
            {error
              ? sentence(error)
              : !data
                ? 'Loading …'
                : (told ?? 'This version cannot be read.')}
          </span>
        )}
        {refused !== null && (
          <span role="alert" className="block text-outside">
            {refused}
          </span>
        )}
      </span>
      <span className="flex shrink-0 gap-1">
        <Button look="quiet" aria-label={`Name version ${revision}`} onClick={() => onName(listed)}>
          Name
        </Button>
        {revision === present ? (
          <span className="self-center text-quiet">present</span>
        ) : told !== null && data ? (
          <Button onClick={() => take(data.document)}>Take back</Button>
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
      </span>
    </li>
  );
}
