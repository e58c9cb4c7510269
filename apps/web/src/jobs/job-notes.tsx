import { useCallback, useEffect, useRef, useState } from 'react';
import * as z from 'zod';
import { useKept } from '../browser/use-kept.js';
import { isAway, sentence, useChangeJobMutation } from '../records/api.js';
import { refusalShape, type Job } from '../records/shapes.js';
import { Button } from '../ui/button.js';

/** What is being written, what it is written over, and what of it went out last. */
const draftShape = z
  .object({
    was: z.string().nullable(),
    text: z.string(),
    sent: z.string().nullable().optional(),
  })
  .nullable();
type Draft = z.infer<typeof draftShape>;

const PAUSE_MS = 600;
const LONGEST = 20_000;

/** What the server holds in place of what one began from; undefined where that is not the matter. */
const otherNotes = (error: unknown): string | null | undefined =>
  refusalShape.safeParse((error as { data?: unknown } | undefined)?.data).data?.notes;

/** Words on the whole job: saved as one writes, kept in the browser until they are. */
export function JobNotes({ job }: { job: Job }) {
  const [draft, setDraft] = useKept<Draft>(`job.notes.${job.id}`, draftShape, null);
  const [failed, setFailed] = useState<unknown>(null);
  const [change, { isLoading }] = useChangeJobMutation();
  const text = draft?.text ?? job.notes ?? '';
  const latest = useRef(draft);
  const put = useCallback(
    (next: Draft): void => {
      latest.current = next;
      setDraft(next);
    },
    [setDraft],
  );
  const save = useCallback(
    async (written: NonNullable<Draft>): Promise<void> => {
      const notes = written.text.trim() === '' ? null : written.text;
      put({ ...written, sent: notes });
      const { error } = await change({ id: job.id, notes, notesWas: written.was });
      const now = latest.current;
      // What was written on meanwhile is written over what has just been saved, be it by a page before.
      const theirs = error ? otherNotes(error) : notes;
      const mine = theirs !== undefined && (!error || theirs === written.sent);
      if (mine && now) put({ ...now, was: theirs });
      setFailed(mine ? null : (error ?? null));
    },
    [change, job.id, put],
  );
  // What is saved by now is no draft any more.
  const settled = draft !== null && (job.notes ?? '') === (draft.text.trim() === '' ? '' : draft.text); // prettier-ignore
  useEffect(() => {
    if (settled && !isLoading) put(null);
  }, [settled, isLoading, put]);
  const waits = draft !== null && !settled && !isLoading && failed === null;
  useEffect(() => {
    if (!waits) return;
    const timer = setTimeout(() => void save(draft), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [draft, waits, save]);
  const theirs = failed ? otherNotes(failed) : undefined;
  return (
    <div className="mb-4">
      <label className="flex items-baseline gap-3">
        <span className="text-[14px] text-quiet">Notes</span>
        <textarea
          rows={1}
          maxLength={LONGEST}
          placeholder="Access, keys, whom to ask for"
          value={text}
          onChange={(event) => {
            put({ ...(draft ?? { was: job.notes }), text: event.target.value });
            // After a lost connection the next word tries again; two versions wait for a choice.
            if (theirs === undefined) setFailed(null);
          }}
          className="field-sizing-content max-h-40 min-h-9 min-w-0 flex-1 resize-none border-b border-transparent bg-transparent hover:border-rule py-1.5 pointer-coarse:min-h-11"
        />
      </label>
      {failed !== null && draft !== null && (
        <div role="alert" className="flex flex-wrap items-center gap-3 py-1 text-costs">
          {theirs === undefined ? (
            <>
              <span>
                Not saved. {sentence(failed)}
                {isAway(failed) ? ' What you wrote stays here.' : ''}
              </span>
              <Button onClick={() => void save(draft)}>Save again</Button>
            </>
          ) : (
            <>
              <span className="min-w-0 flex-1">
                The notes were changed elsewhere to “{theirs ?? ''}”.
              </span>
              <Button onClick={() => void save({ ...draft, was: theirs })}>Keep mine</Button>
              <Button
                onClick={() => {
                  setFailed(null);
                  put(null);
                }}
              >
                Take the other
              </Button>
            </>
          )}
        </div>
      )}
    </div>
  );
}
