/** What tells a job file: apart from its schema, which only a page that reads one loads. */

export const JOB_FORMAT = 'gangway.job';
export const JOB_VERSION = 1;

/** Largest job file read, in bytes: some thirty thousand exposures with their stations. */
export const LARGEST_JOB_BYTES = 50_000_000;
