import type { ChangeEvent, KeyboardEvent } from 'react';
import { rigActions, selectOpenRig } from './rig.js';
import { selectOpen } from './selectors.js';
import { stationActions } from './station.js';
import { useAppDispatch, useAppSelector, type RootState } from './store.js';

type Texts = ReturnType<typeof selectOpen>['typed'];
type Actions = Pick<typeof stationActions, 'typing' | 'textRefused' | 'textDropped'>;

/**
 * The text of one field of an open document. It lives in the store from the first letter, so that a reload keeps
 * it; on Enter or on leaving it becomes a value, or stays as it was with the reason beside it.
 * @param pointer where the unfinished text is kept
 * @param shown the present value as it would be written
 * @param accept takes the text; null, or the sentence that says why not
 */
function useText(
  textsOf: (state: RootState) => Texts,
  { typing, textRefused, textDropped }: Actions,
  pointer: string,
  shown: string,
  accept: (text: string) => string | null,
) {
  const dispatch = useAppDispatch();
  const typed = useAppSelector((state) => textsOf(state)[pointer]);

  const drop = (): void => {
    dispatch(textDropped(pointer));
  };
  const commit = (): void => {
    if (!typed) return;
    const { text } = typed;
    const message = text.trim() === shown ? null : accept(text);
    if (message === null) drop();
    else dispatch(textRefused({ pointer, text, message }));
  };
  const message = typed?.message ?? null;
  return {
    typed: typed !== undefined,
    message,
    begin: (text: string): void => {
      dispatch(typing({ pointer, text }));
    },
    props: {
      value: typed?.text ?? shown,
      autoComplete: 'off',
      spellCheck: false,
      'aria-invalid': message !== null,
      onChange: (event: ChangeEvent<HTMLInputElement>): void => {
        dispatch(typing({ pointer, text: event.target.value }));
      },
      onBlur: commit,
      onKeyDown: (event: KeyboardEvent): void => {
        if (event.key === 'Enter') commit();
        if (event.key === 'Escape' && typed) {
          drop();
          event.stopPropagation();
        }
      },
    },
  };
}

type Field = [pointer: string, shown: string, accept: (text: string) => string | null];

/** A field of the open station. */
export const useTypedText = (...field: Field) =>
  useText((state) => selectOpen(state).typed, stationActions, ...field);

/** A field of the open rig. */
export const useRigText = (...field: Field) =>
  useText((state) => selectOpenRig(state).typed, rigActions, ...field);
