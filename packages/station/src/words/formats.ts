import { atLeast } from './rounded.js';

/**
 * Sensors and film by the size of the picture. 24 × 36 mm: ISO 1007; the others from memory,
 * makers differ by a millimetre.
 */
export const FORMATS = [
  { name: '17.3 × 13 mm', width_mm: 17.3, height_mm: 13 },
  { name: '22.3 × 14.9 mm', width_mm: 22.3, height_mm: 14.9 },
  { name: '23.5 × 15.6 mm', width_mm: 23.5, height_mm: 15.6 },
  { name: '24 × 36 mm', width_mm: 36, height_mm: 24 },
  { name: '44 × 33 mm', width_mm: 44, height_mm: 33 },
  { name: '54 × 40 mm', width_mm: 54, height_mm: 40 },
  { name: '6 × 4.5 cm', width_mm: 56, height_mm: 41.5 },
  { name: '6 × 6 cm', width_mm: 56, height_mm: 56 },
  { name: '6 × 7 cm', width_mm: 70, height_mm: 56 },
  { name: '6 × 9 cm', width_mm: 84, height_mm: 56 },
  { name: '6 × 12 cm', width_mm: 112, height_mm: 56 },
  { name: '6 × 17 cm', width_mm: 168, height_mm: 56 },
  { name: '4 × 5 in', width_mm: 120, height_mm: 95 },
  { name: '5 × 7 in', width_mm: 170, height_mm: 120 },
  { name: '8 × 10 in', width_mm: 244, height_mm: 194 },
] as const;

export type FormatName = (typeof FORMATS)[number]['name'];

/** A format by its name. */
export const formatNamed = (name: string): (typeof FORMATS)[number] =>
  FORMATS.find((format) => format.name === name) ?? FORMATS[3];

/** The least circle that covers a format: its diagonal, rounded so that it does. */
export const circleFor = ({ width_mm, height_mm }: (typeof FORMATS)[number]): number =>
  atLeast(Math.hypot(width_mm, height_mm), 1);

/** From here on nobody makes a sensor: it is film. */
export const LARGEST_SENSOR_MM = { width_mm: 54, height_mm: 40 } as const;
