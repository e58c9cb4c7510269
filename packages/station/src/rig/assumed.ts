import { perRig, type RigFacts } from '../optical/facts.js';
import { assumed, type Assumption, type Rests } from '../words/assumptions.js';
import { blanksOfGear } from './blanks.js';

/** What is taken to be in order of a lens that is mounted: the gear alone decides. */

const REACH: readonly Rests[] = ['reach'];

function lengths({ lens, back, lengths: found }: RigFacts): Assumption[] {
  const { bellows, fixedMm, boardOffsetMm } = found;
  const own = lens.register_mm ?? lens.flange_focal_mm;
  const focalMm = lens.focal_length_mm;
  const all: Assumption[] = [];
  if (bellows) {
    if (own === undefined) {
      all.push(assumed('flange_focal', { focalMm }, '/lens/flange_focal_mm', focalMm, REACH));
    }
    if (back.register_mm === undefined && back.medium !== 'film') {
      all.push(assumed('back_on_mount', null, '/back/register_mm', 0, REACH));
    }
    return all;
  }
  if (own === undefined) {
    const there = back.register_mm === undefined ? null : fixedMm + boardOffsetMm;
    all.push(assumed('lens_register', null, '/lens/register_mm', there, REACH));
  }
  if (back.register_mm === undefined) {
    all.push(assumed('body_register', null, '/back/register_mm', null, REACH));
  }
  return all;
}

/** What the light of an adapted lens has to pass, where nobody gave its width. */
function throats({ chain, back }: RigFacts): Assumption[] {
  const blank = (pointer: string, name: string): Assumption =>
    assumed('throat', { name }, pointer, null, ['circle', 'core']);
  const adapters = chain.flatMap((part, i) =>
    part.kind === 'adapter' && part.throat_mm === undefined
      ? [blank(`/chain/${i}/throat_mm`, part.name?.trim() || 'the adapter')]
      : [],
  );
  const adapted = chain.some(({ kind }) => kind === 'adapter');
  return adapted && back.throat_mm === undefined
    ? [...adapters, blank('/back/throat_mm', back.name?.trim() || 'the back')]
    : adapters;
}

const contacts = (facts: RigFacts): Assumption[] =>
  blanksOfGear(facts)
    .filter(({ pointer }) => pointer.endsWith('/contacts'))
    .map(({ pointer, what }) => assumed('contacts', { what }, pointer, true, ['iris']));

export const mountingAssumed = perRig((facts): readonly Assumption[] => [
  ...lengths(facts),
  ...throats(facts),
  ...contacts(facts),
]);
