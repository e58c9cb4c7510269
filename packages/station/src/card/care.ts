import type { CareKind } from '../document/stand.js';
import type { Station } from '../document/station.js';

/** The usual cautions, short; local rules and licensed practice come first. */
export const CARE_WORDS: Readonly<Record<CareKind, string>> = {
  sun: 'Never look at the sun through lens or finder, and do not leave it on a bare sensor or shutter: cap the lens.',
  height:
    'Roof or scaffold: follow the house’s own rules, tie yourself and the tripod where they ask for it, nothing loose over an edge.',
  road: 'Near traffic: keep off the carriageway unless you are allowed on it, be seen, and have somebody watch.',
  stairs: 'On stairs: leave the way clear, and mind the leg that is out.',
  water: 'By water: know the tide and the way back, and go back early.',
  falling:
    'A heavy head or a long front tips: a leg under the lens, a weight on the column, a strap on what is unclamped.',
  mains:
    'Mains and packs: dry hands, dry floor, leads taped down; leave the inside of a flash to licensed people.',
  permission:
    'Ask whose ground it is, and whether a tripod may stand here; local rules go before this card.',
};

export const CARE_NAMES: Readonly<Record<CareKind, string>> = {
  sun: 'sun',
  height: 'roof or height',
  road: 'road',
  stairs: 'stairs',
  water: 'water, tide',
  falling: 'falling gear',
  mains: 'mains, flash packs',
  permission: 'permission',
};

/** Higher than this somebody stands on something. */
const HIGH_M = 2.2;
/** A front that hangs out so far is held with two hands, mm; common practice, no source. */
const LONG_MM = 350;

/** What applies as far as the station itself tells it. */
export function usualCare({ site, camera, exposure, chain, focus, facade }: Station): CareKind[] {
  const indoors = site?.room !== undefined;
  const drawn =
    focus.image_distance_mm !== undefined &&
    focus.image_distance_mm > LONG_MM &&
    chain.some(({ kind }) => kind === 'view_camera');
  return [
    ...(indoors ? [] : (['sun'] as const)),
    ...(camera.height_m > HIGH_M ? (['height', 'falling'] as const) : []),
    ...(drawn ? (['falling'] as const) : []),
    ...(exposure?.flash ? (['mains'] as const) : []),
    ...(facade ? (['permission'] as const) : []),
  ];
}

export const careOf = (station: Station): CareKind[] => [
  ...new Set(station.stand?.care ?? usualCare(station)),
];
