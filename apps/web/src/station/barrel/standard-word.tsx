import { standardMoved, type ControlId } from '@gangway/station';
import { selectStation } from '../../store/selectors.js';
import { useAppSelector } from '../../store/store.js';

/** Which standard a scale moves, on a camera that has two or that moves its back. */
export function StandardWord({ id }: { id: ControlId }) {
  const word = useAppSelector((state) => standardMoved(selectStation(state), id));
  return word && <span className="text-[13px] text-quiet">{word}</span>;
}
