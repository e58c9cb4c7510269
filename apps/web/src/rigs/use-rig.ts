import { useCallback, useEffect, useRef, useState } from 'react';
import { parseRig, type Rig } from '@gangway/station';
import { isAway, sentence } from '../store/api.js';
import { currentIn, useSaveRigMutation, type StoredRig } from '../kit/api.js';

/** How the open rig stands with the server. */
export type RigSaving =
  | { kind: 'saved' }
  | { kind: 'saving' }
  | { kind: 'away'; message: string }
  | { kind: 'refused'; message: string }
  | { kind: 'conflict'; current: StoredRig };

interface Draft {
  baseRevision: number;
  document: Rig;
}

const keyOf = (id: string): string => `gangway.rig-draft.${id}`;

function keptDraft(id: string): Draft | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(id)) ?? 'null') as Draft | null;
  } catch {
    return null;
  }
}

function keep(id: string, draft: Draft | null): void {
  try {
    if (draft) localStorage.setItem(keyOf(id), JSON.stringify(draft));
    else localStorage.removeItem(keyOf(id));
  } catch {
    // Storage is full or forbidden: the edit lives as long as the page.
  }
}

const AGAIN_MS = 2000;
const MOST_STEPS = 100;

/** An open rig: every change is kept in the browser at once and saved behind it. */
export function useRig(stored: StoredRig) {
  const { id } = stored;
  const [draft] = useState(() => keptDraft(id));
  const [rig, setRig] = useState<Rig>(draft?.document ?? stored.document);
  const [past, setPast] = useState<readonly Rig[]>([]);
  const [future, setFuture] = useState<readonly Rig[]>([]);
  const [saving, setSaving] = useState<RigSaving>(draft ? { kind: 'saving' } : { kind: 'saved' });
  const [save] = useSaveRigMutation();
  const latest = useRef(rig);
  const base = useRef(draft?.baseRevision ?? stored.revision);
  const running = useRef(false);
  const sent = useRef<Rig | null>(draft ? null : stored.document);

  const run = useCallback(async (): Promise<void> => {
    if (running.current) return;
    running.current = true;
    while (sent.current !== latest.current) {
      const document = latest.current;
      setSaving({ kind: 'saving' });
      const made = await save({ id, baseRevision: base.current, document });
      if (made.data) {
        base.current = made.data.revision;
        sent.current = document;
        if (latest.current === document) keep(id, null);
        continue;
      }
      const current = currentIn<StoredRig>(made.error);
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
  }, [id, save]);

  const put = useCallback(
    (next: Rig): void => {
      latest.current = next;
      setRig(next);
      keep(id, { baseRevision: base.current, document: next });
      void run();
    },
    [id, run],
  );

  useEffect(() => {
    if (sent.current === null) void run();
  }, [run]);

  /** @returns null, or the sentence that says why not */
  const change = useCallback(
    (next: Rig): string | null => {
      const read = parseRig(next);
      if (!read.ok) return `This ${read.problems[0]!.message}.`;
      // Taken now: by the time the state is worked out the rig has changed.
      const before = latest.current;
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
    keep(id, null);
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
