import { draftsOf, type Roomy } from '../src/records/drafts.js';
import { readFrom, whyNotKept, writeTo, type Shelf } from '../src/browser/storage.js';
import { holdTab, tabId } from '../src/browser/tab.js';
import { newId } from '../src/browser/new-id.js';
import { shelfOf } from './helpers/shelf.js';

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
const note = (text: string, keptAt: number): Note => ({ text, keptAt });

const read = async (kept: unknown): Promise<Note | null> => {
  const { text, keptAt = 0 } = (kept ?? {}) as Partial<Note>;
  return typeof text === 'string' ? { text, keptAt } : null;
};

/** What IndexedDB does, in a map. */
const roomOf = (kept = new Map<string, unknown>()): Roomy => ({
  put: async (key, draft) => void kept.set(key, structuredClone(draft)),
  drop: async (key) => void kept.delete(key),
  under: async (prefix) => [...kept].filter(([key]) => key.startsWith(prefix)),
});
const forbiddenRoom: Roomy = {
  put: () => Promise.reject(new Error('forbidden')),
  drop: () => Promise.reject(new Error('forbidden')),
  under: () => Promise.reject(new Error('forbidden')),
};
const draftsIn = (shelf: Shelf, room = roomOf()) => draftsOf<Note>('note.', read, { shelf, room });
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

describe('drafts', () => {
  it('of two tabs lie side by side; one’s own comes first, else the newest', async () => {
    const drafts = draftsIn(shelfOf());
    drafts.keep('a', 'one', note('first', 1));
    drafts.keep('a', 'two', note('second', 2));
    drafts.keep('ab', 'two', note('another thing', 3));
    expect((await drafts.find('a', 'one'))?.draft.text).toBe('first');
    expect(await drafts.find('a', 'three')).toMatchObject({
      tab: 'two',
      draft: { text: 'second' },
    });
    await drafts.drop('a', 'one');
    expect((await drafts.all('a')).drafts.map(({ tab }) => tab)).toEqual(['two']);
    expect((await drafts.find('ab', 'two'))?.draft.text).toBe('another thing');
  });

  it('are there at once, and go from the small place when the large one has them', async () => {
    const [kept, roomy] = [new Map<string, string>(), new Map<string, unknown>()];
    const drafts = draftsIn(shelfOf(kept), roomOf(roomy));
    drafts.keep('a', 'one', note('typed', 1));
    expect(JSON.parse(kept.get('note.a.one')!)).toEqual(note('typed', 1));
    await settled();
    expect([kept.size, roomy.get('note.a.one')]).toEqual([0, note('typed', 1)]);
  });

  it('that are let go while they are being written do not come back', async () => {
    const [kept, roomy] = [new Map<string, string>(), new Map<string, unknown>()];
    const drafts = draftsIn(shelfOf(kept), roomOf(roomy));
    for (let n = 0; n < 5; n++) drafts.keep('a', 'one', note(`typed ${n}`, n));
    await drafts.drop('a', 'one');
    await settled();
    await settled();
    expect([kept.size, roomy.size]).toEqual([0, 0]);
  });

  it('from before tabs had entries of their own are found, and dropped', async () => {
    const kept = new Map([['note.a', JSON.stringify({ text: 'older' })]]);
    const drafts = draftsIn(shelfOf(kept));
    const found = (await drafts.find('a', 'one'))!;
    expect(found).toMatchObject({ tab: '', draft: { text: 'older' } });
    await drafts.drop('a', found.tab);
    expect(kept.size).toBe(0);
  });

  it('that are none are told apart, and kept', async () => {
    const kept = new Map([
      ['note.a.x', '{'],
      ['note.a.y', '5'],
      ['note.a.z', '{}'],
    ]);
    const drafts = draftsIn(shelfOf(kept));
    expect(await drafts.find('a', 'x')).toBeNull();
    expect((await drafts.all('a')).unreadable).toHaveLength(3);
    expect(kept.size).toBe(3);
  });

  it('too large for the small place lie in the large one; the later of the two counts', async () => {
    const drafts = draftsIn(shelfOf(new Map(), 100));
    drafts.keep('a', 'one', note('short', 1));
    drafts.keep('a', 'one', note('x'.repeat(200), 2));
    await settled();
    expect((await drafts.find('a', 'one'))?.draft.text).toHaveLength(200);
  });

  it('stay in the small place where the large one is forbidden', async () => {
    const drafts = draftsIn(shelfOf(), forbiddenRoom);
    drafts.keep('a', 'one', note('typed', 1));
    await settled();
    expect((await drafts.find('a', 'one'))?.draft.text).toBe('typed');
    await drafts.drop('a', 'one');
    expect(await drafts.find('a', 'one')).toBeNull();
  });
});

describe('storage', () => {
  it('that throws at every turn is read and written without fail', async () => {
    const forbidden = new Proxy({} as Shelf, {
      get: () => () => {
        throw new Error('forbidden');
      },
    });
    expect(readFrom(forbidden, 'a')).toBeNull();
    expect(writeTo(forbidden, 'a', 'b')).toBe(false);
    const drafts = draftsIn(forbidden, forbiddenRoom);
    drafts.keep('a', 'one', note('typed', 1));
    await settled();
    expect(await drafts.find('a', 'one')).toBeNull();
  });

  it('with room for a mark and none for an edit counts as full', () => {
    expect(whyNotKept(shelfOf())).toBeNull();
    expect(whyNotKept(shelfOf(new Map(), 1000))).toBe('full');
  });
});
