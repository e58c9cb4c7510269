import qrcode from 'qrcode-generator';
import type { SheetShape } from './sheet.js';

/** Light margin that readers ask for around a code, in modules. Source: ISO/IEC 18004 (from memory). */
export const QUIET_MODULES = 4;

/** Modules of a code along a side, its light margin with them, and which of them are dark. */
export interface Code {
  readonly size: number;
  readonly dark: readonly (readonly [number, number])[];
}

let last: { readonly text: string; readonly code: Code } | null = null;

/** A text as a QR code (ISO/IEC 18004), in UTF-8, which any phone reads as text. */
export function codeOf(text: string): Code {
  // A card and its tag carry the same one.
  if (last?.text !== text) last = { text, code: made(text) };
  return last.code;
}

function made(text: string): Code {
  const code = qrcode(0, 'M');
  code.addData(toBytes(text), 'Byte');
  code.make();
  const count = code.getModuleCount();
  const dark: [number, number][] = [];
  for (let row = 0; row < count; row++) {
    for (let column = 0; column < count; column++) {
      if (code.isDark(row, column)) dark.push([column + QUIET_MODULES, row + QUIET_MODULES]);
    }
  }
  return { size: count + 2 * QUIET_MODULES, dark };
}

/** Each byte of the text as a letter of its own: what the library takes for bytes. */
const toBytes = (text: string): string =>
  [...new TextEncoder().encode(text)].map((byte) => String.fromCharCode(byte)).join('');

/** A code as black runs on white, a side of it so long. */
export function codeShapes(text: string, x: number, y: number, sideMm: number): SheetShape[] {
  const { size, dark } = codeOf(text);
  const module = sideMm / size;
  const shapes: SheetShape[] = [];
  let run: [number, number, number] | null = null;
  const end = (): void => {
    if (!run) return;
    const [from, to, row] = run;
    const [left, right] = [x + from * module, x + to * module];
    const [top, bottom] = [y + row * module, y + (row + 1) * module];
    shapes.push({
      points: [
        [left, top],
        [right, top],
        [right, bottom],
        [left, bottom],
      ],
      closed: true,
      fill: 0,
    });
    run = null;
  };
  for (const [column, row] of dark) {
    if (run && run[2] === row && run[1] === column) run = [run[0], column + 1, row];
    else {
      end();
      run = [column, column + 1, row];
    }
  }
  end();
  return shapes;
}
