import type { ListedJob } from '../records/shapes.js';

export const NEW_JOB = 'new';

export const INPUT =
  'mt-1 block min-h-11 w-full border border-rule-strong bg-transparent px-3 text-[16px] placeholder:text-faint';

/** The job a station is begun in: one there is, or a new one under its name. */
export function JobChoice({
  jobs,
  job,
  jobName,
  onChoose,
  onName,
}: {
  jobs: readonly ListedJob[];
  job: string;
  jobName: string;
  onChoose: (id: string) => void;
  onName: (name: string) => void;
}) {
  return (
    <>
      {jobs.length > 0 && (
        <label className="block">
          <span className="text-quiet">In the job</span>
          <select
            value={job}
            onChange={(event) => onChoose(event.target.value)}
            className={`${INPUT} bg-paper`}
          >
            {jobs.map((each) => (
              <option key={each.id} value={each.id}>
                {each.name}
              </option>
            ))}
            <option value={NEW_JOB}>A new job</option>
          </select>
        </label>
      )}
      {job === NEW_JOB && (
        <label className="block">
          <span className="text-quiet">Name of the job</span>
          <input
            value={jobName}
            placeholder="First job"
            onChange={(event) => onName(event.target.value)}
            maxLength={200}
            autoComplete="off"
            className={INPUT}
          />
        </label>
      )}
    </>
  );
}
