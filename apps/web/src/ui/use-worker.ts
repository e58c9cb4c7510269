import { useEffect, useRef, useState } from 'react';

/** What goes to a worker, and what comes back; the number tells which answer is for which. */
export interface Asked<Ask> {
  readonly id: number;
  readonly ask: Ask;
}

export interface Answered<Answer> {
  readonly id: number;
  readonly answer: Answer;
}

/**
 * The latest answer of a worker, with what it is for. Asked again as soon as the last answer is
 * in, always for what is wanted then, so that a hand is followed as quickly as can be; null before
 * the first answer.
 * @param make the same function at every call
 */
export function useWorker<Ask, Answer>(
  make: () => Worker,
  ask: Ask,
): { readonly ask: Ask; readonly answer: Answer } | null {
  const [found, setFound] = useState<{ ask: Ask; answer: Answer } | null>(null);
  const next = useRef<{ ask: Ask } | null>(null);
  const post = useRef<() => void>(() => undefined);

  useEffect(() => {
    const worker = make();
    let sent: Asked<Ask> | null = null;
    let count = 0;
    post.current = () => {
      const wanted = next.current;
      if (sent || !wanted) return;
      next.current = null;
      sent = { id: ++count, ask: wanted.ask };
      worker.postMessage(sent);
    };
    worker.onmessage = ({ data }: MessageEvent<Answered<Answer>>) => {
      const of = sent;
      sent = null;
      if (of?.id === data.id) setFound({ ask: of.ask, answer: data.answer });
      post.current();
    };
    // What cannot be answered must not keep the next question waiting.
    worker.onerror = () => {
      sent = null;
      post.current();
    };
    post.current();
    return () => {
      worker.terminate();
      post.current = () => undefined;
    };
  }, [make]);

  useEffect(() => {
    next.current = { ask };
    post.current();
  }, [ask]);
  return found;
}
