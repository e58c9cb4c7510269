import { Button } from '../ui/button.js';
import { useNotice } from '../ui/notices.js';
import { sentence, useChangeJobMutation, useJobQuery } from '../records/api.js';
import { selectOpen } from '../store/selectors.js';
import { useAppSelector } from '../store/store.js';
import { criterionWay, withCriterionWay, type CriterionWay, type Station } from '@gangway/station';
import { ChoiceField, FigureField, parseNumber, Section, useStation } from '../fields/fields.js';

const SHARPNESS: readonly (readonly [CriterionWay, string])[] = [
  ['diagonal', 'Diagonal over a number'],
  ['coc', 'Circle of confusion'],
  ['pixels', 'Pixels'],
  ['print', 'Print and distance'],
];

export function SharpnessFields() {
  const station = useStation();
  const { criterion } = station;
  const set = (value: Station['criterion']) => (now: Station) => ({ ...now, criterion: value });
  return (
    <Section title="What counts as sharp">
      <ChoiceField
        label="Standard"
        pointer="/criterion/pixels"
        value={criterionWay(station)}
        options={SHARPNESS}
        write={withCriterionWay}
      />
      {criterion.diagonal_divisor !== undefined && (
        <FigureField
          label="Diagonal over"
          pointer="/criterion/diagonal_divisor"
          value={criterion.diagonal_divisor}
          write={(now, value) => set({ ...criterion, diagonal_divisor: value })(now)}
        />
      )}
      {criterion.coc_mm !== undefined && (
        <FigureField
          label="Circle of confusion"
          pointer="/criterion/coc_mm"
          unit="mm"
          value={criterion.coc_mm}
          write={(now, value) => set({ ...criterion, coc_mm: value })(now)}
        />
      )}
      {criterion.pixels !== undefined && (
        <FigureField
          label="Pixels across"
          pointer="/criterion/pixels_across"
          unit="px"
          value={criterion.pixels}
          parse={parseNumber}
          write={(now, value) => set({ ...criterion, pixels: value })(now)}
        />
      )}
      {criterion.print_width_mm !== undefined && (
        <>
          <FigureField
            label="Print width"
            pointer="/criterion/print_width_mm"
            unit="mm"
            value={criterion.print_width_mm}
            write={(now, value) => set({ ...criterion, print_width_mm: value })(now)}
          />
          <FigureField
            label="Seen from"
            pointer="/criterion/viewing_distance_mm"
            unit="mm"
            value={criterion.viewing_distance_mm}
            write={(now, value) => set({ ...criterion, viewing_distance_mm: value })(now)}
          />
        </>
      )}
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
