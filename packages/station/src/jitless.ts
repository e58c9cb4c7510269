import * as z from 'zod';

// The content policy forbids code made at run time; without this Zod tries it once and is refused.
z.config({ jitless: true });
