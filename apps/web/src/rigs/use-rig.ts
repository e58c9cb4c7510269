import { useCallback } from 'react';
import { namedAfterParts, parseEdited, parseRig, type Rig } from '@gangway/station';
import { rigActions, selectOpenRig } from '../store/rig.js';
import { useAppDispatch, useAppSelector, useAppStore } from '../store/store.js';

/** The open rig and what can be done with it. */
export function useRig() {
  const open = useAppSelector(selectOpenRig);
  const dispatch = useAppDispatch();
  const store = useAppStore();

  /** @returns null, or the sentence that says why not */
  const change = useCallback(
    (next: Rig, label = 'Change the rig', holds?: number): string | null => {
      const before = selectOpenRig(store.getState()).present;
      const read = parseEdited(parseRig, namedAfterParts(before, next), before);
      if (!read.ok) return `This ${read.problems[0]!.message}.`;
      dispatch(
        rigActions.changed({
          document: read.value,
          label,
          ...(holds === undefined ? {} : { holds }),
        }),
      );
      return null;
    },
    [dispatch, store],
  );

  return {
    id: open.id,
    rig: open.present,
    baseRevision: open.baseRevision,
    save: open.save,
    change,
    undo: open.past.length > 0 ? () => dispatch(rigActions.undone()) : null,
    redo: open.future.length > 0 ? () => dispatch(rigActions.redone()) : null,
    keepMine: () => void dispatch(rigActions.keptMine()),
    takeTheirs: () => void dispatch(rigActions.tookTheirs({ at: Date.now() })),
  };
}
