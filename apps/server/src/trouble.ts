/**
 * What kind of trouble an error of the database is.
 * - away: it cannot be reached, or is starting or stopping
 * - full: its disk is
 * - again: it undid the work to let other work through; the same may be tried at once
 * - busy: it took too long
 * - refused: it does not let this user in, or there is no such database
 */
export type Trouble = 'away' | 'full' | 'again' | 'busy' | 'refused';

/** By SQLSTATE, the first that fits. */
const BY_CODE: readonly (readonly [RegExp, Trouble])[] = [
  [/^53100$/, 'full'],
  [/^(40001|40P01)$/, 'again'],
  [/^(55P03|57014|25P03)$/, 'busy'],
  [/^(28|3D)/, 'refused'],
  [/^(08|57P|53|58|XX00|25006)/, 'away'],
];

const SOCKET = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EAI_AGAIN',
  'ENOENT',
  'EHOSTUNREACH',
  'ENETUNREACH',
]);
const SAID =
  /connection terminated|timeout exceeded when trying to connect|query read timeout|connection error and is not queryable|client was closed/i;
const LOST = /connection terminated|query read timeout|client was closed/i;
const NO_ROOM = /no space left on device/i;

/** @returns null for what is a fault of ours, or no error of the database at all */
export function troubleOf(error: unknown): Trouble | null {
  for (let each = error; each instanceof Error; each = each.cause) {
    const { code, syscall } = each as { code?: unknown; syscall?: unknown };
    if (NO_ROOM.test(each.message) && typeof code === 'string' && /^\w{5}$/.test(code)) {
      return 'full';
    }
    // A file that is not there has the same code as a socket that is not.
    if (code === 'ENOENT' && syscall !== 'connect') return null;
    if (typeof code === 'string') {
      const found = BY_CODE.find(([codes]) => code.length === 5 && codes.test(code));
      if (found) return found[1];
      if (SOCKET.has(code)) return 'away';
    }
    if (SAID.test(each.message)) return 'away';
    if (each instanceof AggregateError) {
      const inner = each.errors.map(troubleOf).find((trouble) => trouble !== null);
      if (inner) return inner;
    }
  }
  return null;
}

/**
 * Whether an error leaves open what became of a statement that was sent: the database itself said
 * nothing more, so that it may have been carried out.
 */
export function isUncertain(error: unknown): boolean {
  for (let each = error; each instanceof Error; each = each.cause) {
    const { code, syscall } = each as { code?: unknown; syscall?: unknown };
    if (typeof code === 'string' && SOCKET.has(code) && syscall !== 'connect') return true;
    if (LOST.test(each.message)) return true;
  }
  return false;
}

/** The code of the database's own error, for logs; null when it is none. */
export function codeOf(error: unknown): string | null {
  for (let each = error; each instanceof Error; each = each.cause) {
    const { code } = each as { code?: unknown };
    if (typeof code === 'string') return code;
  }
  return null;
}
