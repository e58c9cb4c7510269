import { unzlibSync } from 'fflate';

/**
 * A typeface as it was before it was packed for the web: each table of a WOFF file is unpacked
 * once, where readers of type would unpack it anew for every letter. Source: W3C, WOFF File Format
 * 1.0 (2012).
 * @returns the file as it is when it is no WOFF
 */
export function unpacked(bytes: Uint8Array): Uint8Array {
  const from = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (from.getUint32(0) !== WOFF) return bytes;
  const count = from.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = WOFF_HEAD + i * WOFF_ENTRY;
    const [offset, packed, length] = [4, 8, 12].map((by) => from.getUint32(at + by)) as [
      number,
      number,
      number,
    ];
    const data = bytes.subarray(offset, offset + packed);
    return {
      tag: from.getUint32(at),
      checksum: from.getUint32(at + 16),
      data: packed < length ? unzlibSync(data) : data,
    };
  });
  const head = SFNT_HEAD + count * SFNT_ENTRY;
  const size = tables.reduce((sum, { data }) => sum + padded(data.length), head);
  const out = new Uint8Array(size);
  const to = new DataView(out.buffer);
  const power = Math.floor(Math.log2(count));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, 16 * 2 ** power);
  to.setUint16(8, power);
  to.setUint16(10, 16 * count - 16 * 2 ** power);
  let offset = head;
  tables.forEach(({ tag, checksum, data }, i) => {
    const at = SFNT_HEAD + i * SFNT_ENTRY;
    [tag, checksum, offset, data.length].forEach((value, k) => to.setUint32(at + 4 * k, value));
    out.set(data, offset);
    offset += padded(data.length);
  });
  return out;
}

const WOFF = 0x774f4646;
const WOFF_HEAD = 44;
const WOFF_ENTRY = 20;
const SFNT_HEAD = 12;
const SFNT_ENTRY = 16;

/** Tables begin at multiples of four bytes. */
const padded = (length: number): number => 4 * Math.ceil(length / 4);
