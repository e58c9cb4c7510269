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
  if (files.length === 0) return { wrong: 'give the station or job files the cards are made of' };
  if (out === undefined) return { wrong: 'say where the PDF goes: -o card.pdf' };
  return { files, out, size };
}

/** What `gangway xmp` is asked for, or what is wrong with how it was asked. */
export type XmpAsked =
  | { readonly job: string; readonly out: string; readonly files: string | null }
  | { readonly wrong: string };

/** `JOB -o DIR [--files DIR]`, in any order. */
export function xmpAsked(args: readonly string[]): XmpAsked {
  const jobs: string[] = [];
  const given: { '-o'?: string; '--files'?: string } = {};
  for (let i = 0; i < args.length; i++) {
    const arg = args[i]!;
    if (arg === '-o' || arg === '--files') {
      const value = args[++i];
      if (value === undefined) return { wrong: `${arg} needs a folder after it` };
      given[arg] = value;
    } else if (arg.startsWith('-') && arg !== '-') return { wrong: `${arg} is no option of xmp` };
    else jobs.push(arg);
  }
  const [job, ...more] = jobs;
  if (job === undefined || more.length > 0) return { wrong: 'give one job file' };
  if (given['-o'] === undefined) return { wrong: 'say where the sidecars go: -o DIR' };
  return { job, out: given['-o'], files: given['--files'] ?? null };
}
