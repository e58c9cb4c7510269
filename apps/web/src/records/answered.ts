/** Between one asking and the next; what is under way ends meanwhile. */
const PAUSE_MS = 50;

interface Asked<T> {
  readonly isSuccess: boolean;
  readonly isError: boolean;
  readonly data?: T;
  readonly error?: unknown;
}

/**
 * The answer to a query, or its error thrown. One that is asked anew elsewhere just as it ends
 * resolves unanswered; it is then asked again.
 */
export async function answered<T>(ask: () => PromiseLike<Asked<T>>): Promise<T> {
  for (;;) {
    const { isSuccess, isError, data, error } = await ask();
    if (isSuccess) return data!;
    if (isError) throw error as Error;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
  }
}
