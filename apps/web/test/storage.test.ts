import { draftsOf } from '../src/records/drafts.js';
import { readFrom, whyNotKept, writeTo, type Shelf } from '../src/browser/storage.js';
import { holdTab, tabId } from '../src/browser/tab.js';
import { newId } from '../src/browser/new-id.js';

function shelfOf(kept = new Map<string, string>(), room = Infinity): Shelf {
  return {
    get length() {
      return kept.size;
    },
    key: (i) => [...kept.keys()][i] ?? null,
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, value) => {
      const others = [...kept].filter(([name]) => name !== key).map(([, text]) => text.length);
      if (others.reduce((sum, size) => sum + size, value.length) > room) throw new Error('full');
      kept.set(key, value);
    },
    removeItem: (key) => void kept.delete(key),
  };
}

describe('ids', () => {
  it('are random UUIDs of version 4 (RFC 9562), made without what an insecure page lacks', () => {
    const made = Array.from({ length: 500 }, newId);
    for (const id of made) {
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    }
    expect(new Set(made).size).toBe(500);
  });
});

describe('a tab', () => {
  it('keeps its name through a reload, and takes another when it is a copy of a living one', () => {
    const session = new Map<string, string>();
    const first = tabId(shelfOf(session));
    const copied = tabId(shelfOf(new Map(session)));
    expect(copied).not.toBe(first);
    holdTab(shelfOf(session), false);
    expect(tabId(shelfOf(session))).toBe(first);
  });

  it('has a name where nothing can be kept', () => {
    expect(tabId(shelfOf(new Map(), 0))).toMatch(/^[0-9a-f-]{36}$/);
  });
});

interface Note {
  readonly keptAt: number;
  readonly text: string;
}
const drafts = draftsOf<Note>('note.', ({ text }) => typeof text === 'string');
const note = (text: string, keptAt: number): Note => ({ text, keptAt });

describe('drafts', () => {
  it('of two tabs lie side by side; one’s own comes first, else the newest', () => {
    const shelf = shelfOf();
    drafts.keep(shelf, 'a', 'one', note('first', 1));
    drafts.keep(shelf, 'a', 'two', note('second', 2));
    drafts.keep(shelf, 'ab', 'two', note('another thing', 3));
    expect(drafts.find(shelf, 'a', 'one')?.draft.text).toBe('first');
    expect(drafts.find(shelf, 'a', 'three')).toMatchObject({
      tab: 'two',
      draft: { text: 'second' },
    });
    drafts.drop(shelf, 'a', 'one');
    expect(drafts.all(shelf, 'a').map(({ tab }) => tab)).toEqual(['two']);
    expect(drafts.find(shelf, 'ab', 'two')?.draft.text).toBe('another thing');
  });

  it('from before tabs had entries of their own are found, and dropped', () => {
    const kept = new Map([['note.a', JSON.stringify({ text: 'older' })]]);
    const shelf = shelfOf(kept);
    const found = drafts.find(shelf, 'a', 'one')!;
    expect(found).toMatchObject({ tab: '', draft: { text: 'older' } });
    drafts.drop(shelf, 'a', found.tab);
    expect(kept.size).toBe(0);
  });

  it('that are none are passed over', () => {
    const shelf = shelfOf(
      new Map([
        ['note.a.x', '{'],
        ['note.a.y', '5'],
        ['note.a.z', '{}'],
      ]),
    );
    expect(drafts.find(shelf, 'a', 'x')).toBeNull();
  });

  it('say when there is no room, and leave what was kept before', () => {
    const shelf = shelfOf(new Map(), 100);
    expect(drafts.keep(shelf, 'a', 'one', note('short', 1))).toBe(true);
    expect(drafts.keep(shelf, 'a', 'one', note('x'.repeat(200), 2))).toBe(false);
    expect(drafts.find(shelf, 'a', 'one')?.draft.text).toBe('short');
  });
});

describe('storage', () => {
  it('that throws at every turn is read and written without fail', () => {
    const forbidden = new Proxy({} as Shelf, {
      get: () => () => {
        throw new Error('forbidden');
      },
    });
    expect(readFrom(forbidden, 'a')).toBeNull();
    expect(writeTo(forbidden, 'a', 'b')).toBe(false);
    expect(drafts.find(forbidden, 'a', 'one')).toBeNull();
  });

  it('with room for a mark and none for an edit counts as full', () => {
    expect(whyNotKept(shelfOf())).toBeNull();
    expect(whyNotKept(shelfOf(new Map(), 1000))).toBe('full');
  });
});
