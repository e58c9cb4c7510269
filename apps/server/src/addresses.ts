import { isIP } from 'node:net';
import { hostname } from 'node:os';

/** A name in small letters, without the brackets of an IPv6 address and the dot of a full name. */
const bare = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replace(/^\[(.*)\]$/, '$1')
    .replace(/\.$/, '');

export const isLoopback = (host: string): boolean =>
  /^(localhost|127\.\d{1,3}\.\d{1,3}\.\d{1,3}|::1|::ffff:127\.\d{1,3}\.\d{1,3}\.\d{1,3})$/.test(
    bare(host),
  );

export type MayAsk = (name: string) => boolean;

/**
 * The names a request may be addressed to. Past loopback these are also the machine's own name and
 * any address by number: a page elsewhere that means to come in under its own name (DNS rebinding)
 * has a name, never a number.
 */
export function allowedNames(host: string, more: readonly string[]): MayAsk {
  const open = !isLoopback(host);
  const machine = bare(hostname());
  const named = new Set(
    ['localhost', '127.0.0.1', '::1', host, ...more, ...(open ? [machine, `${machine}.local`] : [])]
      .map(bare)
      .filter(Boolean),
  );
  return (name) => named.has(bare(name)) || (open && isIP(bare(name)) !== 0);
}
