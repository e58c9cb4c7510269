import type { Offset } from '@gangway/station';

/** 1 h 0 min 37 s. */
export function spanSaid(seconds: number): string {
  const whole = Math.round(Math.abs(seconds));
  const [days, h, min, s] = [Math.floor(whole / 86_400), Math.floor(whole / 3600) % 24, Math.floor(whole / 60) % 60, whole % 60]; // prettier-ignore
  const parts = [
    days > 0 ? `${days} ${days === 1 ? 'day' : 'days'}` : '',
    h > 0 ? `${h} h` : '',
    min > 0 ? `${min} min` : '',
    s > 0 || whole === 0 ? `${s} s` : '',
  ];
  return parts.filter(Boolean).join(' ');
}

export const offsetSaid = (seconds: number): string =>
  Math.abs(seconds) < 0.5 ? 'on time' : `${spanSaid(seconds)} ${seconds > 0 ? 'ahead' : 'behind'}`;

/** What is known of a camera’s clock. */
export function clockSaid(offset: Offset): { readonly figure: string; readonly words: string } {
  if (offset.kind === 'undecided') {
    const [first] = offset.offsetsS;
    return {
      figure: first === undefined ? 'Clock unknown' : `${offsetSaid(first)}?`,
      words:
        offset.offsetsS.length > 1
          ? `undecided: ${offset.offsetsS.length} settings of its clock fit about as well`
          : 'undecided: the times do not tell',
    };
  }
  return {
    figure: offsetSaid(offset.offsetS),
    words: offset.kind === 'given' ? 'as you gave it' : 'found from the times',
  };
}

/** `1 h 0 min 37 s ahead`, `-1:00:37`, `37 s behind`; null where it cannot be read. */
export function readOffset(text: string): number | null {
  const plain = text.trim().toLowerCase().replace('−', '-');
  const behind = /behind|slow/.test(plain) || plain.startsWith('-');
  const clock = /^[-+]?(\d{1,3}):([0-5]?\d)(?::([0-5]?\d(?:\.\d+)?))?$/.exec(plain.replace(/\s*(?:ahead|behind|slow|fast)$/, '')); // prettier-ignore
  if (clock) {
    const size = Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3] ?? 0);
    return behind ? -size : size;
  }
  if (plain === 'on time' || plain === '0') return 0;
  const parts = [...plain.matchAll(/(\d+(?:\.\d+)?)\s*(days?|d|h|min|m|s)\b/g)];
  const rest = plain.replace(/(\d+(?:\.\d+)?)\s*(days?|d|h|min|m|s)\b/g, '').replace(/ahead|behind|slow|fast|[-+\s]/g, ''); // prettier-ignore
  if (parts.length === 0 || rest !== '') return null;
  const per: Readonly<Record<string, number>> = { d: 86_400, h: 3600, m: 60, s: 1 };
  const size = parts.reduce((sum, [, value, unit]) => sum + Number(value) * per[unit![0]!]!, 0);
  return behind ? -size : size;
}
