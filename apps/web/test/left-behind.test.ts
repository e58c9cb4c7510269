import type { Draft, Drafts, Found } from '../src/records/drafts.js';
import { makeLeftBehind, type Waiting } from '../src/records/left-behind.js';

interface Doc {
  readonly name: string;
}

/** A server with one document, drafts in a map, and a clock that does not wait. */
function around(server: { revision: number; document: Doc; there: boolean }, mine = 'here') {
  const kept = new Map<string, Draft<Doc>>();
  const told: ReadonlyMap<string, Waiting>[] = [];
  const puts: unknown[] = [];
  const drafts: Drafts<Draft<Doc>> = {
    keep: (id, tab, draft) => void kept.set(`${id}.${tab}`, draft),
    drop: async (id, tab) => void kept.delete(`${id}.${tab}`),
    ids: async () => [...new Set([...kept.keys()].map((key) => key.split('.')[0]!))],
    all: async (id) => ({
      drafts: [...kept]
        .filter(([key]) => key.startsWith(`${id}.`))
        .map(([key, draft]): Found<Draft<Doc>> => ({ tab: key.split('.')[1]!, draft }))
        .sort((a, b) => b.draft.keptAt - a.draft.keptAt),
      unreadable: [],
    }),
    find: async () => null,
  };
  const state = { open: null as string | null, alive: new Set<string>() };
  const answer = (status: number, body: unknown) =>
    ({ status, json: async () => body }) as Response;
  const stored = () => ({
    id: 'one',
    revision: server.revision,
    document: server.document,
    updatedAt: '2026-05-14T09:30:00Z',
    archived: false,
    jobId: 'job',
  });
  const sender = makeLeftBehind<Doc>({
    address: '/api/stations',
    drafts,
    tab: mine,
    wait: async () => {
      server.there = true;
    },
    openId: () => state.open,
    runs: async (tab) => state.alive.has(tab),
    onWaiting: (waiting) => told.push(waiting),
    fetch: async (_url, init) => {
      if (!server.there) throw new TypeError('away');
      if (!init?.method) return answer(200, stored());
      const { baseRevision, document } = JSON.parse(String(init.body)) as {
        baseRevision: number;
        document: Doc;
      };
      puts.push(document);
      if (baseRevision !== server.revision) return answer(409, { status: 409, current: stored() });
      server.revision += 1;
      server.document = document;
      return answer(200, stored());
    },
  });
  const draft = (name: string, more: Partial<Draft<Doc>> = {}): Draft<Doc> => ({
    keptAt: 1,
    baseRevision: 1,
    document: { name },
    typed: {},
    unanswered: [],
    ...more,
  });
  return { sender, kept, told, puts, state, draft };
}

const SERVER = () => ({ revision: 1, document: { name: 'old' }, there: true });

describe('edits that were left behind', () => {
  it('are sent once the server is there, and are told to wait until then', async () => {
    const server = { ...SERVER(), there: false };
    const { sender, kept, told, draft } = around(server);
    kept.set('one.here', draft('new'));
    await sender.send();
    expect(told.some((each) => each.get('one') === 'waits')).toBe(true);
    expect(server.document).toEqual({ name: 'new' });
    expect(kept.size).toBe(0);
    expect(told.at(-1)!.size).toBe(0);
  });

  it('of a tab that is gone are sent, of one that lives or of the open document are not', async () => {
    const server = SERVER();
    const { sender, kept, puts, state, draft } = around(server);
    kept.set('one.other', draft('from another'));
    state.alive.add('other');
    await sender.send();
    expect(puts).toEqual([]);
    state.alive.clear();
    state.open = 'one';
    await sender.send();
    expect(puts).toEqual([]);
    state.open = null;
    await sender.send();
    expect(server.document).toEqual({ name: 'from another' });
  });

  it('stay where it was changed elsewhere, for a person to decide', async () => {
    const server = { ...SERVER(), revision: 3, document: { name: 'theirs' } };
    const { sender, kept, told, draft } = around(server);
    kept.set('one.here', draft('mine'));
    await sender.send();
    expect(told.at(-1)!.get('one')).toBe('to decide');
    expect(server.document).toEqual({ name: 'theirs' });
    expect(kept.size).toBe(1);
  });

  it('go on where only an answer was lost', async () => {
    const server = { ...SERVER(), revision: 2, document: { name: 'sent' } };
    const { sender, kept, draft } = around(server);
    kept.set('one.here', draft('later', { unanswered: [{ name: 'sent' }] }));
    await sender.send();
    expect(server).toMatchObject({ revision: 3, document: { name: 'later' } });
    expect(kept.size).toBe(0);
  });

  it('leave text in a field to whoever typed it', async () => {
    const server = SERVER();
    const { sender, kept, puts, draft } = around(server);
    kept.set('one.here', draft('old', { typed: { '/name': '12 m' } }));
    await sender.send();
    expect(puts).toEqual([]);
    kept.set('one.here', draft('new', { typed: { '/name': '12 m' } }));
    await sender.send();
    expect(server.document).toEqual({ name: 'new' });
    expect(kept.get('one.here')).toMatchObject({ baseRevision: 2, typed: { '/name': '12 m' } });
  });
});
