import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import * as z from 'zod';
import type { Units } from '@gangway/station';
import { local, readFrom, writeTo } from '../browser/storage.js';

type Light = 'daylight' | 'darkcloth';

export interface Preferences {
  light: Light;
  units: Units;
  /** The picture as it lies on a ground glass: upside down and left to right. */
  groundGlass: boolean;
  /** Lines over the picture, by thirds. */
  grid: boolean;
  /** The colour that shows what is sharp in a blurred picture. */
  sharpTint: SharpTint;
  /** A page is being printed: its light is the paper's, and is not kept. */
  onPaper: boolean;
}

/** Colours far from those that verdicts are told in. */
export const SHARP_TINTS = ['none', 'blue', 'magenta', 'yellow', 'white'] as const;
type SharpTint = (typeof SHARP_TINTS)[number];

const KEY = 'gangway.preferences';

const schema = z.object({
  light: z.enum(['daylight', 'darkcloth']).catch('daylight'),
  units: z.enum(['metric', 'feet']).catch('metric'),
  groundGlass: z.boolean().catch(false),
  grid: z.boolean().catch(false),
  sharpTint: z.enum(SHARP_TINTS).catch('blue'),
  onPaper: z.literal(false).catch(false),
});

function kept(): Preferences {
  try {
    return schema.parse(JSON.parse(readFrom(local, KEY) ?? '{}'));
  } catch {
    return schema.parse({});
  }
}

export function keepPreferences(preferences: Preferences): void {
  document.documentElement.dataset.light = preferences.light;
  if (preferences.onPaper) return;
  // Where storage is full or forbidden the choice holds for this visit.
  writeTo(local, KEY, JSON.stringify(preferences));
}

const slice = createSlice({
  name: 'preferences',
  initialState: kept,
  reducers: {
    lightChosen: (state, action: PayloadAction<Light>) => {
      state.light = action.payload;
    },
    paperLaid: (state, action: PayloadAction<boolean>) => {
      state.onPaper = action.payload;
    },
    unitsChosen: (state, action: PayloadAction<Units>) => {
      state.units = action.payload;
    },
    groundGlassFlipped: (state) => {
      state.groundGlass = !state.groundGlass;
    },
    gridToggled: (state) => {
      state.grid = !state.grid;
    },
    sharpTintChosen: (state, action: PayloadAction<SharpTint>) => {
      state.sharpTint = action.payload;
    },
  },
});

export const {
  lightChosen,
  paperLaid,
  unitsChosen,
  groundGlassFlipped,
  gridToggled,
  sharpTintChosen,
} = slice.actions;
export const preferencesReducer = slice.reducer;
