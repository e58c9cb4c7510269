import { Link, useNavigate, useParams } from 'react-router';
import { useState } from 'react';
import { KIND_WORDS, KINDS, type Kind, type KitItem, type Problem } from '@gangway/station';
import { isMissing, sentence } from '../records/api.js';
import { PageTop } from '../pages/page-top.js';
import { NotFound, Unopened } from '../records/states.js';
import { useTries } from '../records/use-tries.js';
import { Unreadable } from '../records/unreadable.js';
import {
  currentIn,
  useArchiveItemMutation,
  useCreateItemMutation,
  useDeleteItemMutation,
  useItemQuery,
  useKitQuery,
  useSaveItemMutation,
} from '../records/kit-api.js';
import { tab } from '../store/store.js';
import { itemDrafts } from '../records/item-drafts.js';
import { itemOf, readItem, soundItems, type StoredItem } from '../records/read-kit.js';
import { ConflictDialog } from '../records/conflict-dialog.js';
import { keptBeside } from '../records/saving.js';
import { ItemForm, type Submitted } from './item-form.js';
import { newId } from '../browser/new-id.js';
import type { StoredDocument } from '../records/shapes.js';

const isKind = (kind: string): kind is Kind => (KINDS as readonly string[]).includes(kind);

/** Names of other items of a kind, so that a second of the same name is not made unseen. */
function useNames(kind: Kind, own: string | null): Set<string> {
  const { data } = useKitQuery({ archived: false });
  return new Set(
    soundItems(data ?? [])
      .filter(({ id, document }) => id !== own && document.kind === kind)
      .map(({ document }) => document.name.trim().toLowerCase()),
  );
}

export function NewItemPage() {
  const { kind = '' } = useParams();
  if (!isKind(kind)) return <NotFound />;
  return <NewItem key={kind} kind={kind} />;
}

function NewItem({ kind }: { kind: Kind }) {
  const [create] = useCreateItemMutation();
  const [id] = useState(() => newId());
  const names = useNames(kind, null);
  const navigate = useNavigate();
  const save = async (document: KitItem): Promise<Submitted> => {
    const made = await create({ id, document });
    if (made.error) return { kind: 'failed', message: sentence(made.error) };
    return {
      kind: 'saved',
      revision: made.data.revision,
      next: () => void navigate('/kit', { state: { made: kind } }),
    };
  };
  return (
    <>
      <PageTop />
      <main className="mx-auto max-w-5xl px-5 py-6">
        <h1 className="mb-4 text-2xl font-semibold">New {KIND_WORDS[kind].one}</h1>
        <ItemForm
          kind={kind}
          base={null}
          baseRevision={0}
          draftKey={`new.${kind}`}
          names={names}
          onSave={save}
        />
      </main>
    </>
  );
}

export function ItemPage() {
  const { item: id = '' } = useParams();
  const [pollingInterval, heed] = useTries();
  const { currentData: data, error } = useItemQuery(id, { pollingInterval });
  heed(error);
  // What is open stays open when a later look fails.
  if (!data || isMissing(error)) return <Unopened error={error} />;
  const stored = itemOf(data);
  return stored ? (
    <OpenItem key={id} stored={stored} />
  ) : (
    <UnreadableItem stored={data} faults={readItem(data.document).faults} />
  );
}

function UnreadableItem({
  stored,
  faults,
}: {
  stored: StoredDocument;
  faults: readonly Problem[];
}) {
  const [archive] = useArchiveItemMutation();
  const [remove] = useDeleteItemMutation();
  return (
    <Unreadable
      what="This item"
      stored={stored}
      faults={faults}
      back="/kit"
      onArchive={(archived) => archive({ id: stored.id, archived })}
      onDelete={() => remove(stored.id)}
    >
      Back to the kit
    </Unreadable>
  );
}

function OpenItem({ stored }: { stored: StoredItem }) {
  // The form stays on the version it was opened with; a newer one is asked about, not slipped in.
  const [base, setBase] = useState(stored);
  const [conflict, setConflict] = useState<{ mine: KitItem; current: StoredItem } | null>(null);
  const [save] = useSaveItemMutation();
  const [create] = useCreateItemMutation();

  const { kind } = base.document;
  const names = useNames(kind, base.id);

  const takeTheirs = (): void => {
    if (!conflict) return;
    void itemDrafts.drop(base.id, tab);
    setBase(conflict.current);
    setConflict(null);
  };

  const submit = async (document: KitItem, baseRevision: number): Promise<Submitted> => {
    const made = await save({ id: base.id, baseRevision, document });
    const stale = currentIn(made.error);
    const current = stale && itemOf(stale);
    if (current) {
      setConflict({ mine: document, current });
      return {
        kind: 'failed',
        message: 'It was changed elsewhere since; choose which to go on with.',
      };
    }
    if (made.error) return { kind: 'failed', message: sentence(made.error) };
    await itemDrafts.drop(base.id, tab);
    const { revision } = made.data;
    setBase({ ...base, ...made.data, document });
    return { kind: 'saved', revision, next: () => {} };
  };

  return (
    <>
      <PageTop />
      <main className="mx-auto max-w-5xl px-5 py-6">
        <div className="mb-4 flex flex-wrap items-baseline justify-between gap-3">
          <h1 className="min-w-0 text-2xl font-semibold break-words">{base.document.name}</h1>
          <Link to="/kit" className="text-quiet hover:text-ink">
            Back to the kit
          </Link>
        </div>
        {base.archived && (
          <p className="mb-4 border-l-4 border-costs px-3 py-1">
            This is archived; restore it from the list.
          </p>
        )}
        <ItemForm
          key={base.revision}
          kind={kind}
          base={base.document}
          baseRevision={base.revision}
          draftKey={base.id}
          names={names}
          newer={stored.revision > base.revision}
          onFollow={() => setBase(stored)}
          onSave={submit}
        />
      </main>
      {conflict && (
        <ConflictDialog
          what="item"
          mine={conflict.mine}
          current={conflict.current}
          onMine={async () => {
            const answer = await submit(conflict.mine, conflict.current.revision);
            if (answer.kind === 'failed') return answer.message;
            setConflict(null);
            return null;
          }}
          onTheirs={takeTheirs}
          onBoth={async () => {
            const made = await create({ id: newId(), document: keptBeside(conflict.mine) });
            if (made.error) return sentence(made.error);
            takeTheirs();
            return null;
          }}
        />
      )}
    </>
  );
}
