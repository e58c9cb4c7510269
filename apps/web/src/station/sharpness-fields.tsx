import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { sentence, useChangeJobMutation, useJobQuery } from '../records/api.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { criterionWay, withCriterionWay, type CriterionWay, type Station } from '@gangway/station';
import { ChoiceField, Section, useStation } from '../fields/fields.js';
import { Rows, type Row } from '../fields/rows.js';

const SHARPNESS: readonly (readonly [CriterionWay, string])[] = [
  ['diagonal', 'Diagonal over a number'],
  ['coc', 'Circle of confusion'],
  ['pixels', 'Pixels'],
  ['print', 'Print and distance'],
];

const STANDARDS: readonly Row[] = (
  [
    ['diagonal_divisor', 'Diagonal over', 'number'],
    ['coc_mm', 'Circle of confusion', 'mm'],
    ['pixels', 'Pixels across', 'px'],
    ['print_width_mm', 'Print width', 'mm'],
    ['viewing_distance_mm', 'Seen from', 'mm'],
  ] as const
).map(([name, label, as]) => ({
  at: `/criterion/${name}`,
  label,
  as,
  // The choice above tells why pixels cannot be chosen.
  ...(name === 'pixels' ? { pointer: '/criterion/pixels_across' } : {}),
  when: ({ criterion }) => criterion[name] !== undefined,
}));

export function SharpnessFields() {
  const station = useStation();
  const { criterion } = station;
  return (
    <Section title="What counts as sharp">
      <ChoiceField
        label="Standard"
        pointer="/criterion/pixels"
        value={criterionWay(station)}
        options={SHARPNESS}
        write={withCriterionWay}
      />
      <Rows rows={STANDARDS} />
      <KeepForJob criterion={criterion} />
    </Section>
  );
}

/** Stations begun in this job later start with the same standard. */
function KeepForJob({ criterion }: { criterion: Station['criterion'] }) {
  const jobId = useAppSelector((state) => selectOpen(state).jobId);
  const { data: job } = useJobQuery(jobId);
  const [change] = useChangeJobMutation();
  const notice = useNotice();
  const kept = job !== undefined && JSON.stringify(job.criterion) === JSON.stringify(criterion);
  const keep = async (): Promise<void> => {
    const { error } = await change({ id: jobId, criterion });
    if (error) notice([sentence(error)]);
  };
  return kept ? (
    <p className="text-[13px] text-quiet">New stations of this job begin with it.</p>
  ) : (
    <Button onClick={() => void keep()} disabled={job === undefined}>
      Keep for this job
    </Button>
  );
}
