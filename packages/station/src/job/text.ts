import { unknownIn, written } from '../document/written.js';
import {
  ENTRY_SCHEMAS,
  JOB_LISTS,
  jobHeadSchema,
  jobSchema,
  type Job,
  type JobList,
} from './document.js';

/**
 * Writes a job file piece by piece, so that a long one is never held as one text. Lists are to be
 * begun in the order of {@link JOB_LISTS}.
 */
export class JobWriter {
  private first = true;

  /** All that stands before the lists. */
  head(head: object): string {
    const unknown = new Set(unknownIn(jobSchema, head));
    const known = Object.fromEntries(
      Object.entries(head).filter(
        ([name]) => !unknown.has(name) && !(JOB_LISTS as readonly string[]).includes(name),
      ),
    );
    return written(jobHeadSchema, known).replace(/\n\}$/, '');
  }

  open(list: JobList): string {
    this.first = true;
    return `,\n  "${list}": [`;
  }

  entry(list: JobList, entry: unknown): string {
    const before = this.first ? '\n    ' : ',\n    ';
    this.first = false;
    return `${before}${written(ENTRY_SCHEMAS[list], entry, '    ')}`;
  }

  close(): string {
    return this.first ? ']' : '\n  ]';
  }

  /** Members that are not known, and the end. */
  end(head: object): string {
    const from = head as Record<string, unknown>;
    const others = unknownIn(jobSchema, head).map(
      (name) => `,\n  ${JSON.stringify(name)}: ${written(null, from[name], '  ')}`,
    );
    return `${others.join('')}\n}\n`;
  }
}

/** A job as a file: two of the same job are the same bytes. */
export function jobText(job: Job): string {
  const writer = new JobWriter();
  const parts = [writer.head(job)];
  for (const list of JOB_LISTS) {
    const entries = job[list];
    if (!entries) continue;
    parts.push(
      writer.open(list),
      ...entries.map((each) => writer.entry(list, each)),
      writer.close(),
    );
  }
  return [...parts, writer.end(job)].join('');
}
