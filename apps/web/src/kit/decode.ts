export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

const SAMPLE_BYTES = 400;

/**
 * What a file is most likely written in. UTF-16 says so by its mark; without one its letters show
 * it, of which every other byte is zero in most tables.
 */
function guessed(bytes: ArrayBuffer): Encoding {
  const head = new Uint8Array(bytes, 0, Math.min(SAMPLE_BYTES, bytes.byteLength));
  if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le';
  if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be';
  const zeros = [0, 0];
  head.forEach((byte, i) => {
    if (byte === 0) zeros[i % 2]! += 1;
  });
  const [even, odd] = zeros as [number, number];
  const many = head.length / 4;
  if (odd > many && even === 0) return 'utf-16le';
  return even > many && odd === 0 ? 'utf-16be' : 'utf-8';
}

/** A file's bytes as text, in the encoding asked for or the one it most likely is in. */
export function decoded(
  bytes: ArrayBuffer,
  wanted: Encoding | null,
): { text: string; encoding: Encoding; doubt: string | null } {
  const encoding = wanted ?? guessed(bytes);
  try {
    const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
    return { text, encoding, doubt: null };
  } catch {
    // Spreadsheets of old write one byte a letter; it reads without fault, rightly or not.
    return {
      text: new TextDecoder('windows-1252').decode(bytes),
      encoding: 'windows-1252',
      doubt:
        'The file is not in UTF-8. It is read as Western European; check that names with accents are right, or save it as UTF-8.',
    };
  }
}
