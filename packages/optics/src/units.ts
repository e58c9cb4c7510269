/**
 * Reading what people write into the units the core works in, and nothing else.
 * Every reader returns a value or says what the text is not; none throws.
 */

/** Why a text is no figure. */
export type Unreadable =
  | 'too_long'
  | 'too_large'
  | 'no_length'
  | 'empty_length'
  | 'no_angle'
  | 'no_f_number'
  | 'no_ratio'
  | 'no_time'
  | 'empty_time'
  | 'no_stops'
  | 'no_factor';

/** `written`: the text, without what stands about it. */
export type Read =
  | { readonly ok: true; readonly value: number }
  | { readonly ok: false; readonly unreadable: Unreadable; readonly written: string };

export type LengthUnit = 'mm' | 'cm' | 'm' | 'in' | 'ft';

export const MM_PER: Record<LengthUnit, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 };

const refuse = (unreadable: Unreadable, written: string): Read => ({
  ok: false,
  unreadable,
  written,
});

/** Longest text that can be a figure with its unit. Past it nothing is read, so that time is bounded. */
export const LONGEST_FIGURE = 80;

const tooLong = (text: string): Read | null =>
  text.length > LONGEST_FIGURE ? refuse('too_long', text) : null;

/** Curly quotes, primes, the true minus and a decimal comma become their plain forms. */
const tidy = (text: string): string =>
  text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/[’′]/g, "'")
    .replace(/[”″]/g, '"')
    .replace(/''/g, '"')
    .replace(/(\d),(\d)/g, '$1.$2');

const NUMBER = String.raw`\d+(?:\.\d*)?(?:e[+-]?\d+)?|\.\d+(?:e[+-]?\d+)?`;
/** A decimal, a fraction (1/4) or a mixed number (7 1/2). */
const QUANTITY = String.raw`(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|${NUMBER})`;

function readQuantity(text: string): number {
  const mixed = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(text.trim());
  if (mixed) return Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]);
  return Number(text);
}

function finite(value: number, written: string): Read {
  if (Number.isFinite(value)) return { ok: true, value };
  return refuse('too_large', written);
}

const UNIT_WORDS: Record<string, LengthUnit> = {
  mm: 'mm',
  cm: 'cm',
  m: 'm',
  in: 'in',
  '"': 'in',
  ft: 'ft',
  "'": 'ft',
};

/**
 * A length as written: `2.4m`, `240 cm`, `7' 10"`, `3 1/2 in`, `12`.
 * @param bare the unit of a number written without one
 * @returns the length in mm, sign kept
 */
export function readLengthMm(text: string, bare: LengthUnit): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const plain = tidy(written).toLowerCase();
  if (plain === '') return refuse('empty_length', written);
  const feet = new RegExp(
    `^([+-]?)\\s*(${QUANTITY})\\s*(?:'|ft)\\s*(?:(${QUANTITY})\\s*(?:"|in)?)?$`,
  ).exec(plain);
  if (feet) {
    const size =
      readQuantity(feet[2] ?? '0') * MM_PER.ft + readQuantity(feet[3] ?? '0') * MM_PER.in;
    return finite(feet[1] === '-' ? -size : size, written);
  }
  const one = new RegExp(`^([+-]?)\\s*(${QUANTITY})\\s*(mm|cm|m|in|")?$`).exec(plain);
  if (!one) return refuse('no_length', written);
  const size = readQuantity(one[2] ?? '') * MM_PER[UNIT_WORDS[one[3] ?? ''] ?? bare];
  return finite(one[1] === '-' ? -size : size, written);
}

/** A distance in metres; `inf`, `infinity` and `∞` give `Infinity`. */
export function readDistanceM(text: string, bare: LengthUnit): Read {
  if (/^(inf|infinity|∞)$/i.test(text.trim().slice(0, 9))) return { ok: true, value: Infinity };
  const mm = readLengthMm(text, bare);
  return mm.ok ? { ok: true, value: mm.value / 1000 } : mm;
}

/** An angle in degrees: `3.5`, `3.5°`, `-2 deg`, `3° 30'`. */
export function readAngleDeg(text: string): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const found = new RegExp(
    `^([+-]?)\\s*(${NUMBER})\\s*(?:°|deg|degrees)?\\s*(?:(${NUMBER})\\s*')?$`,
  ).exec(tidy(written).toLowerCase());
  if (!found) return refuse('no_angle', written);
  const size = Number(found[2]) + Number(found[3] ?? 0) / 60;
  return finite(found[1] === '-' ? -size : size, written);
}

/** An aperture as an f-number: `8`, `f/8`, `f8`, `F/5.6`, `1:4`. */
export function readFNumber(text: string): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const found = new RegExp(`^(?:f\\s*/?\\s*|1\\s*:\\s*)?(${NUMBER})$`).exec(
    tidy(written).toLowerCase(),
  );
  if (!found) return refuse('no_f_number', written);
  return finite(Number(found[1]), written);
}

/** A plain ratio or number: `0.5`, `1:2`, `1/4`, `0.5x`, `2×`. */
export function readRatio(text: string): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const plain = tidy(written).toLowerCase();
  const ratio = new RegExp(`^(${NUMBER})\\s*[:/]\\s*(${NUMBER})$`).exec(plain);
  if (ratio) return finite(Number(ratio[1]) / Number(ratio[2]), written);
  const one = new RegExp(`^([+-]?(?:${NUMBER}))\\s*[x×]?$`).exec(plain);
  if (!one) return refuse('no_ratio', written);
  return finite(Number(one[1]), written);
}

const TIME_UNITS: Record<string, number> = {
  s: 1,
  sec: 1,
  second: 1,
  seconds: 1,
  '"': 1,
  min: 60,
  m: 60,
  minute: 60,
  minutes: 60,
  "'": 60,
  h: 3600,
  hour: 3600,
  hours: 3600,
  ms: 0.001,
};

/** A time in seconds: `1/125`, `0.5`, `4 s`, `2 min`, `1m30`, `1:30`, `1 h 5 min`, `8 ms`. */
export function readTimeS(text: string): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const plain = tidy(written).toLowerCase();
  const no = refuse('no_time', written);
  if (plain === '') return refuse('empty_time', written);
  const clock = /^(?:(\d+):)?(\d{1,3}):(\d{1,2}(?:\.\d+)?)$/.exec(plain);
  if (clock) {
    return finite(Number(clock[1] ?? 0) * 3600 + Number(clock[2]) * 60 + Number(clock[3]), written);
  }
  const part = new RegExp(`^\\s*(${QUANTITY})\\s*([a-z'"]*)`);
  let rest = plain;
  let total = 0;
  let before = Infinity;
  while (rest.trim() !== '') {
    const found = part.exec(rest);
    if (!found) return no;
    // A number that ends a longer time counts in the next smaller unit: 1m30.
    const unit = found[2] === '' ? (before === 3600 ? 60 : 1) : TIME_UNITS[found[2]!];
    if (unit === undefined || unit >= before) return no;
    total += readQuantity(found[1]!) * unit;
    before = unit;
    rest = rest.slice(found[0].length);
  }
  return finite(total, written);
}

/** A number of stops of light: `1`, `-0.7`, `1 1/3`, `+2/3`, `1⅓`; or a factor of time: `8x`, `×4`. */
export function readStops(text: string): Read {
  const written = text.trim();
  const long = tooLong(written);
  if (long) return long;
  const plain = tidy(written)
    .toLowerCase()
    .replace('⅓', ' 1/3')
    .replace('½', ' 1/2')
    .replace('⅔', ' 2/3')
    .trim();
  const times = new RegExp(`^(?:[x×]\\s*(${QUANTITY})|(${QUANTITY})\\s*[x×])$`).exec(plain);
  if (times) {
    const factor = readQuantity(times[1] ?? times[2]!);
    return factor > 0 ? finite(Math.log2(factor), written) : refuse('no_factor', written);
  }
  const one = new RegExp(`^([+-]?)\\s*(${QUANTITY})\\s*(?:stops?|ev)?$`).exec(plain);
  if (!one) return refuse('no_stops', written);
  const size = readQuantity(one[2]!);
  return finite(one[1] === '-' ? -size : size, written);
}
