/** What a command reads from and writes to. */
export interface Streams {
  readonly stdin: AsyncIterable<Buffer | string>;
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}
