import { configureStore, type Middleware } from '@reduxjs/toolkit';
import { answered } from '../src/records/answered.js';
import { api, sentence } from '../src/records/api.js';

/** A server that answers so, one after the other, and the store that asks it. */
function around(answers: ('away' | object)[], onFailed: () => void = () => {}) {
  globalThis.fetch = () => {
    const answer = answers.shift() ?? 'away';
    return answer === 'away'
      ? Promise.reject(new TypeError('Failed to fetch'))
      : Promise.resolve(new Response(JSON.stringify(answer), { headers: JSON_TYPE }));
  };
  const watch: Middleware = () => (next) => (action) => {
    const result = next(action);
    if (query.matchRejected(action)) onFailed();
    return result;
  };
  return configureStore({
    reducer: { [api.reducerPath]: api.reducer },
    middleware: (usual) => usual().concat(api.middleware, watch),
  });
}

const JSON_TYPE = { 'Content-Type': 'application/json' };
const OF = { jobId: 'one', stem: 'Station' };
const query = api.endpoints.freeName;

describe('an answer that is asked for', () => {
  const real = { fetch: globalThis.fetch, Request: globalThis.Request };
  beforeAll(() => {
    // Outside a browser an address without a host is none.
    globalThis.Request = class extends real.Request {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, 'http://localhost') : input, init);
      }
    };
  });
  afterAll(() => Object.assign(globalThis, real));

  it('is asked for again when another asks anew just as it fails', async () => {
    // What is shown of it is asked for anew as soon as it has failed.
    const again = (): void => void ask();
    const store = around(['away', { name: 'Station 4' }], again);
    const ask = () => store.dispatch(query.initiate(OF, { forceRefetch: true }));
    const bare = await ask();
    expect([bare.isSuccess, bare.isError]).toEqual([false, false]);
    await expect(answered(ask)).resolves.toEqual({ name: 'Station 4' });
  });

  it('is an error where the server is away, told in words', async () => {
    const store = around(['away']);
    const failed = answered(() => store.dispatch(query.initiate(OF, { forceRefetch: true })));
    await expect(failed.catch(sentence)).resolves.toBe('The server does not answer.');
  });
});
