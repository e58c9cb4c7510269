import type { MovementLimits } from '../document/station.js';

type FrameStops = NonNullable<MovementLimits['frame_stops']>;

type Read = { ok: true; value: FrameStops } | { ok: false; message: string };

const NUMBER = String.raw`-?\d+(?:[.,]\d+)?`;
const PAIR = new RegExp(String.raw`^(${NUMBER})[\s,]+(${NUMBER})$`);
const BLOCK = new RegExp(
  String.raw`^(\d+)\s*[×x*]\s*(\d+)\s*[,;]\s*(${NUMBER})\s*(?:[×x*]\s*(${NUMBER})\s*)?(?:mm)?$`,
  'i',
);
const TURNS = new RegExp(String.raw`^(\d+)\s*turns?\s*[,;]\s*(.+)$`, 'i');

const read = (text: string): number => Number(text.replace(',', '.'));

const pair = (text: string): [number, number] | null => {
  const found = PAIR.exec(text.trim().replace(/\s*mm$/i, ''));
  return found ? [read(found[1]!), read(found[2]!)] : null;
};

/** Stops of a sliding or turning back, as people write them: see the field's help. */
export function readFrameStops(text: string): Read {
  const plain = text.trim().replaceAll('−', '-');
  const block = BLOCK.exec(plain);
  if (block) {
    const [, columns, rows, across, up = across] = block;
    return {
      ok: true,
      value: {
        columns: Number(columns),
        rows: Number(rows),
        pitch_mm: [read(across!), read(up!)],
      },
    };
  }
  const turns = TURNS.exec(plain);
  if (turns) {
    const offset = pair(turns[2]!);
    return offset
      ? { ok: true, value: { turns: Number(turns[1]), offset_mm: offset } }
      : { ok: false, message: `“${turns[2]!}” is no place; write 4 turns, 4.5 10.5.` };
  }
  const parts = plain
    .split(/[;\n]+/)
    .map((part) => part.trim())
    .filter(Boolean);
  const places = parts.map(pair);
  const wrong = places.findIndex((place) => place === null);
  return wrong < 0 && places.length > 0
    ? { ok: true, value: { places_mm: places as [number, number][] } }
    : {
        ok: false,
        message: `“${parts[wrong] ?? plain}” is no place across and up; write −8 0; 0 0; 8 0, or 4 × 2, 12 × 16 mm.`,
      };
}

const plain = (value: number): string => String(value).replace('-', '−');

export function writeFrameStops(stops: FrameStops): string {
  if ('places_mm' in stops) {
    return stops.places_mm.map(([x, y]) => `${plain(x)} ${plain(y)}`).join('; ');
  }
  if ('turns' in stops) {
    return `${stops.turns} turns, ${stops.offset_mm.map(plain).join(' ')}`;
  }
  return `${stops.columns} × ${stops.rows}, ${stops.pitch_mm.map(plain).join(' × ')} mm`;
}
