/// <reference lib="webworker" />
import {
  makeDesk,
  type Column,
  type ImportHead,
  type ImportPart,
  type ShownLine,
} from './import-desk.js';
import type { Question, Refused } from './read-import.js';

declare const self: DedicatedWorkerGlobalScope;

export type ImportAsk =
  | { readonly kind: 'read'; readonly file: Blob; readonly question: Question }
  | { readonly kind: 'lines'; readonly from: number; readonly to: number }
  | { readonly kind: 'columns'; readonly words: string }
  | {
      readonly kind: 'part';
      readonly from: number;
      readonly most: number;
      readonly withSame: boolean;
    };

export interface ImportAnswers {
  read: ImportHead | Refused;
  lines: ShownLine[];
  columns: Column[];
  part: ImportPart;
}

export type ImportMessage =
  | { readonly ask: number; readonly done: number; readonly of: number }
  | { readonly ask: number; readonly answer: ImportAnswers[keyof ImportAnswers] };

const desk = makeDesk();

async function answerTo(
  ask: ImportAsk,
  progress: (done: number, of: number) => void,
): Promise<ImportAnswers[keyof ImportAnswers]> {
  switch (ask.kind) {
    case 'read':
      return desk.read(await ask.file.arrayBuffer(), ask.question, progress);
    case 'lines':
      return desk.lines(ask.from, ask.to);
    case 'columns':
      return desk.columns(ask.words);
    case 'part':
      return desk.part(ask.from, ask.most, ask.withSame);
  }
}

self.onmessage = async ({ data }: MessageEvent<{ ask: number; of: ImportAsk }>) => {
  const { ask, of } = data;
  const say = (message: ImportMessage): void => self.postMessage(message);
  try {
    say({ ask, answer: await answerTo(of, (done, all) => say({ ask, done, of: all })) });
  } catch {
    // A file that was moved or changed since it was chosen, or one too large for this browser.
    const message = 'The file cannot be read; choose it again. If it is very large, split it.';
    say({ ask, answer: { kind: 'refused', message } });
  }
};
