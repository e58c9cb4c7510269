import { checkSaid, crispestMark } from '../orders/focus.js';
import { manualList } from '../mosaic/checklist.js';
import type { CardStep, Told } from './step.js';

/** What is looked at once the focus is set, and what stays as it is through a series. */

export function checkSteps({ station, report }: Told): CardStep[] {
  const marks = report.marks ?? [];
  if (station.held_off || marks.length === 0) return [];
  const said = checkSaid(station, marks, crispestMark(station, marks));
  return said === '' ? [] : [{ id: 'check', part: 'focus', says: 'Check', detail: said }];
}

/** Several frames of one picture: what is fixed by hand before the first. */
export const fixedSteps = ({ station }: Told): CardStep[] =>
  station.mosaic && !station.held_off
    ? [
        {
          id: 'fixed',
          part: 'frames',
          says: 'The same for every frame: time, stop, ISO, white balance, focus',
          detail: manualList(station).join(' '),
        },
      ]
    : [];
