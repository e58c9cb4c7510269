import equal from 'fast-deep-equal';
import { useCallback, useEffect, useRef, useState } from 'react';
import { parseEdited, parseRig, type Rig } from '@gangway/station';
import { currentIn, useSaveRigMutation, type StoredRig } from '../records/kit-api.js';
import { isAway, sentence } from '../records/api.js';
import { draftsOf } from '../records/drafts.js';
import { local } from '../browser/storage.js';
import { tab } from '../store/store.js';

/** How the open rig stands with the server. */
export type RigSaving =
  | { kind: 'saved' }
  | { kind: 'saving' }
  | { kind: 'away'; message: string }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; current: StoredRig };

interface Draft {
  readonly baseRevision: number;
  readonly document: Rig;
  /** Sent, but not answered for: the server may have any of them. */
  readonly unanswered: readonly Rig[];
  readonly keptAt: number;
}

const drafts = draftsOf<Draft>('gangway.rig-draft.', ({ document }) => Boolean(document));

const MOST_UNANSWERED = 10;

const isOwn = (document: Rig, unanswered: readonly Rig[] = []): boolean =>
  unanswered.some((sent) => equal(sent, document));

/** How a draft goes on from what the server has now. */
function opening(stored: StoredRig): { rig: Rig; base: number; saving: RigSaving } {
  const found = drafts.find(local, stored.id, tab);
  if (!found) return { rig: stored.document, base: stored.revision, saving: { kind: 'saved' } };
  const { document, baseRevision, unanswered, keptAt } = found.draft;
  if (found.tab !== tab) {
    drafts.drop(local, stored.id, found.tab);
    drafts.keep(local, stored.id, tab, { document, baseRevision, unanswered, keptAt });
  }
  if (equal(document, stored.document)) {
    drafts.drop(local, stored.id, tab);
    return { rig: stored.document, base: stored.revision, saving: { kind: 'saved' } };
  }
  const goesOn = baseRevision === stored.revision || isOwn(stored.document, unanswered);
  return {
    rig: document,
    base: goesOn ? stored.revision : baseRevision,
    saving: goesOn ? { kind: 'saving' } : { kind: 'conflict', current: stored },
  };
}

const AGAIN_MS = 2000;
const MOST_STEPS = 100;

/** An open rig: every change is kept in the browser at once and saved behind it. */
export function useRig(stored: StoredRig) {
  const { id } = stored;
  const [begun] = useState(() => opening(stored));
  const [rig, setRig] = useState<Rig>(begun.rig);
  const [past, setPast] = useState<readonly Rig[]>([]);
  const [future, setFuture] = useState<readonly Rig[]>([]);
  const [saving, setSaving] = useState<RigSaving>(begun.saving);
  const [save] = useSaveRigMutation();
  const latest = useRef(rig);
  const base = useRef(begun.base);
  const running = useRef(false);
  const unanswered = useRef<readonly Rig[]>([]);
  const asked = useRef(begun.saving.kind === 'conflict');
  const sent = useRef<Rig | null>(begun.saving.kind === 'saved' ? begun.rig : null);

  const keep = useCallback(
    (document: Rig): void => {
      drafts.keep(local, id, tab, {
        baseRevision: base.current,
        document,
        unanswered: unanswered.current,
        keptAt: Date.now(),
      });
    },
    [id],
  );

  const run = useCallback(async (): Promise<void> => {
    if (running.current) return;
    running.current = true;
    while (sent.current !== latest.current) {
      const document = latest.current;
      setSaving({ kind: 'saving' });
      unanswered.current = [...unanswered.current.slice(1 - MOST_UNANSWERED), document];
      keep(document);
      const made = await save({ id, baseRevision: base.current, document });
      if (made.data) {
        base.current = made.data.revision;
        sent.current = document;
        unanswered.current = [];
        if (latest.current === document) drafts.drop(local, id, tab);
        continue;
      }
      const current = currentIn<StoredRig>(made.error);
      if (current && isOwn(current.document, unanswered.current)) {
        // It came from this very page; only its answer was lost.
        base.current = current.revision;
        unanswered.current = [];
        continue;
      }
      if (current || !isAway(made.error)) {
        running.current = false;
        setSaving(
          current
            ? { kind: 'conflict', current }
            : { kind: 'refused', message: sentence(made.error) },
        );
        return;
      }
      setSaving({ kind: 'away', message: sentence(made.error) });
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    }
    running.current = false;
    setSaving({ kind: 'saved' });
  }, [id, save, keep]);

  const put = useCallback(
    (next: Rig): void => {
      latest.current = next;
      setRig(next);
      keep(next);
      // A conflict waits for the person; edits meanwhile are kept but not sent.
      if (!asked.current) void run();
    },
    [keep, run],
  );

  useEffect(() => {
    asked.current = saving.kind === 'conflict';
  }, [saving]);
  useEffect(() => {
    if (sent.current === null && !asked.current) void run();
  }, [run]);

  /** @returns null, or the sentence that says why not */
  const change = useCallback(
    (next: Rig): string | null => {
      // Taken now: by the time the state is worked out the rig has changed.
      const before = latest.current;
      const read = parseEdited(parseRig, next, before);
      if (!read.ok) return `This ${read.problems[0]!.message}.`;
      setPast((steps) => [...steps.slice(-MOST_STEPS), before]);
      setFuture([]);
      put(read.value);
      return null;
    },
    [put],
  );

  const undo = (): void => {
    const before = past.at(-1);
    if (!before) return;
    setPast(past.slice(0, -1));
    setFuture([latest.current, ...future]);
    put(before);
  };
  const redo = (): void => {
    const [after, ...rest] = future;
    if (!after) return;
    setFuture(rest);
    setPast([...past, latest.current]);
    put(after);
  };
  const keepMine = (): void => {
    if (saving.kind !== 'conflict') return;
    base.current = saving.current.revision;
    asked.current = false;
    put({ ...latest.current });
  };
  const takeTheirs = (): void => {
    if (saving.kind !== 'conflict') return;
    const { current } = saving;
    base.current = current.revision;
    const before = latest.current;
    setPast((steps) => [...steps, before]);
    latest.current = current.document;
    sent.current = current.document;
    setRig(current.document);
    asked.current = false;
    drafts.drop(local, id, tab);
    setSaving({ kind: 'saved' });
  };

  return {
    rig,
    saving,
    change,
    undo: past.length > 0 ? undo : null,
    redo: future.length > 0 ? redo : null,
    keepMine,
    takeTheirs,
  };
}
