/** A moment as the log writes it: local time with its offset, to the second (RFC 3339). */
export function momentNow(ms: number = Date.now()): string {
  const date = new Date(ms);
  const two = (value: number): string => String(value).padStart(2, '0');
  const offset = -date.getTimezoneOffset();
  const sign = offset < 0 ? '-' : '+';
  const day = `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
  const time = `${two(date.getHours())}:${two(date.getMinutes())}:${two(date.getSeconds())}`;
  const size = Math.abs(offset);
  return `${day}T${time}${sign}${two(Math.floor(size / 60))}:${two(size % 60)}`;
}

/** s of the clock that hung on the wall where it was, as cameras note it. */
export const wallS = (moment: string): number =>
  Date.parse(`${moment.replace(/(?:Z|[+-]\d\d:\d\d)$/, '')}Z`) / 1000;
