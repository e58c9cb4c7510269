/** What a PNG’s data unpack to, told before they are unpacked in memory. Source: PNG (W3C), chunks and filter bytes. */

const SIGNATURE_BYTES = 8;
const [LENGTH, TYPE, CRC] = [4, 4, 4];
const IDAT = 0x49444154;
/** Samples of a pixel by colour type. */
const SAMPLES: Readonly<Record<number, number>> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

/** Bytes that the picture in the head has, a filter byte a line with them; interlacing adds some lines. */
export function pngBytes(head: DataView): number {
  const [width, height] = [head.getUint32(16), head.getUint32(20)];
  const [bits, type] = [head.getUint8(24), head.getUint8(25)];
  const line = Math.ceil((width * bits * (SAMPLES[type] ?? 4)) / 8) + 1;
  return 2 * line * height + 1024;
}

/**
 * Whether the data unpack to more than their head says. They are unpacked piece by piece, and let go.
 * @throws where they cannot be unpacked
 */
export async function unpacksTo(bytes: Uint8Array, mostBytes: number): Promise<boolean> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parts: Uint8Array[] = [];
  for (let at = SIGNATURE_BYTES; at + LENGTH + TYPE + CRC <= bytes.length;) {
    const [length, type] = [view.getUint32(at), view.getUint32(at + LENGTH)];
    const from = at + LENGTH + TYPE;
    if (type === IDAT) parts.push(bytes.subarray(from, Math.min(bytes.length, from + length)));
    at = from + length + CRC;
  }
  const stream = new Blob(parts as BlobPart[])
    .stream()
    .pipeThrough(new DecompressionStream('deflate'));
  const reader = stream.getReader();
  let all = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return all <= mostBytes;
    all += value.length;
    if (all <= mostBytes) continue;
    await reader.cancel();
    return false;
  }
}
