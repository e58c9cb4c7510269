import type { ChangeEvent, KeyboardEvent } from 'react';
import { selectOpen } from './selectors.js';
import { textDropped, textRefused, typing } from './station.js';
import { useAppDispatch, useAppSelector } from './store.js';

/**
 * The text of one field. It lives in the store from the first letter, so that a reload keeps
 * it; on Enter or on leaving it becomes a value, or stays as it was with the reason beside it.
 * @param pointer where the unfinished text is kept
 * @param shown the present value as it would be written
 * @param accept takes the text; null, or the sentence that says why not
 */
export function useTypedText(
  pointer: string,
  shown: string,
  accept: (text: string) => string | null,
) {
  const dispatch = useAppDispatch();
  const typed = useAppSelector((state) => selectOpen(state).typed[pointer]);

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
