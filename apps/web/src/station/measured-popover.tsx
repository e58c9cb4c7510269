import { measuredWhy, withMeasuredUse, type Measurement } from '@gangway/station';
import { useEditing } from '../store/editing.js';
import { Beside } from '../ui/beside.js';
import { Button } from '../ui/button.js';
import { MEASURED_BUTTON, MeasuredRing } from '../ui/measured-ring.js';

/** What a figure rests on that was measured, and the way to compare. */
export default function MeasuredPopover({
  found,
  of,
}: {
  found: readonly Measurement[];
  of: string;
}) {
  const { change } = useEditing();
  return (
    <Beside label={`Measured: ${of}`} mark={<MeasuredRing />} className={MEASURED_BUTTON}>
      <h3 className="mb-2 font-semibold">Measured, not given</h3>
      <ul className="space-y-2">
        {found.map((each) => (
          <li key={each.pointer} className="flex gap-2">
            <span className="mt-1.5 text-within">
              <MeasuredRing />
            </span>
            <span>{measuredWhy(each)}</span>
          </li>
        ))}
      </ul>
      <Button
        className="mt-3"
        onClick={() =>
          change('Plan with the ideal lens', '/lens/measured', (now) => withMeasuredUse(now, false))
        }
      >
        Compare with the ideal
      </Button>
    </Beside>
  );
}
