/** Requests as these tests make them: a body is JSON unless it is text. */
interface Sent {
  readonly data?: unknown;
  readonly headers?: Record<string, string>;
}

const ask = (method: string, url: string, { data, headers = {} }: Sent = {}): Promise<Response> =>
  fetch(url, {
    method,
    headers: { ...(data === undefined ? {} : { 'Content-Type': 'application/json' }), ...headers },
    ...(data === undefined ? {} : { body: typeof data === 'string' ? data : JSON.stringify(data) }),
  });

export const request = {
  get: (url: string, sent?: Sent) => ask('GET', url, sent),
  put: (url: string, sent?: Sent) => ask('PUT', url, sent),
  post: (url: string, sent?: Sent) => ask('POST', url, sent),
};
