import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { sentence, useChangeJobMutation, useJobQuery } from '../records/api.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { useEditing } from '../store/editing.js';
import {
  criterionWay,
  criterionWords,
  fixed,
  sharpnessMeans,
  usualCriterion,
  withCriterionWay,
  withUsualCriterion,
  type CriterionWay,
  type Station,
} from '@gangway/station';
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
      <Means station={station} />
      <Usual station={station} />
      <KeepForJob criterion={criterion} />
    </Section>
  );
}

/** What it comes to in print and on the screen. */
function Means({ station }: { station: Station }) {
  const { pixels, printMm } = sharpnessMeans(station);
  return (
    <p className="py-1 text-[13px] text-quiet">
      In print: sharp up to {fixed(printMm / 10, 0)} cm wide, seen from 25 cm.{' '}
      {pixels === null
        ? 'On screen: give the back’s pixels to have it told.'
        : `On screen at 100 %: a point up to ${fixed(pixels, 1)} pixels wide.`}
    </p>
  );
}

/** Whether anybody chose it, and the way back to what is usual on this back. */
function Usual({ station }: { station: Station }) {
  const { change } = useEditing();
  const usual = criterionWords(usualCriterion(station.back));
  return station.criterion_by === 'default' ? (
    <p className="py-1 text-[13px] text-quiet">
      Nobody chose it: it is what is usual on this back.
    </p>
  ) : (
    <Button
      className="mr-2"
      onClick={() => change('Take the usual standard', '/criterion', withUsualCriterion)}
    >
      Use the usual, {usual}
    </Button>
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
