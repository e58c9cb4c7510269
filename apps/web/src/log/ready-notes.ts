import { useState } from 'react';
import * as z from 'zod';
import { local, readFrom, writeTo } from '../browser/storage.js';

/** Notes that are kept ready, for all jobs of this browser. */
const KEY = 'gangway.ready-notes';
const START = ['wind', 'person in frame', 'moved', 'flare', 'once more'];
const MOST = 30;
const shape = z.array(z.string());

function read(): string[] {
  try {
    const kept = readFrom(local, KEY);
    return kept === null ? START : shape.parse(JSON.parse(kept));
  } catch {
    return START;
  }
}

export function useReadyNotes(): [
  readonly string[],
  { readonly add: (note: string) => void; readonly drop: (note: string) => void },
] {
  const [notes, setNotes] = useState(read);
  const set = (next: string[]): void => {
    setNotes(next);
    writeTo(local, KEY, JSON.stringify(next));
  };
  return [
    notes,
    {
      add: (note) => set([note, ...notes.filter((each) => each !== note)].slice(0, MOST)),
      drop: (note) => set(notes.filter((each) => each !== note)),
    },
  ];
}
