import equal from 'fast-deep-equal';
import { useCallback } from 'react';
import {
  CONTROLS,
  editedStation,
  refusal,
  type ControlId,
  type Problem,
  type Station,
} from '@gangway/station';
import { changed } from './station.js';
import { selectStation } from './selectors.js';
import { useAppDispatch, useAppStore } from './store.js';

/** The problem of a field itself, or else of what it is bound to. */
function messageFor(problems: readonly Problem[], pointer: string): string {
  const own = problems.find((problem) => problem.pointer === pointer);
  if (own) return `This ${own.message}.`;
  const other = problems[0]!;
  return `With this, ${other.pointer.slice(1).replaceAll('/', ' ').replaceAll('_', ' ')} ${other.message}.`;
}

/** Ways to change the open station. Each gives null, or the sentence that says why not. */
export function useEditing() {
  const store = useAppStore();
  const dispatch = useAppDispatch();

  const change = useCallback(
    (
      label: string,
      pointer: string,
      write: (station: Station) => Station,
      how: string | { readonly gesture?: string; readonly holds?: number } = {},
    ): string | null => {
      const now = selectStation(store.getState());
      const read = editedStation(write(now), now);
      if (!read.ok) return messageFor(read.problems, pointer);
      if (!equal(read.value, now)) {
        const more = typeof how === 'string' ? { gesture: how } : how;
        dispatch(changed({ station: read.value, label, ...more }));
      }
      return null;
    },
    [store, dispatch],
  );

  const setControl = useCallback(
    (id: ControlId, value: number, gesture?: string): string | null => {
      const control = CONTROLS[id];
      const now = selectStation(store.getState());
      return (
        refusal(control, now, value) ??
        change(
          `Set ${control.label.toLowerCase()}`,
          control.pointer,
          (station) => control.write(station, value),
          gesture,
        )
      );
    },
    [store, change],
  );

  return { change, setControl };
}
