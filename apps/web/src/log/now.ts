/** A moment as the log writes it: local time with its offset, to the second (RFC 3339). */
export function momentNow(ms: number = Date.now()): string {
  const date = new Date(ms);
  const two = (value: number): string => String(value).padStart(2, '0');
  const day = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
  const time = `${two(date.getHours())}:${two(date.getMinutes())}:${two(date.getSeconds())}`;
  return `${day}T${time}${offsetOf(`${day}T${time}`)}`;
}

const known = new Map<string, number>();
/** Moments of the longest log there may be. */
const MOST_KNOWN = 100_000;

/** s of the clock that hung on the wall where it was, as cameras note it. */
export function wallS(moment: string): number {
  const before = known.get(moment);
  if (before !== undefined) return before;
  if (known.size >= MOST_KNOWN) known.clear();
  const made = Date.parse(`${moment.replace(/(?:Z|[+-]\d\d:\d\d)$/, '')}Z`) / 1000;
  known.set(moment, made);
  return made;
}

/** The offset of this machine’s clock at a local time: +02:00. */
export function offsetOf(local: string): string {
  const minutes = -new Date(local).getTimezoneOffset();
  const size = Math.abs(Number.isFinite(minutes) ? minutes : 0);
  const two = (value: number): string => String(value).padStart(2, '0');
  return `${minutes < 0 ? '-' : '+'}${two(Math.floor(size / 60))}:${two(size % 60)}`;
}
