/// <reference lib="webworker" />
import { readImport, type ImportAsk, type ImportMessage } from './read-import.js';

declare const self: DedicatedWorkerGlobalScope;

/** Lines sent at once: each message is taken in within a frame. */
const PART = 500;

self.onmessage = (event: MessageEvent<ImportAsk>) => {
  const { ask } = event.data;
  const say = (message: ImportMessage): void => self.postMessage(message);
  const read = readImport(event.data);
  if (read.kind === 'refused') {
    say({ ask, kind: 'end', read });
    return;
  }
  const { rows, ...head } = read;
  for (let at = 0; at < rows.length; at += PART) {
    say({ ask, kind: 'rows', rows: rows.slice(at, at + PART) });
  }
  say({ ask, kind: 'end', read: { ...head, rows: [] } });
};
