import { SETTINGS, type Settings, type Station } from './station.js';

/** Named alternatives of one station: one is present, the others are kept beside it. */

/** What the present variant is called before it was given a name. */
export const FIRST_VARIANT = 'As set';

export const presentName = ({ variants }: Station): string => variants?.present ?? FIRST_VARIANT;

/** The station's settings by themselves. */
export const settingsOf = (station: Station): Settings =>
  Object.fromEntries(
    SETTINGS.flatMap((key) => (station[key] === undefined ? [] : [[key, station[key]]])),
  ) as unknown as Settings;

/** A station that is set as a kept variant says, all else as it is. */
function withSettings(station: Station, settings: Settings): Station {
  const rest = Object.fromEntries(
    Object.entries(station).filter(([key]) => !(SETTINGS as readonly string[]).includes(key)),
  );
  return { ...rest, ...settings } as unknown as Station;
}

export interface Variant {
  readonly name: string;
  /** The station as this variant sets it, without the others. */
  readonly station: Station;
  readonly present: boolean;
}

/** All variants, the present one first. */
export function variantsOf(station: Station): Variant[] {
  const { variants, ...plain } = station;
  return [
    { name: presentName(station), station: plain, present: true },
    ...(variants?.kept ?? []).map(({ name, settings }) => ({
      name,
      station: withSettings(plain, settings),
      present: false,
    })),
  ];
}

/** Why a name cannot be given, or null. */
export function refusedName(station: Station, name: string, except?: string): string | null {
  const wanted = name.trim();
  if (wanted === '') return 'Give it a name.';
  if (wanted.length > 60) return 'At most 60 characters.';
  const taken = variantsOf(station).some(
    (each) => each.name !== except && each.name.toLowerCase() === wanted.toLowerCase(),
  );
  return taken ? `There is one named “${wanted}” already.` : null;
}

/** Lays the present settings by under their name and goes on with a copy under a new one. */
export function withNewVariant(station: Station, name: string): Station {
  const kept = station.variants?.kept ?? [];
  return {
    ...station,
    variants: {
      ...station.variants,
      present: name.trim(),
      kept: [...kept, { name: presentName(station), settings: settingsOf(station) }],
    },
  };
}

/** Goes on with a kept variant; the present one is laid by in its place. */
export function withVariant(station: Station, name: string): Station {
  const kept = station.variants?.kept ?? [];
  const chosen = kept.find((each) => each.name === name);
  if (!chosen) return station;
  return {
    ...withSettings(station, chosen.settings),
    variants: {
      ...station.variants,
      present: name,
      kept: kept.map((each) =>
        each === chosen ? { name: presentName(station), settings: settingsOf(station) } : each,
      ),
    },
  };
}

export function withVariantNamed(station: Station, from: string, to: string): Station {
  const kept = station.variants?.kept ?? [];
  const name = to.trim();
  return {
    ...station,
    variants: {
      ...station.variants,
      present: presentName(station) === from ? name : presentName(station),
      kept: kept.map((each) => (each.name === from ? { ...each, name } : each)),
    },
  };
}

/** Without a kept variant; the present one cannot be taken away. */
export function withoutVariant(station: Station, name: string): Station {
  const kept = (station.variants?.kept ?? []).filter((each) => each.name !== name);
  const { variants, ...rest } = station;
  if (kept.length === 0 && presentName(station) === FIRST_VARIANT) return rest;
  return { ...rest, variants: { ...variants, present: presentName(station), kept } };
}
