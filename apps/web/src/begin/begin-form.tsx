import { useState, type ReactNode } from 'react';
import * as z from 'zod';
import type { OwnLensTexts, WholeRig } from '@gangway/station';
import { useKept } from '../browser/use-kept.js';
import { SEEN_ANEW, useFreeNameQuery, useJobsQuery } from '../records/api.js';
import { useSoundKit } from '../records/sound-kit.js';
import { Button } from '../ui/button.js';
import { INPUT, JobChoice, NEW_JOB } from './job-choice.js';
import { NO_LENS_YET, OwnLensFields } from './own-lens.js';
import { RigList } from './rig-list.js';
import { useGear } from './use-gear.js';
import { useBegin } from './use-begin.js';

interface Props {
  /** The job it is begun in; without one it is asked. */
  jobId?: string;
  /** The rig it is begun with; without one it is asked. */
  rig?: WholeRig;
  /** Only a lens of one’s own is asked for. */
  ownOnly?: boolean;
  /** What is told of that lens so far. */
  texts: OwnLensTexts;
  onTexts: (texts: OwnLensTexts) => void;
  /** What stands beside the button. */
  aside?: ReactNode;
}

/** Begins a station: it asks for what is not known yet, and puts in nothing else. */
export function BeginForm({ jobId, rig, ownOnly = false, texts, onTexts, aside }: Props) {
  const kit = useSoundKit();
  const { data: jobs } = useJobsQuery({ archived: false });
  const gear = useGear(rig, ownOnly, texts);
  const [name, setName] = useKept('begin.name', z.string(), '');
  const [jobChosen, setJobChosen] = useState<string | null>(null);
  const [jobName, setJobName] = useState('');
  const { begin, busy, failed } = useBegin(kit);

  const job = jobId ?? jobChosen ?? (ownOnly ? NEW_JOB : (jobs?.[0]?.id ?? NEW_JOB));
  const { data: free } = useFreeNameQuery(
    { jobId: job, stem: 'Station' },
    { skip: job === NEW_JOB, ...SEEN_ANEW },
  );
  const submit = async (): Promise<void> => {
    const taken = gear.take();
    if (!taken) return;
    const done = await begin({
      rig: taken,
      job: job === NEW_JOB ? { newName: jobName } : { id: job },
      name,
    });
    // What was typed stays until it is made.
    if (!done) return;
    if (gear.own) onTexts(NO_LENS_YET);
    setName('');
  };

  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
      className="space-y-4"
    >
      {gear.waiting !== null && <p className="min-h-40 text-quiet">{gear.waiting}</p>}
      {gear.rigs && (
        <RigList
          rigs={gear.rigs}
          chosen={gear.chosen}
          unchosen={gear.unchosen}
          onChoose={gear.choose}
        />
      )}
      {gear.own && <OwnLensFields texts={texts} messages={gear.messages} onChange={onTexts} />}
      <div className="grid gap-x-4 gap-y-3 sm:grid-cols-2">
        <label className="block">
          <span className="text-quiet">Name of the station</span>
          <input
            value={name}
            placeholder={free?.name ?? 'Station 1'}
            onChange={(event) => setName(event.target.value)}
            maxLength={200}
            autoComplete="off"
            className={INPUT}
          />
        </label>
        {jobId === undefined && (
          <JobChoice
            jobs={jobs ?? []}
            {...{ job, jobName }}
            onChoose={setJobChosen}
            onName={setJobName}
          />
        )}
      </div>
      <p className="text-[13px] text-quiet">
        It begins level and unmoved, focused as far as the rig goes, at f/8 or the stop nearest to
        it, the sensor 1.6 m above the ground. You change what is different.
      </p>
      {failed !== null && (
        <p role="alert" className="text-outside">
          {failed}
        </p>
      )}
      <div className="flex justify-end gap-2">
        {aside}
        <Button
          look="strong"
          type="submit"
          disabled={busy || !gear.known || kit === undefined || jobs === undefined}
        >
          Begin
        </Button>
      </div>
    </form>
  );
}
