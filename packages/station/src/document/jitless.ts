import * as z from 'zod';

// A page's content policy forbids code made at run time; without this Zod tries it once and is
// refused. On a server and on the command line nothing forbids it, and it is twice as quick.
z.config({ jitless: 'WorkerGlobalScope' in globalThis || 'window' in globalThis });
