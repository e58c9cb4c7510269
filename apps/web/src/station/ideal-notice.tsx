import { isMeasured, withMeasuredUse } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { selectStation } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { Button } from '../ui/button.js';

/** While the ideal lens is planned with, to compare with the one that was measured. */
export function IdealNotice() {
  const ideal = useAppSelector((state) => {
    const { lens } = selectStation(state);
    return lens.measured?.use === false && isMeasured(lens);
  });
  const { change } = useEditing();
  if (!ideal) return null;
  return (
    <p
      role="status"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule border-l-4 border-l-costs bg-paper px-5 py-1.5"
    >
      <span>To compare: everything here is planned with the lens as it is given.</span>
      <Button
        onClick={() =>
          change('Plan with the measured lens', '/lens/measured', (now) =>
            withMeasuredUse(now, true),
          )
        }
      >
        Plan with what was measured
      </Button>
    </p>
  );
}
