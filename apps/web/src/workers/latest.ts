/** What goes to a worker, and what comes back; the number tells which answer is for which. */
export interface Asked<Ask> {
  readonly id: number;
  readonly ask: Ask;
}

export interface Answered<Answer> {
  readonly id: number;
  readonly answer: Answer;
}

/** As much of a worker as is needed here. */
export interface Asks {
  postMessage(message: unknown): void;
  onmessage: ((event: MessageEvent) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
}

/**
 * Puts questions to a worker one at a time. What is asked while it works waits, and only the last
 * of it is put: a hand is followed as quickly as can be, and never lagged behind.
 */
export function latestOf<Ask, Answer>(
  worker: Asks,
  onAnswer: (ask: Ask, answer: Answer) => void,
): (ask: Ask) => void {
  let sent: Asked<Ask> | null = null;
  let next: { ask: Ask } | null = null;
  let count = 0;
  const post = (): void => {
    if (sent || !next) return;
    sent = { id: ++count, ask: next.ask };
    next = null;
    worker.postMessage(sent);
  };
  worker.onmessage = ({ data }: MessageEvent<Answered<Answer>>) => {
    const of = sent;
    sent = null;
    if (of?.id === data.id) onAnswer(of.ask, data.answer);
    post();
  };
  // What cannot be answered must not keep the next question waiting.
  worker.onerror = () => {
    sent = null;
    post();
  };
  return (ask) => {
    next = { ask };
    post();
  };
}
