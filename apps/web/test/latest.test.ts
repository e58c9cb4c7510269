import { latestOf, type Answered, type Asked, type Asks } from '../src/workers/latest.js';
import { keyRuns } from '../src/drawing/key-run.js';

/** A worker that answers when it is told to. */
class Slow implements Asks {
  onmessage: ((event: MessageEvent) => void) | null = null;
  onerror: ((event: ErrorEvent) => void) | null = null;
  readonly asked: Asked<string>[] = [];
  postMessage(message: unknown): void {
    this.asked.push(message as Asked<string>);
  }
  answers(answer: string): void {
    const data: Answered<string> = { id: this.asked.at(-1)!.id, answer };
    this.onmessage!({ data } as MessageEvent);
  }
  fails(): void {
    this.onerror!({} as ErrorEvent);
  }
  get texts(): string[] {
    return this.asked.map(({ ask }) => ask);
  }
}

const begun = () => {
  const worker = new Slow();
  const answers: [string, string][] = [];
  const ask = latestOf<string, string>(worker, (of, answer) => answers.push([of, answer]));
  return { worker, answers, ask };
};

describe('the latest of a worker', () => {
  it('is asked at once while it rests, and told with what it is for', () => {
    const { worker, answers, ask } = begun();
    ask('a');
    expect(worker.texts).toEqual(['a']);
    worker.answers('A');
    expect(answers).toEqual([['a', 'A']]);
  });

  it('works at one thing at a time; of what waits only the last is put', () => {
    const { worker, answers, ask } = begun();
    for (const each of ['a', 'b', 'c', 'd']) ask(each);
    expect(worker.texts).toEqual(['a']);
    worker.answers('A');
    expect(worker.texts).toEqual(['a', 'd']);
    worker.answers('D');
    expect(answers).toEqual([
      ['a', 'A'],
      ['d', 'D'],
    ]);
    expect(worker.texts).toHaveLength(2);
  });

  it('goes on after a question that could not be answered', () => {
    const { worker, answers, ask } = begun();
    ask('bad');
    ask('good');
    worker.fails();
    expect(worker.texts).toEqual(['bad', 'good']);
    worker.answers('G');
    expect(answers).toEqual([['good', 'G']]);
    ask('next');
    expect(worker.texts.at(-1)).toBe('next');
  });

  it('takes no answer to a question that was given up', () => {
    const { worker, answers, ask } = begun();
    ask('a');
    worker.fails();
    ask('b');
    worker.onmessage!({ data: { id: 1, answer: 'late' } } as MessageEvent);
    expect(answers).toEqual([]);
  });
});

describe('runs of key presses', () => {
  const at = (...times: number[]): (() => number) => {
    let i = 0;
    return () => times[Math.min(i++, times.length - 1)]!;
  };

  it('go on while presses follow soon', () => {
    const run = keyRuns(at(0, 300, 1000, 1801));
    const [a, b, c, d] = [0, 1, 2, 3].map(() => run('rise', false));
    expect([b, c]).toEqual([a, a]);
    expect(d).not.toBe(a);
  });

  it('go on while a key is held, however slowly it repeats', () => {
    const run = keyRuns(at(0, 5000, 10_000));
    const first = run('rise', false);
    expect(run('rise', true)).toBe(first);
    expect(run('rise', true)).toBe(first);
  });

  it('end with another thing moved, and do not come back', () => {
    const run = keyRuns(at(0));
    const rise = run('rise', false);
    const shift = run('shift', true);
    expect(shift).not.toBe(rise);
    expect(run('rise', true)).not.toBe(rise);
  });
});
