import { useState } from 'react';
import { useNavigate } from 'react-router';
import { newStation, withJobCriterion, withRig, type WholeRig } from '@gangway/station';
import {
  sentence,
  useCreateJobMutation,
  useCreateStationMutation,
  useJobsQuery,
} from '../records/api.js';
import { Button } from '../ui/button.js';
import { Dialog } from '../ui/dialog.js';
import { newId } from '../browser/new-id.js';

const NEW = 'new';

/** Begins a station with a rig: in a job there is, or in one begun with it. */
export function BeginStation({ rig, onClose }: { rig: WholeRig; onClose: () => void }) {
  const { data: jobs } = useJobsQuery({ archived: false });
  const [chosen, setChosen] = useState<string | null>(null);
  const [jobName, setJobName] = useState('');
  const [name, setName] = useState('');
  const [failed, setFailed] = useState<string | null>(null);
  const [createJob] = useCreateJobMutation();
  const [createStation, { isLoading }] = useCreateStationMutation();
  const navigate = useNavigate();
  const job = chosen ?? jobs?.[0]?.id ?? NEW;

  const begin = async (): Promise<void> => {
    let jobId = job;
    if (job === NEW) {
      jobId = newId();
      const made = await createJob({ id: jobId, name: jobName.trim() || 'First job' });
      if (made.error) {
        setFailed(sentence(made.error));
        return;
      }
      setChosen(jobId);
    }
    const id = newId();
    const document = withJobCriterion(
      { ...withRig(newStation(name.trim() || 'Station 1'), rig), back: rig.back },
      jobs?.find((each) => each.id === jobId)?.criterion,
    );
    const made = await createStation({ jobId, id, document });
    if (made.error) setFailed(sentence(made.error));
    else await navigate(`/jobs/${jobId}/stations/${id}/cover`);
  };

  const input =
    'mt-1 block min-h-11 w-full border border-rule-strong bg-transparent px-3 text-[16px]';
  return (
    <Dialog
      open
      onClose={onClose}
      title="Begin a station"
      description={`It takes a copy of “${rig.name}”; later changes of the kit do not alter it unless you say so.`}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
        className="space-y-3"
      >
        <label className="block">
          <span className="text-quiet">Name of the station</span>
          <input
            autoFocus
            value={name}
            placeholder="Station 1"
            onChange={(event) => setName(event.target.value)}
            maxLength={200}
            autoComplete="off"
            className={`${input} placeholder:text-faint`}
          />
        </label>
        <label className="block">
          <span className="text-quiet">In the job</span>
          <select
            value={job}
            onChange={(event) => setChosen(event.target.value)}
            className={`${input} bg-paper`}
          >
            {jobs?.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
            <option value={NEW}>A new job</option>
          </select>
        </label>
        {job === NEW && (
          <label className="block">
            <span className="text-quiet">Name of the job</span>
            <input
              value={jobName}
              placeholder="First job"
              onChange={(event) => setJobName(event.target.value)}
              maxLength={200}
              autoComplete="off"
              className={`${input} placeholder:text-faint`}
            />
          </label>
        )}
        {failed !== null && (
          <p role="alert" className="text-outside">
            {failed}
          </p>
        )}
        <div className="flex justify-end gap-2 pt-1">
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <Button look="strong" type="submit" disabled={isLoading || jobs === undefined}>
            Begin
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
