import { createServer } from 'node:net';

/**
 * Ports from 1024 on that browsers refuse to open, other services having them.
 * Source: WHATWG Fetch standard, “port blocking”.
 */
const BLOCKED = new Set([
  1719, 1720, 1723, 2049, 3659, 4045, 4190, 5060, 5061, 6000, 6566, 6665, 6666, 6667, 6668, 6669,
  6679, 6697, 10080,
]);

/** The port asked for. @throws when it is none, or one that no browser opens */
export function readPort(text, usual) {
  const port = Number(text || usual);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    throw new Error(`PORT must be a whole number from 1 to 65535, not ${text}.`);
  }
  if (BLOCKED.has(port)) {
    throw new Error(`PORT: browsers do not open port ${port}; choose another.`);
  }
  return port;
}

/** The first free port from one on. */
export async function freePort(wanted, host = '127.0.0.1') {
  for (let port = wanted; port < wanted + 200; port++) {
    if (BLOCKED.has(port)) continue;
    const free = await new Promise((resolve, reject) => {
      const probe = createServer();
      probe.once('error', (error) => {
        if (error.code === 'EADDRINUSE' || error.code === 'EACCES') resolve(false);
        else reject(new Error(`HOST: this machine has no address ${host} (${error.code}).`));
      });
      probe.listen(port, host, () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
  throw new Error(`No free port from ${wanted} to ${wanted + 199}.`);
}
