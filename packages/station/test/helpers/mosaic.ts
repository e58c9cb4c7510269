import { parseStation, type Mosaic, type Station } from '../../src/index.js';

export type Given = Omit<
  Partial<Station>,
  'back' | 'lens' | 'movements' | 'movement_limits' | 'camera'
> & {
  back?: object;
  lens?: object;
  movements?: object;
  movement_limits?: object;
  camera?: object;
};

/** A straight 50 mm lens at infinity, 36 × 24 mm of 6000 × 4000 px (6 µm), a circle of 90 mm. */
export function station({
  back,
  lens,
  movements,
  movement_limits,
  camera,
  ...rest
}: Given): Station {
  const read = parseStation({
    format: 'gangway.station',
    version: 1,
    name: 'Mosaic',
    back: {
      width_mm: 36,
      height_mm: 24,
      width_px: 6000,
      height_px: 4000,
      orientation: 'landscape',
      ...back,
    },
    lens: {
      focal_length_mm: 50,
      f_min: 4,
      f_max: 22,
      circle: [{ f_number: 4, diameter_mm: 90 }],
      ...lens,
    },
    chain: [],
    movement_limits: { rise_mm: [-20, 20], shift_mm: [-20, 20], moves: 'rear', ...movement_limits },
    aperture: 8,
    focus: { distance_m: null },
    movements: { rise_mm: 0, shift_mm: 0, tilt_deg: 0, swing_deg: 0, ...movements },
    camera: { height_m: 1.5, pitch_deg: 0, yaw_deg: 0, ...camera },
    criterion: { coc_mm: 0.03 },
    ...rest,
  });
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.value;
}

export const laid = (mosaic: Mosaic, given: Given = {}): Station => station({ ...given, mosaic });

/** Three frames side by side, each half over the next. */
export const row = { pattern: 'grid', columns: 3, overlap: 0.5, moves: 'rear' } satisfies Mosaic;

export const free = (...places: [number, number][]): Mosaic => ({
  pattern: 'free',
  moves: 'rear',
  places: places.map(([x_mm, y_mm]) => ({ x_mm, y_mm })),
});

export const placesOf = ({ mosaic }: Station): number[][] =>
  mosaic?.pattern === 'free' ? mosaic.places!.map(({ x_mm, y_mm }) => [x_mm, y_mm]) : [];
