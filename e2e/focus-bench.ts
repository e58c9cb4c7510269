import type { Locator, Page } from '@playwright/test';
import { demo, stored } from './helpers.js';

export interface Focused {
  movements: {
    tilt_deg: number;
    swing_deg: number;
    rear_tilt_deg?: number;
  };
  focus: { distance_m?: number | null; magnification?: number; image_distance_mm?: number };
  aperture: number;
  marks: { label: string; x_m: number; y_m: number; z_m: number; must: string }[];
  criterion: object;
  mosaic?: { columns: number; near_m: number };
  held_off?: { gap_mm: number };
  bed?: { near_mm: number };
  solve?: { tilt: boolean; swing: boolean; rear?: boolean; follow?: boolean };
}

export const document = async (api: string): Promise<Focused> =>
  (await stored(api)).document as unknown as Focused;

export const verdict = (page: Page): Locator => page.getByRole('link', { name: /^Focus:/ });
export const told = (page: Page): Locator => page.getByRole('complementary', { name: 'Focus' });

export const bench = () =>
  demo('2-glassblower-bench') as unknown as Focused & Record<string, unknown>;

/** The bench with the lens straight again. */
export const unset = () => {
  const station = bench();
  return { ...station, movements: { ...station.movements, tilt_deg: 0 } };
};

/** The line of one mark in the list beside the drawing. */
export const line = (page: Page, name: string): Locator =>
  page
    .getByRole('complementary')
    .getByRole('group')
    .filter({ has: page.getByText(name, { exact: true }) });
