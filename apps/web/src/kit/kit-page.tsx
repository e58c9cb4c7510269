import clsx from 'clsx';
import { formatDistanceToNow } from 'date-fns';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { KIND_WORDS, KINDS, keptName, sizeOf, type Kind, type KitItem } from '@gangway/station';
import * as z from 'zod';
import { saveDocument } from '../records/export.js';
import { SEEN_ANEW } from '../records/api.js';
import { ActionMenu } from '../ui/action-menu.js';
import { Button } from '../ui/button.js';
import { useKept } from '../browser/use-kept.js';
import {
  useArchiveItemMutation,
  useDeleteItemMutation,
  useDuplicateItemMutation,
  useKitQuery,
} from '../records/kit-api.js';
import { exportCircles, exportKit, exportTable } from './export.js';
import { ItemList } from './item-list.js';
import { itemText } from '../records/item-text.js';
import { UsedByDialog } from './used-by.js';
import { newId } from '../browser/new-id.js';
import { useArchiving, useListing, useTold, ListPage } from '../pages/list-page.js';
import type { StoredDocument } from '../records/shapes.js';
import { readItem } from '../records/read-kit.js';

const sortShape = z.enum(['added', 'name', 'size', 'changed']);
type Sort = z.infer<typeof sortShape>;
const SORTS: readonly (readonly [Sort, string])[] = [
  ['added', 'as added'],
  ['name', 'by name'],
  ['size', 'by size'],
  ['changed', 'last changed first'],
];

interface Entry {
  readonly stored: StoredDocument;
  /** Null when it cannot be read. */
  readonly item: KitItem | null;
  readonly name: string;
  /** Everything searched, in small letters. */
  readonly text: string;
}

function entryOf(stored: StoredDocument): Entry {
  const item = readItem(stored.document).value;
  const name = keptName(stored.document);
  return { stored, item, name, text: item ? itemText(item) : name.toLowerCase() };
}

/** Those that cannot be read come first: something is to be done about them. */
const kindPlace = ({ item }: Entry): number => (item ? KINDS.indexOf(item.kind) : -1);
const size = ({ item }: Entry): number => (item ? sizeOf(item) : 0);

const ORDER: Record<Sort, ((a: Entry, b: Entry) => number) | null> = {
  added: null,
  name: (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  size: (a, b) => kindPlace(a) - kindPlace(b) || size(a) - size(b),
  changed: (a, b) => b.stored.updatedAt.localeCompare(a.stored.updatedAt),
};

/** Every word must be found, in any order. */
function search(entries: readonly Entry[], wanted: string, kind: Kind | null): Entry[] {
  const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
  return entries.filter(
    ({ item, text }) =>
      (kind === null || item?.kind === kind) && words.every((word) => text.includes(word)),
  );
}

const asideOf = (stored: StoredDocument): string =>
  formatDistanceToNow(stored.updatedAt, { addSuffix: true });

export function KitPage() {
  const { archived, setArchived, pollingInterval, heed } = useListing();
  const [kind, setKind] = useKept<Kind | null>('kit.kind', z.enum(KINDS).nullable(), null);
  const [typed, setTyped] = useKept('kit.search', z.string(), '');
  const wanted = useDeferredValue(typed);
  const [sort, setSort] = useKept<Sort>('kit.sort', sortShape, 'added');
  const [asked, setAsked] = useState<{
    stored: StoredDocument;
    then: 'look' | 'archive' | 'delete';
  } | null>(null);
  const { data, error } = useKitQuery({ archived }, { pollingInterval, ...SEEN_ANEW });
  heed(error);
  const [archive] = useArchiveItemMutation();
  const [duplicate] = useDuplicateItemMutation();
  const [remove] = useDeleteItemMutation();
  const navigate = useNavigate();

  const entries = useMemo(() => (data ?? []).map(entryOf), [data]);
  const found = useMemo(() => {
    const list = search(entries, wanted, kind);
    const order = ORDER[sort];
    return order ? list.sort(order) : list;
  }, [entries, wanted, kind, sort]);
  const items = useMemo(() => found.map(({ stored }) => stored), [found]);
  const counts = useMemo(() => {
    const of = new Map<Kind, number>();
    for (const { item } of entries) if (item) of.set(item.kind, (of.get(item.kind) ?? 0) + 1);
    return of;
  }, [entries]);

  const told = useTold();
  const archiving = useArchiving(archive);
  // A table is made of what can be read; the kit file holds what it holds.
  const documents = () => found.flatMap(({ item }) => item ?? []);

  // The lines are drawn anew only when these change.
  const menuOf = useCallback(
    (stored: StoredDocument) => [
      { label: 'Save as file', onSelect: () => saveDocument(stored.document) },
      { label: 'Used by', onSelect: () => setAsked({ stored, then: 'look' }) },
      {
        label: 'Duplicate',
        onSelect: () => void told(duplicate({ id: stored.id, newId: newId() })),
      },
      archived
        ? {
            label: 'Restore',
            onSelect: () => void archiving(stored.id, keptName(stored.document), false),
          }
        : { label: 'Archive', onSelect: () => setAsked({ stored, then: 'archive' }) },
      ...(archived
        ? [{ label: 'Delete for good', onSelect: () => setAsked({ stored, then: 'delete' }) }]
        : []),
    ],
    [archived, told, duplicate, archiving],
  );

  return (
    <>
      <ListPage
        long
        title={archived ? 'Archived kit' : 'Kit'}
        things="kit"
        archived={archived}
        onArchive={setArchived}
        actions={
          <>
            <ActionMenu
              label="Save as file"
              items={[
                { label: 'What is listed, as a kit file', onSelect: () => exportKit(documents()) },
                { label: 'Lenses as a table', onSelect: () => exportTable('lens', documents()) },
                { label: 'Backs as a table', onSelect: () => exportTable('back', documents()) },
                { label: 'Circles as a table', onSelect: () => exportCircles(documents()) },
              ]}
            />
            <Button onClick={() => void navigate('/kit/import')}>Import</Button>
            <ActionMenu
              label="Add"
              look="strong"
              items={KINDS.map((each) => ({
                label: KIND_WORDS[each].one.replace(/^./, (first) => first.toUpperCase()),
                onSelect: () => void navigate(`/kit/new/${each}`),
              }))}
            />
          </>
        }
        error={error}
        loading={!data}
        empty={null}
      >
        <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
          <input
            type="search"
            aria-label="Search the kit"
            placeholder="Search by name, size, mount"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            className="min-h-10 min-w-0 flex-1 basis-56 border border-rule-strong bg-paper px-3 text-[16px] placeholder:text-faint"
          />
          <label className="flex items-center gap-2 text-quiet">
            Sorted
            <select
              value={sort}
              onChange={(event) => setSort(event.target.value as Sort)}
              className="min-h-10 border-b border-rule bg-page font-medium text-ink"
            >
              {SORTS.map(([key, words]) => (
                <option key={key} value={key}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        </div>
        <div
          role="group"
          aria-label="Kinds"
          className="mb-2 flex flex-wrap gap-x-4 border-b border-rule"
        >
          {([null, ...KINDS] as const).map((each) => (
            <button
              key={each ?? 'all'}
              type="button"
              aria-pressed={kind === each}
              onClick={() => setKind(each)}
              className={clsx(
                '-mb-px min-h-10 border-b-2 pointer-coarse:min-h-11',
                kind === each
                  ? 'border-ink font-semibold'
                  : 'border-transparent text-quiet hover:text-ink',
              )}
            >
              {each === null ? 'All' : KIND_WORDS[each].many}{' '}
              <span className="text-[12px] font-normal text-quiet">
                {each === null ? entries.length : (counts.get(each) ?? 0)}
              </span>
            </button>
          ))}
        </div>
        {data && data.length === 0 && <Empty archived={archived} />}
        {data && !archived && <NextStep counts={counts} />}
        {data && data.length > 0 && found.length === 0 && (
          <p className="py-6 text-quiet">
            Nothing in the kit has all of that.{' '}
            <button
              type="button"
              className="font-medium text-ink underline underline-offset-4"
              onClick={() => {
                setTyped('');
                setKind(null);
              }}
            >
              Show everything
            </button>
          </p>
        )}
        <ItemList items={items} menuOf={menuOf} asideOf={asideOf} />
      </ListPage>
      {asked && (
        <UsedByDialog
          stored={asked.stored}
          then={asked.then}
          onClose={() => setAsked(null)}
          onConfirm={() =>
            asked.then === 'delete'
              ? told(remove(asked.stored.id))
              : archiving(asked.stored.id, keptName(asked.stored.document), true)
          }
        />
      )}
    </>
  );
}

/** With the first few things in the kit: what to do next. */
function NextStep({ counts }: { counts: ReadonlyMap<Kind, number> }) {
  const total = [...counts.values()].reduce((sum, count) => sum + count, 0);
  if (total === 0 || total > 4) return null;
  const [lens, back] = [counts.get('lens') ?? 0, counts.get('back') ?? 0];
  const [to, words] =
    lens === 0
      ? ['/kit/new/lens', 'Next: add your lens']
      : back === 0
        ? ['/kit/new/back', 'Next: add your back']
        : ['/rigs', 'Next: put them together as a rig'];
  return (
    <p className="border-l-4 border-within px-3 py-2">
      <Link to={to} className="font-medium underline underline-offset-4">
        {words}
      </Link>
    </p>
  );
}

function Empty({ archived }: { archived: boolean }) {
  if (archived) return <p className="py-6 text-quiet">Nothing is archived.</p>;
  return (
    <div className="max-w-lg py-8">
      <p className="mb-4 text-[16px]">
        Nothing here yet. Begin with a lens and a back you own; a name and a few figures from their
        data sheets are enough.
      </p>
      <div className="flex flex-wrap gap-2">
        <Link
          to="/kit/new/lens"
          className="inline-flex min-h-11 items-center border border-ink bg-ink px-4 font-medium text-on-strong"
        >
          Add your lens
        </Link>
        <Link
          to="/kit/new/back"
          className="inline-flex min-h-11 items-center border border-rule-strong px-4 font-medium hover:border-ink"
        >
          Add your back
        </Link>
      </div>
    </div>
  );
}
