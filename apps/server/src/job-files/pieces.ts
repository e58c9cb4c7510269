/** A large JSON object taken apart without being parsed at once: member by member, lists entry by entry. */

export type Piece =
  | { readonly kind: 'member'; readonly name: string; readonly value: unknown }
  | { readonly kind: 'list'; readonly name: string }
  | { readonly kind: 'entry'; readonly name: string; readonly value: unknown };

/** It is no JSON object. */
export class NotJson extends Error {}

const [QUOTE, BACKSLASH, COMMA, COLON] = [0x22, 0x5c, 0x2c, 0x3a];
const [BRACE, BRACKET, UNBRACE, UNBRACKET] = [0x7b, 0x5b, 0x7d, 0x5d];

const isSpace = (byte: number | undefined): boolean =>
  byte === 0x20 || byte === 0x0a || byte === 0x0d || byte === 0x09;

class Reader {
  at = 0;

  constructor(private readonly bytes: Buffer) {
    if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) this.at = 3;
  }

  /** The next byte that is no space. */
  peek(): number | undefined {
    while (isSpace(this.bytes[this.at])) this.at++;
    return this.bytes[this.at];
  }

  take(byte: number): void {
    if (this.peek() !== byte) throw new NotJson();
    this.at++;
  }

  /** Whether a list or an object goes on after an entry. */
  goesOn(end: number): boolean {
    const byte = this.peek();
    this.at++;
    if (byte !== COMMA && byte !== end) throw new NotJson();
    return byte === COMMA;
  }

  private endOfText(from: number): number {
    for (let i = from + 1; i < this.bytes.length; i++) {
      if (this.bytes[i] === BACKSLASH) i++;
      else if (this.bytes[i] === QUOTE) return i + 1;
    }
    throw new NotJson();
  }

  /** Goes past one value. */
  private skip(): void {
    const { bytes } = this;
    let depth = 0;
    while (this.at < bytes.length) {
      const byte = bytes[this.at];
      if (byte === QUOTE) {
        this.at = this.endOfText(this.at);
        if (depth === 0) return;
        continue;
      }
      const ends = byte === UNBRACE || byte === UNBRACKET;
      if (depth === 0 && (ends || byte === COMMA || isSpace(byte))) return;
      if (byte === BRACE || byte === BRACKET) depth++;
      else if (ends) depth--;
      this.at++;
      if (ends && depth === 0) return;
    }
    if (depth > 0) throw new NotJson();
  }

  value(): unknown {
    this.peek();
    const from = this.at;
    this.skip();
    try {
      return JSON.parse(this.bytes.toString('utf8', from, this.at)) as unknown;
    } catch {
      throw new NotJson();
    }
  }

  empty(end: number): boolean {
    if (this.peek() !== end) return false;
    this.at++;
    return true;
  }
}

/**
 * @param lists names of members whose entries come one by one
 * @throws NotJson
 */
export function* piecesOf(bytes: Buffer, lists: ReadonlySet<string>): Generator<Piece> {
  const reader = new Reader(bytes);
  reader.take(BRACE);
  if (!reader.empty(UNBRACE)) {
    do {
      if (reader.peek() !== QUOTE) throw new NotJson();
      const name = reader.value() as string;
      reader.take(COLON);
      if (!lists.has(name) || reader.peek() !== BRACKET) {
        yield { kind: 'member', name, value: reader.value() };
        continue;
      }
      yield { kind: 'list', name };
      reader.take(BRACKET);
      if (reader.empty(UNBRACKET)) continue;
      do yield { kind: 'entry', name, value: reader.value() };
      while (reader.goesOn(UNBRACKET));
    } while (reader.goesOn(UNBRACE));
  }
  if (reader.peek() !== undefined) throw new NotJson();
}
