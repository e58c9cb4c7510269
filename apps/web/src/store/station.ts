import { createSlice, original, type PayloadAction } from '@reduxjs/toolkit';
import { withLeanChecked, type Problem, type Station } from '@gangway/station';
import type { StoredStation } from '../records/api.js';

/** How the open station stands with the server. */
export type SaveState =
  | { kind: 'saved'; at: number }
  | { kind: 'pending' }
  | { kind: 'saving' }
  | { kind: 'offline'; message: string }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; current: StoredStation };

interface Step {
  document: Station;
  /** What was done to leave this document, for the words on undo. */
  label: string;
}

export interface Typed {
  text: string;
  /** Why it cannot be used; null while it is being written. */
  message: string | null;
}

export interface OpenStation {
  id: string;
  jobId: string;
  baseRevision: number;
  present: Station;
  past: Step[];
  future: Step[];
  /** Changes with the same mark in a row are one step of undo: a drag, a held key. */
  gesture: string | null;
  save: SaveState;
  /** A change that is looked at before it is taken; never saved. */
  preview: Preview | null;
  typed: Record<string, Typed>;
  /** Sent, but not answered for: the server may have any of them. */
  unanswered: Station[];
  /** It was opened with values that a later rule forbids. */
  faulty: boolean;
}

export interface Preview {
  /** Which change it is, for the list it was picked from. */
  id: string;
  title: string;
  station: Station;
}

export type StationState =
  | { kind: 'none' }
  | { kind: 'loading'; id: string; message: string | null }
  | { kind: 'missing'; id: string; message: string }
  /** It is there, and nothing can be worked out from it. */
  | { kind: 'unreadable'; id: string; stored: StoredStation; faults: readonly Problem[] }
  | { kind: 'open'; open: OpenStation };

export interface Change {
  station: Station;
  label: string;
  gesture?: string;
}

const start = (): StationState => ({ kind: 'none' });

const slice = createSlice({
  name: 'station',
  initialState: start,
  reducers: {
    opening: (_state, { payload }: PayloadAction<{ id: string; message: string | null }>) => ({
      kind: 'loading' as const,
      ...payload,
    }),
    missing: (_state, { payload }: PayloadAction<{ id: string; message: string }>) => ({
      kind: 'missing' as const,
      ...payload,
    }),
    unreadable: (
      _state,
      { payload }: PayloadAction<{ stored: StoredStation; faults: readonly Problem[] }>,
    ) => ({ kind: 'unreadable' as const, id: payload.stored.id, ...payload }),
    closed: start,
    opened: (
      _state,
      {
        payload,
      }: PayloadAction<{
        stored: StoredStation;
        present: Station;
        save: SaveState;
        typed: Record<string, string>;
        unanswered: Station[];
        faulty?: boolean;
      }>,
    ): StationState => ({
      kind: 'open',
      open: {
        id: payload.stored.id,
        jobId: payload.stored.jobId,
        baseRevision: payload.stored.revision,
        present: payload.present,
        past: [],
        future: [],
        gesture: null,
        preview: null,
        save: payload.save,
        typed: Object.fromEntries(
          Object.entries(payload.typed).map(([key, text]) => [key, { text, message: null }]),
        ),
        unanswered: payload.unanswered,
        faulty: payload.faulty ?? false,
      },
    }),
    changed: (state, { payload }: PayloadAction<Change>) => {
      if (state.kind !== 'open') return;
      const { open } = state;
      const goesOn = payload.gesture !== undefined && payload.gesture === open.gesture;
      if (!goesOn) open.past.push({ document: open.present, label: payload.label });
      open.present = withLeanChecked(payload.station);
      open.preview = null;
      open.future = [];
      open.gesture = payload.gesture ?? null;
      pending(open);
    },
    previewed: (state, { payload }: PayloadAction<Preview | null>) => {
      if (state.kind === 'open') state.open.preview = payload;
    },
    gestureEnded: (state) => {
      if (state.kind === 'open') state.open.gesture = null;
    },
    undone: (state) => {
      if (state.kind !== 'open') return;
      const { open } = state;
      const step = open.past.pop();
      if (!step) return;
      open.future.push({ document: open.present, label: step.label });
      open.present = step.document;
      afterTravel(open);
    },
    redone: (state) => {
      if (state.kind !== 'open') return;
      const { open } = state;
      const step = open.future.pop();
      if (!step) return;
      open.past.push({ document: open.present, label: step.label });
      open.present = step.document;
      afterTravel(open);
    },
    typing: (state, { payload }: PayloadAction<{ pointer: string; text: string }>) => {
      if (state.kind !== 'open') return;
      state.open.typed[payload.pointer] = { text: payload.text, message: null };
    },
    textRefused: (
      state,
      { payload }: PayloadAction<{ pointer: string; text: string; message: string }>,
    ) => {
      if (state.kind !== 'open') return;
      const { pointer, text, message } = payload;
      state.open.typed[pointer] = { text, message };
    },
    textDropped: (state, { payload }: PayloadAction<string>) => {
      if (state.kind === 'open') delete state.open.typed[payload];
    },
    /** Typed text under a pointer goes with the list it belonged to. */
    textsDropped: (state, { payload }: PayloadAction<string>) => {
      if (state.kind !== 'open') return;
      for (const pointer of Object.keys(state.open.typed)) {
        if (pointer.startsWith(payload)) delete state.open.typed[pointer];
      }
    },
    saveBegan: (state, { payload }: PayloadAction<Station>) => {
      if (state.kind !== 'open') return;
      state.open.save = { kind: 'saving' };
      state.open.unanswered.push(payload);
    },
    saveDone: (
      state,
      { payload }: PayloadAction<{ id: string; revision: number; document: Station; at: number }>,
    ) => {
      if (state.kind !== 'open' || state.open.id !== payload.id) return;
      const { open } = state;
      open.baseRevision = payload.revision;
      open.unanswered = [];
      open.save =
        original(open)?.present === payload.document
          ? { kind: 'saved', at: payload.at }
          : { kind: 'pending' };
    },
    saveStopped: (state, { payload }: PayloadAction<{ id: string; save: SaveState }>) => {
      if (state.kind === 'open' && state.open.id === payload.id) state.open.save = payload.save;
    },
    /** The server's version came from this very page, its answer was lost: go on from there. */
    rebased: (state, { payload }: PayloadAction<{ id: string; revision: number }>) => {
      if (state.kind !== 'open' || state.open.id !== payload.id) return;
      state.open.baseRevision = payload.revision;
      state.open.unanswered = [];
      pending(state.open, true);
    },
    keptMine: (state) => {
      if (state.kind !== 'open' || state.open.save.kind !== 'conflict') return;
      state.open.baseRevision = state.open.save.current.revision;
      state.open.unanswered = [];
      pending(state.open, true);
    },
    tookTheirs: (state, { payload }: PayloadAction<{ at: number }>) => {
      if (state.kind !== 'open' || state.open.save.kind !== 'conflict') return;
      const { open } = state;
      const { current } = state.open.save;
      open.past.push({ document: open.present, label: 'Take the other version' });
      open.future = [];
      open.present = current.document;
      open.baseRevision = current.revision;
      open.typed = {};
      open.unanswered = [];
      open.save = { kind: 'saved', at: payload.at };
    },
  },
});

function pending(open: OpenStation, settled = false): void {
  // A conflict waits for the person; edits meanwhile are kept but not sent.
  if (open.save.kind !== 'conflict' || settled) open.save = { kind: 'pending' };
}

function afterTravel(open: OpenStation): void {
  open.present = withLeanChecked(open.present);
  open.gesture = null;
  open.preview = null;
  open.typed = {};
  pending(open);
}

export const {
  opening,
  missing,
  unreadable,
  closed,
  opened,
  changed,
  previewed,
  gestureEnded,
  undone,
  redone,
  typing,
  textRefused,
  textDropped,
  textsDropped,
  saveBegan,
  saveDone,
  saveStopped,
  rebased,
  keptMine,
  tookTheirs,
} = slice.actions;
export const stationReducer = slice.reducer;
