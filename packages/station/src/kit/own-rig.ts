import type { WholeRig } from './rig-document.js';
import { newRig } from './rig-document.js';
import { rigNameOf } from './rig-name.js';
import { itemFrom } from './texts.js';
import type { KitItemOf } from './schema.js';
import { isSheet } from '../document/focusing.js';
import { FORMATS, LARGEST_SENSOR_MM } from '../words/formats.js';

/** A lens of one's own as it is first told: three figures from its data sheet, and what it stands before. */
export const OWN_LENS_FIELDS = [
  'focal',
  'widest',
  'smallest',
  'circle',
  'shift',
  'tilt',
  'focus',
  'infinity',
  'format',
  'name',
] as const;

export type OwnLensField = (typeof OWN_LENS_FIELDS)[number];
export type OwnLensTexts = Readonly<Record<OwnLensField, string>>;

/** Where each of them goes in the item, and so whose message it shows. */
const PATHS: Readonly<Record<string, OwnLensField>> = {
  name: 'name',
  focal_length_mm: 'focal',
  f_min: 'widest',
  f_max: 'smallest',
  circle: 'circle',
  'movement.shift_mm': 'shift',
  'movement.rise_mm': 'shift',
  'movement.tilt_deg': 'tilt',
  'movement.swing_deg': 'tilt',
  focus_by: 'focus',
  bed_infinity_mm: 'infinity',
};

/** How a lens is focused, as it is asked; before sheet film it stands on a bed (common practice, no source). */
export const OWN_FOCUS = {
  helicoid: 'by its own ring',
  bellows: 'on a bed',
  rail: 'on a rail',
} as const;
export type OwnFocus = keyof typeof OWN_FOCUS;

/** How it is focused: as it was chosen, else as is usual before the format that was. */
export function ownFocus({ focus, format }: Pick<OwnLensTexts, 'focus' | 'format'>): OwnFocus {
  if (focus in OWN_FOCUS) return focus as OwnFocus;
  const back = FORMATS.find(({ name }) => name === format);
  return back && isSheet(back) ? 'bellows' : 'helicoid';
}

export interface OwnRig {
  readonly lens: KitItemOf<'lens'>;
  readonly back: KitItemOf<'back'>;
}

export type OwnRigRead =
  | { readonly ok: true; readonly value: OwnRig }
  | { readonly ok: false; readonly messages: Readonly<Partial<Record<OwnLensField, string>>> };

const NEEDED: readonly (readonly [OwnLensField, string])[] = [
  ['focal', 'Give the focal length in millimetres.'],
  ['widest', 'Give the widest stop, as f/2.8.'],
  ['circle', 'Give the circle’s diameter in millimetres, or choose what the lens was made for.'],
  ['format', 'Choose the size of the sensor or film.'],
];

/**
 * A lens and a back from what a person knows at first. Nothing that was not given is put in, but
 * for the names: a lens without one is called by its figures.
 * @returns both, or a sentence for each field that needs another look
 */
export function ownRig(texts: OwnLensTexts): OwnRigRead {
  const messages: Partial<Record<OwnLensField, string>> = {};
  for (const [field, message] of NEEDED) if (texts[field].trim() === '') messages[field] = message;
  const format = FORMATS.find(({ name }) => name === texts.format);
  if (!format) messages.format ??= 'Choose one of the formats.';
  const widest = texts.widest.trim();
  const stop = /^f/i.test(widest) ? widest : `f/${widest}`;
  const written = {
    name: texts.name.trim() || `${texts.focal.trim().replace(/\s*mm$/i, '')} mm ${stop}`,
    focal_length_mm: texts.focal,
    f_min: widest,
    f_max: texts.smallest,
    circle: texts.circle.trim() === '' ? '' : `${stop}: ${texts.circle.trim()}`,
    'movement.rise_mm': texts.shift,
    'movement.shift_mm': texts.shift,
    'movement.tilt_deg': texts.tilt,
    'movement.swing_deg': texts.tilt,
    focus_by: ownFocus(texts),
    bed_infinity_mm: ownFocus(texts) === 'bellows' ? texts.infinity : '',
  };
  const { item, messages: wrong } = itemFrom('lens', written);
  for (const [path, message] of Object.entries(wrong)) {
    const field = PATHS[path] ?? PATHS[path.split('.')[0]!] ?? 'name';
    // What is wrong with the stop is told at the stop, not again at the circle.
    if (field === 'circle' && messages.widest !== undefined) continue;
    messages[field] ??= message;
  }
  if (Object.keys(messages).length > 0 || !item.ok || !format) return { ok: false, messages };
  return {
    ok: true,
    value: {
      lens: item.value as KitItemOf<'lens'>,
      back: {
        kind: 'back',
        name: format.name,
        width_mm: format.width_mm,
        height_mm: format.height_mm,
        ...(format.width_mm > LARGEST_SENSOR_MM.width_mm ? { medium: 'film' as const } : {}),
      },
    },
  };
}

/** A rig of a lens and a back, called after both. */
export const rigOf = (parts: Pick<WholeRig, 'lens' | 'back'>): WholeRig => ({
  ...newRig(rigNameOf({ ...parts, chain: [] })),
  ...parts,
});
