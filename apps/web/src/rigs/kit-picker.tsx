import { Command } from 'cmdk';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { KIND_WORDS, mountsOf, summaryOf, type Kind } from '@gangway/station';
import type { StoredItem } from '../records/read-kit.js';
import { useSoundKit } from '../records/sound-kit.js';
import { itemText } from '../records/item-text.js';
import { Dialog } from '../ui/dialog.js';

interface Props {
  title: string;
  kinds: readonly Kind[];
  onPick: (stored: StoredItem) => void;
  onClose: () => void;
}

/** More than this are never listed at once; searching narrows them. */
const MOST_SHOWN = 60;

/** Chooses one item of the kit. */
export function KitPicker({ title, kinds, onPick, onClose }: Props) {
  const data = useSoundKit();
  const [wanted, setWanted] = useState('');
  const found = useMemo(() => {
    const words = wanted.toLowerCase().split(/\s+/).filter(Boolean);
    return (data ?? []).filter(({ document }) => {
      const text = itemText(document);
      if (!kinds.includes(document.kind)) return false;
      return words.every((word) => text.includes(word));
    });
  }, [data, kinds, wanted]);
  return (
    <Dialog open onClose={onClose} title={title}>
      <Command label={title} shouldFilter={false} loop>
        <Command.Input
          autoFocus
          value={wanted}
          onValueChange={setWanted}
          placeholder="Name, size or mount"
          className="mb-2 min-h-11 w-full border border-rule-strong bg-transparent px-3 text-[16px]"
        />
        <Command.List className="max-h-[48vh] overflow-y-auto">
          <Command.Empty className="px-2 py-3 text-quiet">
            {data && !data.some(({ document }) => kinds.includes(document.kind))
              ? 'The kit holds none yet.'
              : 'Nothing in the kit has all of that.'}
          </Command.Empty>
          {found.slice(0, MOST_SHOWN).map((stored) => (
            <Command.Item
              key={stored.id}
              value={stored.id}
              onSelect={() => {
                onClose();
                onPick(stored);
              }}
              className="cursor-pointer px-2 py-1.5 data-[selected=true]:bg-ink data-[selected=true]:text-on-strong"
            >
              <span className="block truncate font-medium">{stored.document.name}</span>
              <span className="block truncate text-[13px] opacity-75">
                {KIND_WORDS[stored.document.kind].one} · {summaryOf(stored.document)}
                {mountsOf(stored.document) && ` · ${mountsOf(stored.document)}`}
              </span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
      <p className="mt-3 border-t border-rule pt-3 text-[13px] text-quiet">
        Not there?{' '}
        {kinds.map((kind) => (
          <Link
            key={kind}
            to={`/kit/new/${kind}`}
            className="mr-3 font-medium text-ink underline underline-offset-4"
          >
            Add {/^[aeiou]/.test(KIND_WORDS[kind].one) ? 'an' : 'a'} {KIND_WORDS[kind].one}
          </Link>
        ))}
      </p>
    </Dialog>
  );
}
