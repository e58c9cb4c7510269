import {
  backFrom,
  chainPartFrom,
  filterFrom,
  goesInChain,
  lensFrom,
  type Kind,
  type Rig,
} from '@gangway/station';
import type { StoredItem } from '../records/read-kit.js';

/** What the picker is open for: a place of the rig. */
export type Asking =
  { place: 'lens' | 'back' | 'filter' } | { place: 'chain'; at: number; swap: boolean };

export const KINDS_FOR: Record<Asking['place'], readonly Kind[]> = {
  lens: ['lens'],
  back: ['back'],
  filter: ['filter'],
  chain: ['adapter', 'multiplier', 'board', 'camera'],
};

export const TITLES: Record<Asking['place'], string> = {
  lens: 'Choose the lens',
  back: 'Choose the back',
  filter: 'Choose a filter',
  chain: 'Choose what goes between',
};

/** A rig with an item of the kit put in its place. @returns a sentence where it does not go */
export function withItem(rig: Rig, asking: Asking, stored: StoredItem): Rig | string {
  const { document } = stored;
  if (asking.place === 'lens' && document.kind === 'lens') {
    return { ...rig, lens: lensFrom({ ...stored, document }) };
  }
  if (asking.place === 'back' && document.kind === 'back') {
    return { ...rig, back: backFrom({ ...stored, document }, rig.back?.orientation) };
  }
  if (asking.place === 'filter' && document.kind === 'filter' && rig.lens) {
    const made = filterFrom({ ...stored, document }, rig.lens);
    return made.ok ? { ...rig, lens: { ...rig.lens, filter: made.value } } : made.message;
  }
  if (asking.place === 'chain' && goesInChain(document)) {
    const chain = [...rig.chain];
    chain.splice(asking.at, asking.swap ? 1 : 0, chainPartFrom({ ...stored, document }));
    return { ...rig, chain };
  }
  return rig;
}
