import { JOB_FORMAT } from '@gangway/station';

/** A job’s file on its way to the page that shows what it would change. */
let waiting: File | null = null;

export const holdJob = (file: File): void => {
  waiting = file;
};
export const heldJob = (): File | null => waiting;

/** Enough of a file to see what it is. */
const HEAD = 2000;

export async function isJobFile(file: File): Promise<boolean> {
  const head = await file.slice(0, HEAD).text();
  return new RegExp(`"format"\\s*:\\s*"${JOB_FORMAT}"`).test(head);
}
