import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { KitItemOf, Stored } from '@gangway/station';
import { onKitDropped } from '../files/dropped-kit.js';
import { answered } from '../records/answered.js';
import { isAway, sentence } from '../records/api.js';
import { useAppDispatch } from '../store/store.js';
import { Button } from '../ui/button.js';
import { newId } from '../browser/new-id.js';
import { PageTop } from '../pages/page-top.js';
import {
  kitApi,
  useImportPartMutation,
  useLazyKitQuery,
  useTakeBackImportMutation,
} from '../records/kit-api.js';
import type { ImportHead } from './import-desk.js';
import { Preview, type Wanted } from './import-preview.js';
import type { Question } from './read-import.js';
import { useImportReader } from './use-import-reader.js';
import { soundItems } from '../records/read-kit.js';

/** Items sent at once: a part is taken whole or not at all. */
const PART = 1000;

type Standing =
  | { kind: 'none' }
  | { kind: 'reading'; done: number; of: number }
  | { kind: 'refused'; message: string }
  | { kind: 'preview'; head: ImportHead }
  | { kind: 'sending'; sent: number; of: number }
  | { kind: 'done'; importId: string; added: number; changed: number; failed: string | null }
  | { kind: 'undone'; message: string };

export function ImportPage() {
  const [loadKit] = useLazyKitQuery();
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [standing, setStanding] = useState<Standing>({ kind: 'none' });
  const [withSame, setWithSame] = useState(false);
  const reader = useImportReader();
  const [send] = useImportPartMutation();
  const [takeBack] = useTakeBackImportMutation();
  const dispatch = useAppDispatch();
  const input = useRef<HTMLInputElement>(null);

  const look = async (next: Wanted): Promise<void> => {
    // What is being read is read no further.
    reader.stop();
    setWanted(next);
    setStanding({ kind: 'reading', done: 0, of: 0 });
    // The list may still be on its way; read without it, nothing would count as there already.
    let kit: ReturnType<typeof soundItems>;
    try {
      kit = soundItems(await answered(() => loadKit({ archived: false }, true)));
    } catch (error) {
      setStanding({
        kind: 'refused',
        message: `${sentence(error)} The file was not read; choose it again.`,
      });
      return;
    }
    const question = (lenses: Question['lenses']) =>
      reader.read(
        next.file,
        {
          encoding: next.encoding,
          table: next.table,
          mapping: next.mapping,
          taken: kit.map(
            ({ document }) => `${document.kind}:${document.name.trim().toLowerCase()}`,
          ),
          lenses,
        },
        (done, of) => setStanding({ kind: 'reading', done, of }),
      );
    let answer = await question([]);
    if (answer.kind === 'preview' && answer.table === 'circle') {
      // Only a table of circles asks for the lenses themselves, which are many.
      answer = await question(
        kit.flatMap((stored) =>
          stored.document.kind === 'lens' ? [stored as Stored<KitItemOf<'lens'>>] : [],
        ),
      );
    }
    setStanding(
      answer.kind === 'refused'
        ? { kind: 'refused', message: answer.message }
        : { kind: 'preview', head: answer },
    );
  };

  const begin = useEffectEvent((file: File) => {
    void look({ file, encoding: null, table: null, mapping: null });
  });
  useEffect(() => onKitDropped((file) => begin(file)), []);

  const stop = (): void => {
    reader.stop();
    setWanted(null);
    setStanding({ kind: 'none' });
  };

  /** Sends a part; a lost answer is asked for again: the same ids change nothing the second time. */
  const sent = async (body: Parameters<typeof send>[0]) => {
    let made = await send(body);
    for (let tries = 0; made.error && isAway(made.error) && tries < 5; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 1500));
      made = await send(body);
    }
    return made;
  };

  const take = async (count: number): Promise<void> => {
    const importId = newId();
    let [added, changed] = [0, 0];
    let failed: string | null = null;
    setStanding({ kind: 'sending', sent: 0, of: count });
    for (let next: number | null = 0; next !== null && failed === null;) {
      const part = await reader.part(next, PART, withSame);
      next = part.next;
      const made = await sent({
        id: importId,
        items: part.items.map((document) => ({ id: newId(), document })),
        changes: [...part.changes],
      });
      if (made.error) failed = sentence(made.error);
      else {
        added += made.data!.added;
        changed += made.data!.changed;
        setStanding({ kind: 'sending', sent: added + changed, of: count });
      }
    }
    dispatch(kitApi.util.invalidateTags(['Kit']));
    setStanding({ kind: 'done', importId, added, changed, failed });
  };

  const undo = async (importId: string): Promise<void> => {
    const made = await takeBack(importId);
    if (made.error) {
      setStanding({ kind: 'undone', message: `${sentence(made.error)} Nothing was taken back.` });
      return;
    }
    const { removed, restored, left } = made.data!;
    const kept =
      left.length === 0
        ? ''
        : ` Changed since and left as they are: ${left.slice(0, 5).join(', ')}${left.length > 5 ? ` and ${left.length - 5} more` : ''}.`;
    setStanding({
      kind: 'undone',
      message: `Taken back: ${removed} removed, ${restored} as before.${kept}`,
    });
  };

  return (
    <div className="flex h-full flex-col">
      <PageTop />
      <main className="mx-auto flex min-h-0 w-full max-w-5xl flex-1 flex-col px-5 py-6">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h1 className="text-2xl font-semibold">Import kit</h1>
          <Link to="/kit" className="text-quiet hover:text-ink">
            Back to the kit
          </Link>
        </div>
        <div className="mb-4 flex flex-wrap items-center gap-3">
          <Button look={wanted ? 'plain' : 'strong'} onClick={() => input.current?.click()}>
            Choose a file
          </Button>
          <input
            ref={input}
            type="file"
            accept=".csv,.json,text/csv,application/json"
            aria-label="Kit file or table to import"
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              const file = event.target.files?.[0];
              event.target.value = '';
              if (file) void look({ file, encoding: null, table: null, mapping: null });
            }}
          />
          <p className="min-w-0 flex-1 text-quiet">
            {wanted
              ? wanted.file.name
              : 'A kit file (JSON), or a table of lenses, backs or circles (CSV with headings).'}
          </p>
        </div>
        <div role="status" className="mb-2">
          {standing.kind === 'reading' && (
            <p className="flex flex-wrap items-center gap-4 text-quiet">
              {standing.of > 0 ? (
                <span>
                  <span className="figure text-ink">{standing.done.toLocaleString('en')}</span> of{' '}
                  {standing.of.toLocaleString('en')} lines read …
                </span>
              ) : (
                'Reading …'
              )}
              <Button onClick={stop}>Stop</Button>
            </p>
          )}
          {standing.kind === 'refused' && (
            <p className="border-l-4 border-outside px-3 py-1">{standing.message}</p>
          )}
          {standing.kind === 'sending' && (
            <p>
              <span className="figure">{standing.sent}</span> of {standing.of} taken in …
            </p>
          )}
          {standing.kind === 'undone' && (
            <p className="border-l-4 border-within px-3 py-1">{standing.message}</p>
          )}
          {standing.kind === 'done' && (
            <div className="flex flex-wrap items-center gap-3">
              <p
                className={`border-l-4 px-3 py-1 ${standing.failed ? 'border-outside' : 'border-within'}`}
              >
                {standing.added} added, {standing.changed} changed.{' '}
                {standing.failed !== null && `Then it stopped: ${standing.failed}`}
              </p>
              <Button onClick={() => void undo(standing.importId)}>Take the import back</Button>
              <Link to="/kit" className="font-medium underline underline-offset-4">
                Look at the kit
              </Link>
            </div>
          )}
        </div>
        {standing.kind === 'preview' && wanted && (
          <Preview
            key={wanted.file.name}
            head={standing.head}
            reader={reader}
            wanted={wanted}
            withSame={withSame}
            onWithSame={setWithSame}
            onLook={(next) => void look(next)}
            onTake={(count) => void take(count)}
          />
        )}
      </main>
    </div>
  );
}
