import { flushSync } from 'react-dom';
import { lightChosen, paperLaid } from './preferences.js';
import { store } from './store.js';

/** Paper is white: while a page is printed it is drawn in daylight, whatever light is chosen. */
export function lightOnPaper(): void {
  const paper = matchMedia('print');
  let chosen = store.getState().preferences.light;
  const lay = (printed: boolean): void => {
    if (printed) chosen = store.getState().preferences.light;
    // The page is taken as it stands when this returns.
    flushSync(() => {
      store.dispatch(paperLaid(printed));
      store.dispatch(lightChosen(printed ? 'daylight' : chosen));
    });
  };
  paper.addEventListener('change', ({ matches }) => lay(matches));
}
