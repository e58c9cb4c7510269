import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { luminanceOf, type FrameFile, type Samples } from '@gangway/frames';
import { embeddedPreview, factsOf, isRaw, NO_FACTS, type FileFacts } from '@gangway/sidecar/facts';

/** Picture files as planes of light; decoded by libvips, one at a time. */

/** More pixels than any back has; a file that claims them is broken or ill meant. */
const MOST_PX = 400_000_000;
/** From here on memory is asked for first: GANGWAY_LARGE=1 says yes. */
const ASKED_PX = 150_000_000;
const BYTES_A_PIXEL = 3;

export interface Opened {
  readonly file: FrameFile;
  readonly facts: FileFacts;
  /** Its place among the files that were given: one may be given twice. */
  readonly index: number;
  /** What was done to read it that the figures rest on. */
  readonly note: string | null;
}

export type Opening =
  { readonly ok: true; readonly opened: Opened } | { readonly ok: false; readonly why: string };

sharp.cache(false);

const millions = (pixels: number): string => `${Math.round(pixels / 1e6)} million`;

/** What libvips says of a file, in words of ours. */
function whyOf(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  if (code === 'ENOENT') return 'there is no such file';
  if (code === 'EISDIR') return 'it is a folder';
  if (code !== undefined && code.startsWith('E')) return `it cannot be read (${code})`;
  if (/premature|truncat|corrupt|VipsJpeg: (?:Premature|out of order)|read gave|end of (?:file|stream)/i.test(message)) return 'it ends too early, or is damaged'; // prettier-ignore
  if (/exceeds pixel limit/i.test(message))
    return `it claims more than ${millions(MOST_PX)} pixels`;
  return 'it cannot be read as a picture';
}

/** Kept from being read twice over at once, but not from being read in part. */
const openedBy = (input: Buffer | string): Sharp =>
  sharp(input, { failOn: 'truncated', limitInputPixels: MOST_PX, sequentialRead: true });

async function samplesOf(input: Buffer | string, wide: boolean, linear: boolean): Promise<Samples> {
  const { data, info } = await openedBy(input)
    .autoOrient()
    .toColourspace(wide ? 'rgb16' : 'srgb')
    .removeAlpha()
    .raw({ depth: wide ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  const channels = info.channels as Samples['channels'];
  const bytes = data.buffer as ArrayBuffer;
  return wide
    ? { width, height, channels, linear, data: new Uint16Array(bytes, data.byteOffset, data.length / 2) } // prettier-ignore
    : {
        width,
        height,
        channels,
        linear,
        data: new Uint8Array(bytes, data.byteOffset, data.length),
      };
}

function noteOf({
  space,
  wide,
  linear,
  raw,
}: {
  space: string;
  wide: boolean;
  linear: boolean;
  raw: boolean;
}): string | null {
  const parts = [
    ...(raw ? ['the preview inside a raw file'] : []),
    ...(space === 'cmyk' ? ['CMYK, brought to sRGB'] : []),
    ...(wide ? ['16 bits'] : []),
    ...(linear ? ['linear'] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : null;
}

/** @param name as it was given */
export async function openPicture(name: string, index = 0): Promise<Opening> {
  try {
    const bytes = await readFile(name);
    const preview = isRaw(name) ? embeddedPreview(bytes) : null;
    if (isRaw(name) && !preview)
      return { ok: false, why: 'it is a raw file without a preview inside' };
    const facts = (await factsOf(bytes).catch(() => null)) ?? NO_FACTS;
    // Read again from the disk: a stack of files is not kept in memory.
    const input = (): Promise<Buffer> | string => (preview ? Promise.resolve(Buffer.from(preview)) : name); // prettier-ignore
    const told = await openedBy(await input()).metadata();
    const { width, height, autoOrient, depth, space } = told;
    if (width * height > MOST_PX) return { ok: false, why: `it claims ${width} × ${height} pixels; at most ${millions(MOST_PX)} are read` }; // prettier-ignore
    if (width * height > ASKED_PX && process.env.GANGWAY_LARGE !== '1') {
      const gigabytes = (
        (width * height * BYTES_A_PIXEL * (depth === 'uchar' ? 1 : 2)) /
        1e9
      ).toFixed(1);
      return {
        ok: false,
        why: `it has ${millions(width * height)} pixels and takes ${gigabytes} GB of memory to read; GANGWAY_LARGE=1 reads it`,
      };
    }
    const wide = depth === 'ushort' || depth === 'short';
    // A profile is undone where it is read: what comes of it has the usual curve again.
    const linear = facts.linear && told.icc === undefined;
    return {
      ok: true,
      opened: {
        facts,
        index,
        note: noteOf({ space, wide, linear, raw: preview !== null }),
        file: {
          name,
          widthPx: autoOrient.width,
          heightPx: autoOrient.height,
          takenS: facts.clockS,
          load: async () => {
            const samples = await samplesOf(await input(), wide, linear).catch((error: unknown) => {
              throw new Error(whyOf(error));
            });
            return {
              piece: (area, every) => luminanceOf(samples, area, every),
              close: () => undefined,
            };
          },
        },
      },
    };
  } catch (error) {
    return { ok: false, why: whyOf(error) };
  }
}

export interface OpenedAll {
  readonly opened: readonly Opened[];
  readonly aside: readonly { readonly file: string; readonly why: string }[];
}

export async function openPictures(names: readonly string[]): Promise<OpenedAll> {
  const opened: Opened[] = [];
  const aside: { file: string; why: string }[] = [];
  for (const [index, name] of names.entries()) {
    const opening = await openPicture(name, index);
    if (opening.ok) opened.push(opening.opened);
    else aside.push({ file: name, why: opening.why });
  }
  return { opened, aside };
}
