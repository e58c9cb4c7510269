import { keptName } from '@gangway/station';
import { newId } from '../browser/new-id.js';
import { saveDocument } from '../records/export.js';
import type { MenuItem } from '../ui/row-menu.js';

type Made = Promise<{ error?: unknown }>;

interface Does {
  readonly duplicate: (ids: { id: string; newId: string }) => Made;
  /** Archives, or takes out of the archive, what has this name. */
  readonly archiving: (id: string, name: string, archived: boolean) => Promise<void>;
  readonly remove: (id: string) => Made;
  readonly told: (work: Made) => Promise<void>;
  /** What is asked before it is gone for good. */
  readonly really: string;
}

/** What can be done with a document from its line in a list. */
export const documentItems = (
  { id, archived, document }: { id: string; archived: boolean; document: unknown },
  { duplicate, archiving, remove, told, really }: Does,
): MenuItem[] => [
  { label: 'Duplicate', onSelect: () => void told(duplicate({ id, newId: newId() })) },
  { label: 'Save as file', onSelect: () => saveDocument(document) },
  {
    label: archived ? 'Restore' : 'Archive',
    onSelect: () => void archiving(id, keptName(document), !archived),
  },
  ...(archived
    ? [
        {
          label: 'Delete for good',
          confirm: { label: really, onSelect: () => void told(remove(id)) },
        },
      ]
    : []),
];
