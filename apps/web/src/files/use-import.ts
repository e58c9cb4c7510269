import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import {
  LARGEST_FILE_BYTES,
  parseStationText,
  tooLarge,
  type Result,
  type Station,
} from '@gangway/station';
import { sentence, useCreateJobMutation, useCreateStationMutation } from '../records/api.js';
import { useNotice } from '../ui/notices.js';
import { newId } from '../browser/new-id.js';
import { holdJob, isJobFile } from './dropped-job.js';

async function read(file: File): Promise<Result<Station>> {
  // A huge file is refused by its size alone, unread.
  if (file.size > LARGEST_FILE_BYTES) return tooLarge(file.size);
  return parseStationText(await file.text());
}

/** Takes station files in as new stations; what is there already is never touched. */
export function useImport() {
  const [createStation] = useCreateStationMutation();
  const [createJob] = useCreateJobMutation();
  const notice = useNotice();
  const navigate = useNavigate();

  return useCallback(
    async (files: readonly File[], jobId: string | null): Promise<void> => {
      for (const file of files) {
        if (!(await isJobFile(file))) continue;
        if (files.length > 1) {
          notice([`${file.name} is a whole job; take it in by itself.`]);
          return;
        }
        holdJob(file);
        await navigate('/jobs/take-in', { state: { at: Date.now() } });
        return;
      }
      const refused: string[] = [];
      const read_: Station[] = [];
      for (const file of files) {
        const result = await read(file);
        if (result.ok) read_.push(result.value);
        else {
          const { pointer, message } = result.problems[0]!;
          const more = result.problems.length - 1;
          refused.push(
            `${file.name}: ${pointer ? `${pointer} ` : ''}${message}${more > 0 ? `, and ${more} more` : ''}.`,
          );
        }
      }
      if (refused.length > 0) notice(refused);
      if (read_.length === 0) return;
      let into = jobId;
      if (into === null) {
        into = newId();
        const made = await createJob({ id: into, name: read_[0]!.name || 'Imported' });
        if (made.error) {
          notice([sentence(made.error)]);
          return;
        }
      }
      let last = '';
      for (const document of read_) {
        const id = newId();
        const made = await createStation({ jobId: into, id, document });
        if (made.error) {
          notice([`${document.name}: ${sentence(made.error)} Import the file again.`]);
          return;
        }
        last = id;
      }
      await navigate(read_.length === 1 ? `/jobs/${into}/stations/${last}/cover` : `/jobs/${into}`);
    },
    [createStation, createJob, notice, navigate],
  );
}
