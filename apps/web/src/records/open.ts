import type { Problem } from '@gangway/station';
import type { StoredDocument } from './shapes.js';

/** A stored document that has been read. */
export interface Stored<T> extends StoredDocument {
  readonly document: T;
}

/** What can be done with a stored document. */
export type KeptDocument<T> =
  | { readonly kind: 'sound'; readonly document: T }
  | { readonly kind: 'faulty'; readonly document: T; readonly faults: readonly Problem[] }
  | { readonly kind: 'broken'; readonly faults: readonly Problem[] };

/** A version from elsewhere, and what can be made of it here. */
export interface Other<T> extends StoredDocument {
  readonly kept: KeptDocument<T>;
}

/** The document of another version; as it is stored where it cannot be read. */
export const documentOf = ({ kept, document }: Other<unknown>): unknown =>
  kept.kind === 'broken' ? document : kept.document;

/** How the open document stands with the server. */
export type SaveState<T> =
  | { readonly kind: 'saved'; readonly at: number }
  | { readonly kind: 'pending' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'offline'; readonly message: string }
  | { readonly kind: 'refused'; readonly message: string }
  | { readonly kind: 'conflict'; readonly current: Other<T> };

export interface Step<T> {
  readonly document: T;
  /** What was done to leave this document, for the words on undo. */
  readonly label: string;
}

interface Typed {
  readonly text: string;
  /** Why it cannot be used; null while it is being written. */
  readonly message: string | null;
}

/** A change that is looked at before it is taken; never saved. */
interface Preview<T> {
  /** Which change it is, for the list it was picked from. */
  readonly id: string;
  readonly title: string;
  readonly station: T;
}

/**
 * One open document, whatever it is of: what it is now, the way back, what the server has of it.
 * Made into a slice of the store for each kind by {@link openSlice}.
 */
export interface OpenDocument<T> {
  readonly id: string;
  readonly jobId: string;
  readonly baseRevision: number;
  readonly present: T;
  readonly past: readonly Step<T>[];
  readonly future: readonly Step<T>[];
  /** Changes with the same mark in a row are one step of undo: a drag, a held key. */
  readonly gesture: string | null;
  readonly save: SaveState<T>;
  readonly preview: Preview<T> | null;
  readonly typed: Readonly<Record<string, Typed>>;
  /** Sent, but not answered for: the server may have any of them. */
  readonly unanswered: readonly T[];
  /** Revisions a person chose to go on from, or over: the server keeps them for good. */
  readonly holds: readonly number[];
  /** It was opened with values that a later rule forbids. */
  readonly faulty: boolean;
}

export type OpenState<T> =
  | { readonly kind: 'none' }
  | { readonly kind: 'loading'; readonly id: string; readonly message: string | null }
  | { readonly kind: 'missing'; readonly id: string; readonly message: string }
  /** It is there, and nothing can be worked out from it. */
  | {
      readonly kind: 'unreadable';
      readonly id: string;
      readonly stored: StoredDocument;
      readonly faults: readonly Problem[];
    }
  | { readonly kind: 'open'; readonly open: OpenDocument<T> };

export interface Change<T> {
  readonly document: T;
  readonly label: string;
  readonly gesture?: string;
  /** An earlier revision that was taken back. */
  readonly holds?: number;
}

const NONE = { kind: 'none' } as const;

type Settled<T> = (document: T, before: T) => T;

/**
 * What happens to an open document. `settled` has the last word on every document that is set, by
 * what it was before.
 */
function transitions<T>(settled: Settled<T>) {
  type State = OpenState<T>;
  type Open = OpenDocument<T>;

  const inOpen =
    <Payload>(next: (open: Open, payload: Payload) => Open) =>
    (state: State, payload: Payload): State => {
      if (state.kind !== 'open') return state;
      const open = next(state.open, payload);
      return open === state.open ? state : { kind: 'open', open };
    };
  const inSame =
    <Payload extends { readonly id: string }>(next: (open: Open, payload: Payload) => Open) =>
    (state: State, payload: Payload): State =>
      state.kind === 'open' && state.open.id === payload.id
        ? { kind: 'open', open: next(state.open, payload) }
        : state;

  // A conflict waits for the person; edits meanwhile are kept but not sent.
  const unsaved = ({ save }: Open): SaveState<T> =>
    save.kind === 'conflict' ? save : { kind: 'pending' };
  const PENDING = { kind: 'pending' } as const;

  const travelled = (open: Open): Open => ({
    ...open,
    present: settled(open.present, open.present),
    gesture: null,
    preview: null,
    typed: {},
    save: unsaved(open),
  });

  /** Going on with a version from elsewhere, which may be one that cannot be read here. */
  function goneOver(open: Open, { kept, ...stored }: Other<T>, at: number, label: string): State {
    if (kept.kind === 'broken') {
      return { kind: 'unreadable', id: open.id, stored, faults: kept.faults };
    }
    return {
      kind: 'open',
      open: {
        ...open,
        baseRevision: stored.revision,
        past: [...open.past, { document: open.present, label }],
        future: [],
        gesture: null,
        present: kept.document,
        faulty: kept.kind === 'faulty',
        unanswered: [],
        save: { kind: 'saved', at },
      },
    };
  }

  return {
    opening: (_: State, payload: { id: string; message: string | null }): State => ({
      kind: 'loading',
      ...payload,
    }),
    missing: (_: State, payload: { id: string; message: string }): State => ({
      kind: 'missing',
      ...payload,
    }),
    unreadable: (
      _: State,
      payload: { stored: StoredDocument; faults: readonly Problem[] },
    ): State => ({ kind: 'unreadable', id: payload.stored.id, ...payload }),
    closed: (): State => NONE,
    opened: (
      _: State,
      {
        stored,
        present,
        save,
        typed,
        faulty = false,
        baseRevision = stored.revision,
      }: {
        stored: StoredDocument;
        /** What the document was edited from, where that is not what is stored. */
        baseRevision?: number;
        present: T;
        save: SaveState<T>;
        typed: Readonly<Record<string, string>>;
        faulty?: boolean;
      },
    ): State => ({
      kind: 'open',
      open: {
        id: stored.id,
        jobId: stored.jobId ?? '',
        baseRevision,
        present,
        past: [],
        future: [],
        gesture: null,
        preview: null,
        save,
        typed: Object.fromEntries(
          Object.entries(typed).map(([key, text]) => [key, { text, message: null }]),
        ),
        unanswered: [],
        holds: [],
        faulty,
      },
    }),
    /** The way back was kept in this tab; it is taken up unless another was begun meanwhile. */
    trailed: inSame(
      (open, trail: { id: string; past: readonly Step<T>[]; future: readonly Step<T>[] }) =>
        open.past.length > 0 || open.future.length > 0
          ? open
          : { ...open, past: trail.past, future: trail.future },
    ),
    changed: inOpen((open, { document, label, gesture, holds }: Change<T>) => {
      const goesOn = gesture !== undefined && gesture === open.gesture;
      return {
        ...open,
        past: goesOn ? open.past : [...open.past, { document: open.present, label }],
        present: settled(document, open.present),
        preview: null,
        future: [],
        gesture: gesture ?? null,
        holds: holds === undefined ? open.holds : [...open.holds, holds],
        save: unsaved(open),
      };
    }),
    previewed: inOpen((open, preview: Preview<T> | null) => ({ ...open, preview })),
    gestureEnded: inOpen((open, _: void) =>
      open.gesture === null ? open : { ...open, gesture: null },
    ),
    undone: inOpen((open, _: void) => {
      const step = open.past.at(-1);
      if (!step) return open;
      return travelled({
        ...open,
        past: open.past.slice(0, -1),
        future: [...open.future, { document: open.present, label: step.label }],
        present: step.document,
      });
    }),
    redone: inOpen((open, _: void) => {
      const step = open.future.at(-1);
      if (!step) return open;
      return travelled({
        ...open,
        future: open.future.slice(0, -1),
        past: [...open.past, { document: open.present, label: step.label }],
        present: step.document,
      });
    }),
    typing: inOpen((open, { pointer, text }: { pointer: string; text: string }) => ({
      ...open,
      typed: { ...open.typed, [pointer]: { text, message: null } },
    })),
    textRefused: inOpen((open, { pointer, ...typed }: { pointer: string } & Typed) => ({
      ...open,
      typed: { ...open.typed, [pointer]: typed },
    })),
    textDropped: inOpen((open, pointer: string) => {
      const { [pointer]: dropped, ...typed } = open.typed;
      return dropped ? { ...open, typed } : open;
    }),
    /** Typed text under a pointer goes with the list it belonged to. */
    textsDropped: inOpen((open, under: string) => ({
      ...open,
      typed: Object.fromEntries(
        Object.entries(open.typed).filter(([pointer]) => !pointer.startsWith(under)),
      ),
    })),
    saveBegan: inOpen((open, { sent }: { sent: T }) => ({
      ...open,
      save: { kind: 'saving' as const },
      unanswered: [...open.unanswered, sent],
    })),
    saveDone: inSame(
      (open, sent: { id: string; revision: number; document: T; holds: number; at: number }) => ({
        ...open,
        baseRevision: sent.revision,
        unanswered: [],
        holds: open.holds.slice(sent.holds),
        save: open.present === sent.document ? { kind: 'saved' as const, at: sent.at } : PENDING,
      }),
    ),
    saveStopped: inSame((open, { save }: { id: string; save: SaveState<T> }) => ({
      ...open,
      save,
    })),
    /** The server's version came from this very page, its answer was lost: go on from there. */
    rebased: inSame((open, { revision }: { id: string; revision: number }) => ({
      ...open,
      baseRevision: revision,
      unanswered: [],
      save: PENDING,
    })),
    /** It was saved from another place while nothing was unsaved here. */
    followed: (state: State, { other, at }: { other: Other<T>; at: number }): State =>
      state.kind === 'open' && state.open.id === other.id
        ? goneOver(state.open, other, at, 'Changed in another place')
        : state,
    keptMine: inOpen((open, _: void) => {
      if (open.save.kind !== 'conflict') return open;
      const { revision } = open.save.current;
      return {
        ...open,
        baseRevision: revision,
        unanswered: [],
        holds: [...open.holds, revision],
        save: PENDING,
      };
    }),
    tookTheirs: (state: State, { at }: { at: number }): State =>
      state.kind === 'open' && state.open.save.kind === 'conflict'
        ? goneOver(
            { ...state.open, typed: {} },
            state.open.save.current,
            at,
            'Take the other version',
          )
        : state,
  };
}

type Transitions<T> = ReturnType<typeof transitions<T>>;
type PayloadOf<F> = F extends (state: never, payload: infer Payload) => unknown
  ? unknown extends Payload
    ? void
    : Payload
  : void;

// A type, not an interface: the store asks for one that could have any other member.
export type Happened = { readonly type: string; readonly payload?: unknown };

export type OpenActions<T> = {
  readonly [K in keyof Transitions<T>]: (payload: PayloadOf<Transitions<T>[K]>) => Happened;
};

/** A slice for documents of one kind. */
export function openSlice<T>(name: string, settled: Settled<T> = (document) => document) {
  const all = transitions<T>(settled);
  type Next = (state: OpenState<T>, payload: unknown) => OpenState<T>;
  const byType = new Map(
    Object.entries(all).map(([key, next]) => [`${name}/${key}`, next as unknown as Next]),
  );
  const actions = Object.fromEntries(
    Object.keys(all).map((key) => [
      key,
      (payload?: unknown): Happened => ({ type: `${name}/${key}`, payload }),
    ]),
  ) as unknown as OpenActions<T>;
  const reducer = (state: OpenState<T> = NONE, { type, payload }: Happened): OpenState<T> =>
    byType.get(type)?.(state, payload) ?? state;
  return { actions, reducer };
}
