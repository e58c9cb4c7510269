import type { Response } from 'express';

/** Writes a part of an answer, and waits until it has been taken or nobody is there to take it. */
export const writePart = async (response: Response, text: string): Promise<void> => {
  if (response.write(text) || response.closed) return;
  await new Promise<void>((resolve) => {
    const done = (): void => {
      response.off('drain', done);
      response.off('close', done);
      resolve();
    };
    response.on('drain', done);
    response.on('close', done);
  });
};
