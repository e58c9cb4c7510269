import { movementsOf } from '../src/index.js';
import { readFrameStops, writeFrameStops } from '../src/kit/frame-stops.js';
import { station } from './helpers/mosaic.js';

describe('stops for several frames in the kit', () => {
  it.each([
    ['4 × 2, 12 × 16 mm', { columns: 4, rows: 2, pitch_mm: [12, 16] }],
    ['7x7, 6', { columns: 7, rows: 7, pitch_mm: [6, 6] }],
    [
      '−8 0; 0 0; 8,5 0',
      {
        places_mm: [
          [-8, 0],
          [0, 0],
          [8.5, 0],
        ],
      },
    ],
    ['4 turns, 4.5 10.5', { turns: 4, offset_mm: [4.5, 10.5] }],
  ])('%s', (text, value) => {
    const read = readFrameStops(text);
    expect(read).toEqual({ ok: true, value });
    expect(readFrameStops(writeFrameStops(value as never))).toEqual(read);
  });

  it('say what is wrong', () => {
    expect(readFrameStops('two by four')).toMatchObject({ ok: false });
    expect(readFrameStops('4 turns, off')).toMatchObject({ ok: false });
  });

  it('give a sliding back its reach where nothing else does', () => {
    const sliding = {
      frame_stops: { columns: 4, rows: 2, pitch_mm: [12, 16] as [number, number] },
      moves: 'rear' as const,
    };
    const { lens } = station({});
    const chain = [{ kind: 'adapter' as const, thickness_mm: 20, movement: sliding }];
    expect(movementsOf({ lens, chain })).toMatchObject({ shift_mm: [-18, 18], rise_mm: [-8, 8] });
  });
});
