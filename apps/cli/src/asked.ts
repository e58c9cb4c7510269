import type { Size } from '@gangway/paper';

/** What `gangway card` is asked for, or what is wrong with how it was asked. */
export type CardAsked =
  | { readonly files: readonly string[]; readonly out: string; readonly size: Size }
  | { readonly wrong: string };

const SIZE_NAMES: readonly Size[] = ['A6', 'A5', 'A4', 'Letter'];

/** `FILE... -o card.pdf [--paper A6]`, in any order. */
export function cardAsked(args: readonly string[]): CardAsked {
  const files: string[] = [];
  let out: string | undefined;
  let size: Size = 'A6';
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (arg === '-o' || arg === '--paper') {
      const value = args[++i];
      if (value === undefined) return { wrong: `${arg} needs a value after it` };
      if (arg === '-o') out = value;
      else {
        const found = SIZE_NAMES.find((each) => each.toLowerCase() === value.toLowerCase());
        if (!found)
          return { wrong: `--paper must be one of ${SIZE_NAMES.join(', ')}, not ${value}` };
        size = found;
      }
    } else if (arg.startsWith('-') && arg !== '-') return { wrong: `${arg} is no option of card` };
    else files.push(arg);
  }
  if (files.length === 0) return { wrong: 'give the station files the cards are made of' };
  if (out === undefined) return { wrong: 'say where the PDF goes: -o card.pdf' };
  return { files, out, size };
}
