/// <reference lib="webworker" />
import { readImport, type ImportAsk, type ImportAnswer } from './read-import.js';

declare const self: DedicatedWorkerGlobalScope;

self.onmessage = (event: MessageEvent<ImportAsk>) => {
  const answer: ImportAnswer = { ask: event.data.ask, ...readImport(event.data) };
  self.postMessage(answer);
};
